import { WHOLE, type Ticks } from '@velvet-porch/core/music'

/** Lengths that the pen offers, as shares of a whole note. */
export const VALUES = [1, 2, 4, 8, 16, 32] as const
export type Value = (typeof VALUES)[number]

/** The printed share of a whole note. */
export const VALUE_SIGNS: Readonly<Record<Value, string>> = {
  1: '1',
  2: '½',
  4: '¼',
  8: '⅛',
  16: '¹⁄₁₆',
  32: '¹⁄₃₂',
}

export const ticksOf = (value: Value, dotted: boolean): Ticks => (WHOLE / value) * (dotted ? 1.5 : 1)

/** The value and dot of a length that the pen can have. */
export function valueOf(ticks: Ticks): { readonly value: Value; readonly dotted: boolean } | undefined {
  for (const value of VALUES)
    for (const dotted of [false, true]) if (ticksOf(value, dotted) === ticks) return { value, dotted }
  return undefined
}

/** The next longer or shorter length without a dot. */
export function neighbourValue(ticks: Ticks, by: 1 | -1): Ticks {
  const lengths = VALUES.map((v) => ticksOf(v, false))
  const longer = lengths.filter((l) => l > ticks).at(-1)
  const shorter = lengths.find((l) => l < ticks)
  return (by > 0 ? longer : shorter) ?? ticks
}

/** A third and two of a beat, as triplets have them. */
const THIRDS = new Map([
  [WHOLE / 12, '⅓ ♩'],
  [WHOLE / 6, '⅔ ♩'],
])

/** A length in print: a share of a whole note with its dot, or thirds of a beat; others as values joined by a plus. */
export function lengthSign(ticks: Ticks): string {
  const third = THIRDS.get(ticks % (WHOLE / 4))
  if (third) return ticks < WHOLE / 4 ? third : `${lengthSign(ticks - (ticks % (WHOLE / 4)))}+${third}`
  const own = valueOf(ticks)
  if (own) return `${VALUE_SIGNS[own.value]}${own.dotted ? '.' : ''}`
  const largest = VALUES.map((v) => ticksOf(v, false)).find((l) => l < ticks)
  return largest === undefined ? String(ticks) : `${lengthSign(largest)}+${lengthSign(ticks - largest)}`
}
