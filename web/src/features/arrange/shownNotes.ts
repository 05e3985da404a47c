import {
  givenMeasures,
  type ArrangementDoc,
  type Id,
  type Lock,
  type TabNote,
  type TuneDoc,
} from '@velvet-porch/core/document'
import type { Alternative } from '@velvet-porch/core/arrange'

/** An arrangement with another way of playing some of it in place, to be looked at and heard. */
export function withAlternative(doc: ArrangementDoc, way: Alternative): ArrangementDoc {
  const notes = new Map(way.moved.map((n) => [n.id, n]))
  const grips = new Map(way.grips.map((g) => [g.id, g]))
  return {
    ...doc,
    base: {
      ...doc.base,
      notes: doc.base.notes.map((n) => notes.get(n.id) ?? n),
      grips: doc.base.grips.map((g) => grips.get(g.id) ?? g),
    },
  }
}

/** Notes of the second arrangement that lie or are fingered otherwise in the first, or are not in it. */
export function changedNotes(a: ArrangementDoc, b: ArrangementDoc): ReadonlySet<Id> {
  const key = (n: ArrangementDoc['base']['notes'][number]) =>
    [n.place.string, n.place.fret, n.place.harmonic, n.left, n.dur.ticks].join()
  const known = new Map(a.base.notes.map((n) => [n.id, key(n)]))
  const changed = new Set(b.base.notes.filter((n) => known.get(n.id) !== key(n)).map((n) => n.id))
  const kept = new Set(b.base.notes.map((n) => n.id))
  for (const n of a.base.notes) if (!kept.has(n.id)) changed.add(n.id)
  return changed
}

/**
 * The locks that are worth showing: where the tab is given everything is as it was typed, and where its text names a finger
 * for each note of a measure every finger is.
 */
export function shownLocks(
  tune: Pick<TuneDoc, 'measures'> | undefined,
  doc: ArrangementDoc | null | undefined,
): readonly Lock[] {
  if (!tune || !doc) return doc?.base.locks ?? []
  const given = givenMeasures(tune, doc.regions)
  return given.size === 0 ? doc.base.locks : doc.base.locks.filter(worthShowing(doc, given))
}

function worthShowing({ base }: ArrangementDoc, given: ReadonlySet<Id>): (lock: Lock) => boolean {
  const fingered = {
    left: allFingered(base, 'left', (n) => n.place.fret > 0),
    right: allFingered(base, 'right', (n) => n.right !== 'none'),
  }
  const measureOf = new Map(base.notes.map((n) => [n.id, n.pos.measure]))
  return (lock) => {
    if (lock.field === 'typed') return !given.has(lock.value.pos.measure)
    if (lock.field !== 'left' && lock.field !== 'right') return true
    const measure = measureOf.get(lock.target)
    return measure === undefined || !given.has(measure) || !fingered[lock.field].has(measure)
  }
}

/** Measures in which each note that needs a finger of this hand has one that is set. */
function allFingered(
  { notes, locks }: ArrangementDoc['base'],
  field: 'left' | 'right',
  needs: (n: TabNote) => boolean,
): ReadonlySet<Id> {
  const set = new Set(locks.filter((l) => l.field === field).map((l) => l.target))
  const without = new Set(notes.filter((n) => needs(n) && !set.has(n.id)).map((n) => n.pos.measure))
  return new Set(notes.map((n) => n.pos.measure).filter((m) => !without.has(m)))
}

/** Notes, grips and measures that are locked. */
export const lockedTargets = (
  tune: Pick<TuneDoc, 'measures'> | undefined,
  doc: ArrangementDoc | null | undefined,
): ReadonlySet<Id> => new Set(shownLocks(tune, doc).map((l) => l.target))
