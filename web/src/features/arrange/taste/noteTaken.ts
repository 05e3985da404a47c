import {
  habitsChanged,
  measureNumbers,
  regionAt,
  type ArrangementDoc,
  type Region,
  type Score,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { takenByHand, type Alternative } from '@velvet-porch/core/arrange'
import { offeredWays, type Comparison } from '@velvet-porch/core/taste'
import { caseAt, noteChosen } from '../../../state/tastes.ts'
import { withAlternative } from '../shownNotes.ts'

/** Notes another way that was kept, over those that were offered with it. */
export function noteWay(
  tune: TuneDoc,
  doc: ArrangementDoc,
  measure: number,
  ways: readonly Alternative[],
  kept: Alternative,
  nameOfNew: string,
): Promise<void> {
  const prices = doc.regions[regionAt(tune, doc.regions, tune.measures[measure]!.id)]?.taste?.prices ?? {}
  const at = caseAt(tune, measureNumbers(tune.measures)[measure]!)
  const offered = { kind: 'way', at, ways: offeredWays(ways, prices), taken: ways.indexOf(kept) + 1 } as const
  return noteChosen([offered, ...takenIn(tune, doc, withAlternative(doc, kept))], nameOfNew)
}

/** Notes what a hand changed in a tab: fingers of chord shapes, fills that are gone. */
export async function noteEdit(before: Score, after: Score, nameOfNew: string): Promise<void> {
  const [was, is] = [before.arrangement, after.arrangement]
  if (!was || !is || was.regions.some((r) => r.given)) return
  await noteChosen(takenIn(before.tune, was, is), nameOfNew)
}

/** Notes settings of a section that were chosen otherwise. */
export const noteHabits = (tune: TuneDoc, before: Region, after: Region, nameOfNew: string): Promise<void> =>
  noteChosen(
    habitsChanged(before, after).map((habit) => ({ kind: 'habit', at: caseAt(tune, 1), habit })),
    nameOfNew,
  )

function takenIn(tune: TuneDoc, before: ArrangementDoc, after: ArrangementDoc): Comparison[] {
  const { shapes, fillsOut } = takenByHand(tune, before, after.base)
  const numbers = measureNumbers(tune.measures)
  const at = (measure: number) => caseAt(tune, numbers[measure]!)
  return [
    ...shapes.map(({ measure, shape }) => ({ kind: 'shape', at: at(measure), shape }) as const),
    ...fillsOut.map((measure) => ({ kind: 'leftOut', at: at(measure) }) as const),
  ]
}
