/** Where a measure begins in a recording. Measures are counted as they are played, repeats written out, from 0. */
export interface RecordingMark {
  readonly played: number
  readonly seconds: number
}

/** The marks with one more: one of the same measure gives way, and so do those that would run backwards. */
export function withMark(marks: readonly RecordingMark[], mark: RecordingMark): RecordingMark[] {
  const agrees = (m: RecordingMark) =>
    m.played < mark.played ? m.seconds < mark.seconds : m.played > mark.played && m.seconds > mark.seconds
  return [...marks.filter(agrees), mark].sort((a, b) => a.played - b.played)
}

/**
 * The second at which a played measure begins; between two marks the tempo is taken to be steady, beyond the outer ones it
 * goes on as between the nearest two.
 * @param played may lie inside a measure: 2.5 is the middle of the third
 * @returns undefined where there are fewer than two marks
 */
export const secondOf = (marks: readonly RecordingMark[], played: number): number | undefined =>
  along(
    marks.map((m) => [m.played, m.seconds] as const),
    played,
  )

/** The played measure at a second, with the share of it that has passed; undefined where there are fewer than two marks. */
export const playedAt = (marks: readonly RecordingMark[], seconds: number): number | undefined =>
  along(
    marks.map((m) => [m.seconds, m.played] as const),
    seconds,
  )

/** A rising line through points, straight between them and beyond. */
function along(points: readonly (readonly [number, number])[], x: number): number | undefined {
  if (points.length < 2) return undefined
  const next = points.findIndex(([at]) => at > x)
  const i = next < 0 ? points.length - 1 : Math.max(1, next)
  const [[x0, y0], [x1, y1]] = [points[i - 1]!, points[i]!]
  return y0 + ((x - x0) * (y1 - y0)) / (x1 - x0)
}
