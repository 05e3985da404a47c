import { melodyOf, timelineOf } from '../../document/form/timeline.ts'
import type { Layer } from '../../document/arrangement.ts'
import { isLockOf, isManual, type Lock } from '../../document/locks.ts'
import type { Id } from '../../document/ids.ts'
import { givenMeasures } from '../../document/regions.ts'
import { durationOf } from '../../document/durationOf.ts'
import { withNote, withoutNotes } from './placed.ts'
import type { Turns } from '../../turns.ts'
import { findingHands, type TabContext } from './findHands.ts'

/**
 * A tab fresh from the solver with what was written by hand laid over it: notes that were erased go, typed ones take
 * their places, and both hands are found again in the measures that this touches.
 */
export function* layingOverManualEdits(
  layer: Layer,
  context: TabContext,
  locks: readonly Lock[],
): Turns<Layer> {
  const given = givenMeasures(context.tune, context.regions)
  if (given.size === 0 && !locks.some(isManual)) return { ...layer, locks }
  const timeline = timelineOf(context.tune.measures)
  const erased = new Set(locks.filter((l) => l.field === 'erased').map((l) => l.target))
  const typed = new Set(locks.filter((l) => l.field === 'typed').map((l) => l.target))
  const touched = new Set<Id>()
  let next = withoutNotes(
    { ...layer, locks, grips: layer.grips.filter((g) => !given.has(g.pos.measure)) },
    (n) => {
      const goes = erased.has(n.id) || (given.has(n.pos.measure) && !typed.has(n.id))
      if (goes) touched.add(n.pos.measure)
      return goes
    },
    timeline,
  )
  const melody = new Map(melodyOf(context.tune, timeline).map((n) => [n.sourceId, n]))
  for (const [i, { value: note }] of locks.filter(isLockOf('typed')).entries()) {
    if (i % 16 === 15) yield
    if (!timeline.indexOf.has(note.pos.measure)) continue
    const own = note.sourceId === undefined ? undefined : melody.get(note.sourceId)
    if (note.role === 'melody' && !own) continue
    next = withNote(next, own ? { ...note, dur: durationOf(own.duration) } : note, timeline)
    touched.add(note.pos.measure)
  }
  for (const l of locks) {
    if (l.field !== 'right') continue
    const note = next.notes.find((n) => n.id === l.target)
    if (note) touched.add(note.pos.measure)
  }
  return touched.size > 0 ? yield* findingHands(next, context, touched, true) : { ...layer, locks }
}
