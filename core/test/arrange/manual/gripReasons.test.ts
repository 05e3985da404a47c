import { describe, expect, it } from 'vitest'
import { applyEdit } from '../../../src/edit/index.ts'
import type { Grip } from '../../../src/document/index.ts'
import { scoreOfPassage } from '../../support/passage.ts'
import { PASSAGES } from './passages.ts'

const fingersOf = ({ pressed }: Grip) => new Set(pressed.map((p) => p.finger))

/** What a grip says of itself that can be counted on the page: fingers that come down, and whether the hand goes elsewhere. */
function faultsOf(grips: readonly Grip[]): string[] {
  return grips.flatMap((grip, i) => {
    const before = grips[i - 1]
    if (!before) return []
    const down = fingersOf(before)
    const landing = [...fingersOf(grip)].filter((f) => !down.has(f)).length
    const of = (term: string) => grip.costs.find((c) => c.term === term)
    const faults: string[] = []
    const landed = of('land')?.quantity ?? 0
    if (landed !== landing) faults.push(`${grip.id}: ${landed} come down, on the page ${landing}`)
    const stays = before.position === grip.position
    if (stays && (of('shift') ?? of('shiftOnOpen') ?? of('lean'))) faults.push(`${grip.id}: moves and stays`)
    if (grip.costs.some((c) => c.cost <= 0)) faults.push(`${grip.id}: a reason that costs nothing`)
    return faults
  })
}

describe('why a grip of a given tab', () => {
  it('is told by the page: fingers that come down and the way of the hand', () => {
    for (const passage of PASSAGES) {
      const { base } = scoreOfPassage(passage).arrangement
      expect([passage.name, ...faultsOf(base.grips)]).toEqual([passage.name])
    }
  })

  it('holds after a correction too, where the place before it is another', () => {
    const score = scoreOfPassage({
      name: 'corrected',
      places: '3.2 3.4 2.3 3.2 3.4 2.3 3.2 3.4',
      fingers: [],
    })
    const at = score.arrangement.base.notes[2]!
    const edited = applyEdit(score, {
      do: 'fret',
      at: at.pos,
      string: at.place.string,
      fret: 8,
      ticks: at.dur.ticks,
      role: 'melody',
    })
    if (!edited.ok) throw new Error(edited.refusal.reason)
    expect(faultsOf(edited.score.arrangement!.base.grips)).toEqual([])
  })
})
