import { setupOf, tuningById } from '@velvet-porch/core/instrument'
import { arranging, wholeTune } from '@velvet-porch/core/arrange'
import { BAR_FINGER, barNotes, type Style } from '@velvet-porch/core/document'
import { finish } from '@velvet-porch/core/turns'
import { describe, expect, it } from 'vitest'
import { handAt, withReadyFingers } from '../src/score/neck/handMove.ts'
import { sheetModel } from '../src/score/sheet/sheetModel.ts'
import { tuneOf } from './support.ts'

const tune = tuneOf(
  '"G"B2 d2|"C"e2 g e|"D"d2 A2|"G"B d2 B|"C"c2 e2|"G"G4|]',
  'tune',
  'M:4/4\nL:1/4\nQ:1/4=72\nK:G',
)
const setup = setupOf('guitar', tuningById('guitar', 'openG'), { fret: 0 })

function arranged(style: Style) {
  const regions = wholeTune(tune, style, 4)
  const { layer, plan } = finish(arranging(tune, setup, regions))
  return {
    layer,
    model: sheetModel(tune, { setup, base: layer, transposed: plan.transposed, regions, variants: [] }),
  }
}

describe('a bottleneck on the standing neck', () => {
  it('lies over the fret of what it stops, across all those strings, at every moment', () => {
    const { layer, model } = arranged('bottleneck')
    const onBar = barNotes(layer)
    expect(onBar.size).toBeGreaterThan(8)
    let seen = 0
    for (const position of model.positions) {
      const hand = handAt(model, position)
      const stopped = (model.notes.get(position.measure) ?? []).filter(
        (n) => n.pos.tick === position.tick && onBar.has(n.id) && n.place.fret > 0,
      )
      if (stopped.length === 0) continue
      seen++
      const { fret, strings } = hand!.bottle!
      const [high, low] = strings
      const held = hand!.now.pressed.filter((p) => p.finger === BAR_FINGER)
      expect(new Set(held.map((p) => p.fret))).toEqual(new Set([fret]))
      for (const { place } of stopped.filter((n) => n.place.fret === fret))
        expect(place.string >= high && place.string <= low).toBe(true)
      // The fingers that wait for something change nothing of it.
      expect(withReadyFingers(hand)!.bottle).toEqual(hand!.bottle)
    }
    expect(seen).toBeGreaterThan(5)
  })

  it('is not there where fingers play, the little one among them', () => {
    const { model } = arranged('melody-bass')
    const hands = model.positions.map((p) => handAt(model, p))
    expect(hands.filter((h) => h?.bottle)).toEqual([])
  })
})
