import { knownIn } from '../../invariant.ts'
import { measureAt, type MelodyNote, type Timeline } from '../../document/form/timeline.ts'
import type { Turns } from '../../turns.ts'
import type { PlannedBass } from './bassLine.ts'
import type { HarmonySegment } from './harmonyLine.ts'

/**
 * Gives measures with the same tune and harmony the same bass: where basses take turns from measure to measure, a
 * measure that comes again takes the turn that it had the first time.
 * @param contents of each measure (`bassContents`)
 * @param isKept false for measures that are to be varied
 */
export function* alikeBass(
  bass: readonly PlannedBass[],
  timeline: Timeline,
  contents: (measure: number) => string,
  isKept: (measure: number) => boolean,
): Turns<PlannedBass[]> {
  const first = new Map<string, number>()
  const models = new Map<number, PlannedBass>()
  const at = new Map<number, number[]>()
  bass.forEach((b, i) => {
    const m = measureAt(timeline, b.start)
    at.set(m, [...(at.get(m) ?? []), i])
  })
  yield
  for (const [m, indices] of at) {
    if (!isKept(m)) continue
    const content = contents(m)
    const model = first.get(content)
    if (model === undefined) first.set(content, m)
    else knownIn(at, model).forEach((k, i) => models.set(indices[i]!, bass[k]!))
  }
  return bass.map((b, i) => {
    if (!models.has(i)) return b
    const { kind, string } = knownIn(models, i)
    return { ...b, kind, ...(string === undefined ? {} : { string }) }
  })
}

/**
 * What a measure's bass is made from, as one text: its tune and its chords. Equal measures have equal texts.
 * @param joins measures whose start is a join of the played order: their roots stay
 */
export function* bassContents(
  bass: readonly PlannedBass[],
  timeline: Timeline,
  melody: readonly MelodyNote[],
  harmony: readonly HarmonySegment[],
  joins: ReadonlySet<number>,
): Turns<(measure: number) => string> {
  const tune = byMeasure(
    melody,
    timeline,
    (n) => `${n.pitch.step}${n.pitch.alter}${n.pitch.octave}:${n.duration}`,
  )
  yield
  const basses = byMeasure(bass, timeline, (b) => `${harmony[b.segment]?.symbol}${b.change}${b.firm}`)
  yield
  return (m) => `${tune.get(m) ?? ''}|${basses.get(m)}|${joins.has(m)}`
}

/** What stands in each measure, as one text. */
function byMeasure<T extends { readonly start: number }>(
  list: readonly T[],
  timeline: Timeline,
  text: (item: T) => string,
): Map<number, string> {
  const texts = new Map<number, string>()
  for (const item of list) {
    const m = measureAt(timeline, item.start)
    texts.set(m, `${texts.get(m) ?? ''}${item.start - timeline.starts[m]!}${text(item)};`)
  }
  return texts
}
