/** A written value: `base` 4 with one dot is a dotted quarter. */
export interface WrittenValue {
  readonly base: number
  readonly dots: number
}

/**
 * Reads a share of a whole note as a note value. Values that need a tie (5/8) get the largest plain value below;
 * the exact ticks stand beside it in the event.
 */
export function writtenValue(share: number): WrittenValue {
  for (let base = 1; base <= 128; base *= 2) {
    for (let dots = 0; dots <= 3; dots++) {
      if (Math.abs(share - (2 - 2 ** -dots) / base) < 1e-9) return { base, dots }
    }
  }
  let base = 1
  while (base < 128 && 1 / base > share) base *= 2
  return { base, dots: 0 }
}
