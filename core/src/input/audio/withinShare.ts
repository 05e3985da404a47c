/**
 * Work that is a part of some other: the share that it tells is put where its part lies.
 * @param from share of the whole at which it begins
 * @param width share of the whole that it is
 */
export function* withinShare<T>(
  work: Generator<number, T>,
  from: number,
  width: number,
): Generator<number, T> {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    yield from + width * step.value
  }
}
