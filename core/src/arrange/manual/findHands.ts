import { timelineOf } from '../../document/form/timeline.ts'
import type { Layer, Region } from '../../document/arrangement.ts'
import { isLockOf, type Lock, type LockField, type LockValues } from '../../document/locks.ts'
import type { Id } from '../../document/ids.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { finish, type Turns } from '../../turns.ts'
import { refingering } from './refinger.ts'
import { regripping } from './regrip.ts'
import { repicking } from './repick.ts'

/** What a tab is played on, and where in which style. */
export interface TabContext {
  readonly tune: TuneDoc
  readonly setup: Setup
  readonly regions: readonly Region[]
}

/**
 * Both hands of some measures of a tab whose places are given: fingers, grips under them, picking. What was set by hand
 * (locks `left` and `right`) stays.
 * @param keep true where the fingers on the page are kept as far as the hand allows
 */
export function* findingHands(
  layer: Layer,
  desk: TabContext,
  measures: ReadonlySet<Id>,
  keep: boolean,
): Turns<Layer> {
  const { tune, setup, regions } = desk
  const timeline = timelineOf(tune.measures)
  const lefts = fixedBy(layer.locks, 'left')
  let { notes } = layer
  for (const { from, to } of stretches(tune, measures, timeline.starts, timeline.length))
    notes = yield* refingering(notes, layer.spans, timeline, setup, { from, to, fixed: lefts, keep })
  notes = yield* repicking(notes, timeline, tune, setup, regions, measures, fixedBy(layer.locks, 'right'))
  yield
  const last = tune.measures.at(-1)!
  const end = { measure: last.id, tick: last.length }
  return { ...layer, notes, grips: yield* regripping({ ...layer, notes }, timeline, setup, measures, end) }
}

/** The same, all at once: for what is typed and seen at once. */
export const withHands = (layer: Layer, desk: TabContext, measures: ReadonlySet<Id>, keep: boolean): Layer =>
  finish(findingHands(layer, desk, measures, keep))

/** Values of one field that are locked, by what they belong to. */
function fixedBy<F extends LockField>(locks: readonly Lock[], field: F): Map<Id, LockValues[F]> {
  return new Map(locks.filter(isLockOf(field)).map((l) => [l.target, l.value as LockValues[F]] as const))
}

/** Measures that stand one after the other, as stretches of written time. */
function stretches(
  tune: TuneDoc,
  measures: ReadonlySet<Id>,
  starts: readonly number[],
  length: number,
): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = []
  tune.measures.forEach((m, i) => {
    if (!measures.has(m.id)) return
    const from = starts[i]!
    const to = starts[i + 1] ?? length
    const last = found.at(-1)
    if (last?.to === from) last.to = to
    else found.push({ from, to })
  })
  return found
}
