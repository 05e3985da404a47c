/** Parts of the neck by the lowest fretted fret, counted from the capo. */
export const ZONES = ['1-3', '4-6', '7-9', '10+'] as const
export type Zone = (typeof ZONES)[number]

/** The zone of a shape; all open strings belong to the first. `frets` count from the capo. */
export function zoneOf(frets: readonly (number | null)[]): Zone {
  let lowest = Infinity
  for (const fret of frets) if (fret) lowest = Math.min(lowest, fret)
  if (!Number.isFinite(lowest) || lowest <= 3) return '1-3'
  return lowest <= 6 ? '4-6' : lowest <= 9 ? '7-9' : '10+'
}
