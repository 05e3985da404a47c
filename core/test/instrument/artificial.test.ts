import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { artificialPlacesOf, guitarSetup, lastFret, pitchAt } from '../../src/instrument/index.ts'
import type { Lock } from '../../src/document/index.ts'
import { arranging, arrangementOf, wholeTune } from '../../src/arrange/index.ts'
import { audit } from '../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../src/output/index.ts'
import { finish } from '../../src/turns.ts'
import { readArrangementDoc } from '../../src/schema/index.ts'
import { scoreOf } from '../../src/output/sound/index.ts'
import { textTab } from '../../src/output/text/textTab.ts'
import { tuneOfMusic } from '../support/tunes.ts'

describe('places of an artificial harmonic', () => {
  it('sound the pitch an octave above a stop, with the middle of the string still over the neck', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 7 }), fc.integer({ min: 40, max: 90 }), (capo, midi) => {
        const setup = guitarSetup(capo)
        for (const place of artificialPlacesOf(setup, midi)) {
          expect(pitchAt(setup, place)).toBe(midi)
          // Half a string sounds an octave: physics of the string, as in any handbook of acoustics.
          expect(pitchAt(setup, { string: place.string, fret: place.fret })).toBe(midi - 12)
          expect(place.fret).toBeGreaterThan(0)
          expect(place.fret + 12).toBeLessThanOrEqual(lastFret(setup, place.string))
        }
      }),
    )
  })
})

describe('an artificial harmonic that was asked for', () => {
  const setup = guitarSetup()
  const tune = tuneOfMusic('"C"e g "G"g2|"C"e4|]')
  const regions = wholeTune(tune, 'melody-bass', 2)
  const plain = finish(arranging(tune, setup, regions))
  const target = plain.layer.notes.filter((n) => n.role === 'melody')[2]!
  const place = artificialPlacesOf(setup, pitchAt(setup, target.place))[0]!
  const locks: Lock[] = [{ id: 'l', target: target.id, field: 'place', value: place }]
  const { layer, plan } = finish(arranging(tune, setup, regions, { locks }))
  const note = layer.notes.find((n) => n.id === target.id)!
  const json = tabJson(tune, setup, plan, layer, [], 0)

  it('is played there, with the bass under it, and leaves the index of the picking hand free', () => {
    expect(note.place).toEqual(place)
    const together = layer.notes.filter(
      (n) => n.pos.measure === note.pos.measure && n.pos.tick === note.pos.tick,
    )
    expect(together.length).toBeGreaterThan(1)
    expect(together.map((n) => n.right)).not.toContain('i')
    expect(audit(finishedTabOf(json))).toMatchObject({ structural: 0, melodyKept: 4 })
  })

  it('is judged by the audit: its pitch, and a free index', () => {
    const broken = (change: object) =>
      audit(
        finishedTabOf({ ...json, notes: json.notes.map((n) => (n.artificial ? { ...n, ...change } : n)) }),
      ).findings.map((f) => f.kind)
    expect(broken({ artificial: undefined })).toContain('wrongPitch')
    expect(broken({ rightFinger: 'i' })).toContain('pluckTwice')
  })

  it('stands in storage, text, and sound at its pitch', () => {
    const doc = arrangementOf('a', 'A', tune, setup, regions, { layer, transposed: plan.transposed })
    expect(readArrangementDoc(JSON.parse(JSON.stringify(doc)))).toEqual(doc)
    const text = textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony })
    expect(text).toContain(`${place.fret}<${place.fret + 12}>`)
    const score = scoreOf(tune, setup, layer, plan.timeline, plan.unfolded)
    const sounded = score.notes.find((n) => n.role === 'melody' && n.at === 20_160)!
    expect(sounded.hertz).toBeCloseTo(440 * 2 ** ((pitchAt(setup, target.place) - 69) / 12), 6)
  })
})
