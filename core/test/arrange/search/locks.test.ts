import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { guitarSetup, placesOf, pitchAt } from '../../../src/instrument/index.ts'
import { SOLO_STYLES, type LockedMeasure, type Level, type Lock } from '../../../src/document/index.ts'
import { ArrangeError, arranging, newMemory, wholeTune } from '../../../src/arrange/index.ts'
import { finish } from '../../../src/turns.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'
import { say } from '../../support/words.ts'

const setup = guitarSetup()

describe('locks', () => {
  it('a locked place is always kept, and the rest is a whole arrangement around it', () => {
    let kept = 0
    fc.assert(
      fc.property(
        fc.nat(CORPUS.length - 1),
        fc.constantFrom(...SOLO_STYLES),
        fc.constantFrom<Level>(2, 3, 5),
        fc.nat(200),
        fc.nat(5),
        (t, style, level, n, p) => {
          const tune = CORPUS[t]!
          const regions = wholeTune(tune, style, level)
          const free = finish(arranging(tune, setup, regions)).layer
          const melody = free.notes.filter((x) => x.role === 'melody')
          const note = melody[n % melody.length]!
          const places = placesOf(setup, pitchAt(setup, note.place)).filter((x) => x.fret <= 12)
          const place = places[p % places.length]!
          const lock: Lock = { id: 'l', target: note.id, field: 'place', value: place }
          try {
            const { layer, idleLocks } = finish(arranging(tune, setup, regions, { locks: [lock] }))
            expect(idleLocks).toEqual([])
            expect(layer.notes.find((x) => x.id === note.id)!.place).toEqual(place)
            expect(layer.notes.filter((x) => x.role === 'melody')).toHaveLength(melody.length)
            kept++
          } catch (error) {
            if (!(error instanceof ArrangeError)) throw error
            expect(error.locks).toEqual(['l'])
          }
        },
      ),
      { numRuns: 20, seed: 5 },
    )
    expect(kept).toBeGreaterThan(14)
  })

  it('a lock never makes the whole cheaper, and more locks never cheaper than fewer', () => {
    const tune = CORPUS[3]!
    const regions = wholeTune(tune, 'melody-bass', 2)
    const { layer, solution } = finish(arranging(tune, setup, regions))
    const melody = layer.notes.filter((x) => x.role === 'melody')
    const locks: Lock[] = melody
      .flatMap((note): Lock[] => {
        const other = placesOf(setup, pitchAt(setup, note.place)).find((p) => p.string !== note.place.string)
        return other && other.fret <= 9
          ? [{ id: note.id, target: note.id, field: 'place', value: other }]
          : []
      })
      .filter((_, i) => i % 7 === 0)
      .slice(0, 3)
    expect(locks).toHaveLength(3)
    let before = solution.cost
    for (let n = 1; n <= locks.length; n++) {
      const { solution: held } = finish(arranging(tune, setup, regions, { locks: locks.slice(0, n) }))
      expect(held.cost).toBeGreaterThanOrEqual(before - 1e-6)
      before = held.cost
    }
  })

  it('a locked grip and a locked measure are kept when style and level change around them', () => {
    const tune = tuneOfMusic('"C"cdec|"F"fedc|"G7"BdgB|"C"c4|]')
    const first = finish(arranging(tune, setup, wholeTune(tune, 'arpeggio', 3))).layer
    const m2 = tune.measures[1]!.id
    const notes = first.notes.filter((n) => n.pos.measure === m2)
    const value: LockedMeasure = {
      style: 'arpeggio',
      level: 3,
      notes: notes.map(({ id, place, left }) => ({ id, place, left })),
    }
    const locks: Lock[] = [{ id: 'm', target: m2, field: 'measure', value }]
    const { layer } = finish(arranging(tune, setup, wholeTune(tune, 'drone', 1), { locks }))
    const now = layer.notes.filter((n) => n.pos.measure === m2)
    expect(now.map((n) => [n.id, n.place, n.left])).toEqual(notes.map((n) => [n.id, n.place, n.left]))
    const grip = first.grips.find((g) => g.pressed.length > 1)!
    const held: Lock[] = [{ id: 'g', target: grip.id, field: 'grip', value: grip.pressed }]
    const again = finish(arranging(tune, setup, wholeTune(tune, 'arpeggio', 3), { locks: held })).layer
    const places = (g: typeof grip) => [...g.pressed].map((p) => `${p.string}.${p.fret}.${p.finger}`).sort()
    expect(places(again.grips.find((g) => g.id === grip.id)!)).toEqual(places(grip))
  })

  it('says which locks contradict: one that no hand can keep, or the two that exclude each other', () => {
    const tune = tuneOfMusic('"C"c4|"G7"B4|]')
    const regions = wholeTune(tune, 'melody-bass', 2)
    const { layer } = finish(arranging(tune, setup, regions))
    const [melody, bass] = ['melody', 'bass'].map((r) => layer.notes.find((n) => n.role === r)!)
    const fail = (locks: Lock[]) => {
      try {
        finish(arranging(tune, setup, regions, { locks }))
      } catch (error) {
        return error as ArrangeError
      }
      throw new Error('was arranged')
    }
    const far = fail([{ id: 'far', target: melody!.id, field: 'place', value: { string: 2, fret: 6 } }])
    expect(far.locks).toEqual(['far'])
    expect(say(far.says)).toMatch(/^Measure 1: a lock cannot be kept/)
    const both = fail([
      { id: 'a', target: melody!.id, field: 'place', value: { string: 3, fret: 5 } },
      { id: 'b', target: bass!.id, field: 'place', value: { string: 3, fret: 0 } },
      { id: 'c', target: layer.notes.at(-1)!.id, field: 'left', value: layer.notes.at(-1)!.left },
    ])
    expect([...both.locks].sort()).toEqual(['a', 'b'])
    expect(say(both.says)).toMatch(/^Measure 1: 2 locks contradict/)
  })

  it('a lock on a note that is no longer played is reported and does no harm', () => {
    const tune = tuneOfMusic('"C"c4|]')
    const locks: Lock[] = [{ id: 'gone', target: 'n.e99', field: 'left', value: 1 }]
    expect(finish(arranging(tune, setup, wholeTune(tune, 'drone', 2), { locks })).idleLocks).toEqual(['gone'])
  })

  it('going on from the last search gives what a fresh one gives', () => {
    const tune = CORPUS[1]!
    const regions = wholeTune(tune, 'alternating-bass', 4)
    const memory = newMemory()
    const free = finish(arranging(tune, setup, regions, { memory })).layer
    const note = free.notes.filter((n) => n.role === 'melody')[12]!
    const other = placesOf(setup, pitchAt(setup, note.place)).find((p) => p.string !== note.place.string)!
    const locks: Lock[] = [{ id: 'l', target: note.id, field: 'place', value: other }]
    const warm = finish(arranging(tune, setup, regions, { memory, locks }))
    const cold = finish(arranging(tune, setup, regions, { locks }))
    expect(warm.solution.cost).toBeCloseTo(cold.solution.cost, 6)
    expect(warm.layer.notes).toEqual(cold.layer.notes)
  })
})
