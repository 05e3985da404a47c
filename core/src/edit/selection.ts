import { tidyTab } from './tidyTab.ts'
import type { ArrangementDoc, Layer } from '../document/arrangement.ts'
import { lockOf, type Lock, type LockedMeasure } from '../document/locks.ts'
import type { Id } from '../document/ids.ts'
import { regionAt } from '../document/regions.ts'
import { USUAL_SCHOOL } from '../document/school.ts'
import type { TuneDoc } from '../document/tune.ts'
import { layerOfMeasures, withVariant } from '../document/variants.ts'
import type { PassingLock } from '../arrange/search/passingLocks.ts'

/** A lock that keeps a measure as it is played now: its style and level, every note's place and finger. */
export function measureLock(tune: TuneDoc, { regions, base }: ArrangementDoc, measure: Id, id: Id): Lock {
  const region = regions[Math.max(0, regionAt(tune, regions, measure))]!
  const value: LockedMeasure = {
    style: region.style,
    level: region.level,
    school: region.school ?? USUAL_SCHOOL,
    ...(region.ornament === undefined ? {} : { ornament: region.ornament }),
    notes: base.notes
      .filter((n) => n.pos.measure === measure)
      .map(({ id: note, place, left }) => ({ id: note, place, left })),
  }
  return lockOf('measure', id, measure, value)
}

/**
 * Locks under which only some measures are arranged anew: all others stay as they are, so that the hand comes from them
 * and goes back to them. They are for this one solve and do not enter the document.
 */
export function locksAround(tune: TuneDoc, doc: ArrangementDoc, selected: ReadonlySet<Id>): PassingLock[] {
  const outside = tune.measures.filter((m) => !selected.has(m.id))
  return [...doc.base.locks, ...outside.map((m) => around(measureLock(tune, doc, m.id, `around ${m.id}`)))]
}

const around = (lock: Lock): PassingLock => ({ ...lock, standsFor: 'around' })

/** An arrangement with some measures as another layer has them. All else stays, note for note. */
export function withSelection(
  tune: TuneDoc,
  doc: ArrangementDoc,
  arranged: Layer,
  selected: ReadonlySet<Id>,
): ArrangementDoc {
  const layer = layerOfMeasures(arranged, selected)
  const base = withVariant(doc.base, { measures: [...selected], layer })
  return tidyTab(tune, { ...doc, base })
}
