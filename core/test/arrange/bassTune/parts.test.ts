import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { above, chordAround, rootUnder } from '../../../src/arrange/bassTune/aroundNote.ts'
import { brushTimes } from '../../../src/arrange/bassTune/brushTimes.ts'
import { hammeredFrom } from '../../../src/arrange/bassTune/hammered.ts'
import { BASS_TUNE_LEVELS } from '../../../src/arrange/bassTune/levels.ts'
import { lowPlace } from '../../../src/arrange/bassTune/lowPlace.ts'
import { heldShapesFor } from '../../../src/chords/textbook.ts'
import { LEVELS, timelineOf, type MelodyNote } from '../../../src/document/index.ts'
import { melodyOf } from '../../../src/document/form/timeline.ts'
import { fingeringsOf } from '../../../src/hand/grip/fingering.ts'
import { guitarSetup, pitchAt, placesOf, type Place } from '../../../src/instrument/index.ts'
import { keyOf, mod12, QUARTER, readChordSymbol } from '../../../src/music/index.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

const setup = guitarSetup()
const CHORDS = ['C', 'G', 'D7', 'Am', 'F', 'E7', 'Bm', 'A', 'Dm', 'C7']
const SHAPES = CHORDS.flatMap((symbol) => {
  const read = readChordSymbol(symbol)
  return read.kind === 'chord'
    ? heldShapesFor(read.chord, setup).map((s) => ({ symbol, frets: s.frets }))
    : []
})
const shape = fc.constantFrom(...SHAPES)
const note = fc.integer({ min: 40, max: 62 }).map((midi) => lowPlace(setup, midi, undefined)!)

/** True where a hand can hold places together, found apart from the code under test. */
function canHold(places: readonly Place[]): boolean {
  const frets: (number | null)[] = [null, null, null, null, null, null]
  for (const p of places) frets[p.string - 1] = p.fret
  return places.every((p) => p.fret === 0) || fingeringsOf(setup, frets).length > 0
}

describe('what lies above a note', () => {
  it('are neighbouring strings of the shape over it, that the hand holds with it, and none a semitone from it', () => {
    fc.assert(
      fc.property(shape, note, fc.constantFrom(2, 3), ({ frets }, low, most) => {
        const found = above(setup, { frets }, low, most)
        expect(found.length).toBeLessThanOrEqual(most)
        found.forEach((p, i) => {
          expect(p.fret).toBe(frets[p.string - 1])
          expect(p.string).toBeLessThan(low.string)
          expect([1, 11]).not.toContain(mod12(pitchAt(setup, p) - pitchAt(setup, low)))
          if (i > 0) expect(p.string).toBe(found[i - 1]!.string + 1)
        })
        expect(canHold([...found, low])).toBe(true)
      }),
    )
  })

  it('are the highest strings of the shape where nothing sounds', () => {
    expect(above(setup, { frets: [0, 1, 0, 2, 3, null] }, undefined, 3)).toEqual([
      { string: 1, fret: 0 },
      { string: 2, fret: 1 },
      { string: 3, fret: 0 },
    ])
  })

  it('has no string across one that is muted', () => {
    expect(above(setup, { frets: [null, 1, 2, 2, 0, null] }, undefined, 3)).toEqual([])
  })
})

describe('the root under a note', () => {
  it('lies on another string, lower, and is held with it; without a note it is the shape’s own', () => {
    fc.assert(
      fc.property(shape, note, ({ frets }, high) => {
        const own = rootUnder(setup, { frets }, undefined)!
        expect(frets.findLastIndex((f) => f !== null) + 1).toBe(own.string)
        const root = rootUnder(setup, { frets }, high)
        if (!root) return
        expect(root).toEqual(own)
        expect(root.string).not.toBe(high.string)
        expect(pitchAt(setup, root)).toBeLessThan(pitchAt(setup, high))
        expect(canHold([root, high])).toBe(true)
      }),
    )
  })
})

describe('the chord around the last note', () => {
  it('is held with it, no string twice, and has its root below where it adds one', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SHAPES), note, (own, last) => {
        const others = SHAPES.filter((s) => s.symbol === own.symbol)
        const read = readChordSymbol(own.symbol)
        if (read.kind !== 'chord') return
        const root = mod12(pitchAt(setup, rootUnder(setup, own, undefined)!))
        const chord = chordAround(setup, [own, ...others], last, root, 3)
        const strings = [...chord, last].map((p) => p.string)
        expect(new Set(strings).size).toBe(strings.length)
        expect(chord.length).toBeLessThanOrEqual(3)
        expect(canHold([...chord, last])).toBe(true)
        const lowest = [...chord, last].reduce((a, b) => (pitchAt(setup, b) < pitchAt(setup, a) ? b : a))
        if (lowest !== last) expect(mod12(pitchAt(setup, lowest))).toBe(root)
      }),
    )
  })
})

describe('the place of a low note', () => {
  it('is one that has its pitch, and no other is cheaper in the shape and near the nut', () => {
    fc.assert(
      fc.property(shape, fc.integer({ min: 40, max: 64 }), ({ frets }, midi) => {
        const place = lowPlace(setup, midi, frets)!
        expect(pitchAt(setup, place)).toBe(midi)
        const inShape = placesOf(setup, midi).find(
          (p) => p.string >= 3 && p.fret <= 3 && frets[p.string - 1] === p.fret,
        )
        if (inShape) expect(place).toEqual(inShape)
      }),
    )
  })

  it('is none for a note that the instrument does not have', () => {
    expect(lowPlace(setup, 39, undefined)).toBeUndefined()
  })
})

describe('a note that is hammered on', () => {
  const key = keyOf({ step: 'G', alter: 0 }, 'major')
  const at = (string: number, fret: number): Place => ({ string, fret })
  const lasting = (start: number): MelodyNote => ({
    sourceId: 'e',
    start: start * QUARTER,
    duration: QUARTER,
    pitch: { step: 'C', alter: 0, octave: 3 },
    measure: 0,
    slurred: false,
  })
  const from = (place: Place, before?: { start: number; place: Place }, seconds = 0.5) =>
    hammeredFrom(
      setup,
      key,
      place,
      before && { note: lasting(before.start), place: before.place },
      lasting(1),
      seconds,
    )?.place

  it('comes from its open string, where that is a tone of the key', () => {
    expect(from(at(5, 3))).toEqual(at(5, 0))
    expect(from(at(4, 2))).toEqual(at(4, 0))
    expect(from(at(6, 3))).toEqual(at(6, 0))
  })

  it('does not from too far, in haste, or where the tune just came up its string', () => {
    expect(from(at(5, 0))).toBeUndefined()
    expect(from(at(5, 4))).toBeUndefined()
    expect(from(at(5, 3), undefined, 0.2)).toBeUndefined()
    expect(from(at(5, 3), { start: 0, place: at(5, 2) })).toBeUndefined()
    expect(from(at(5, 2), { start: 0, place: at(5, 3) })).toEqual(at(5, 0))
    expect(from(at(5, 3), { start: -2, place: at(5, 2) })).toEqual(at(5, 0))
  })

  it('does not where the open string is foreign to the key', () => {
    const flats = keyOf({ step: 'E', alter: -1 }, 'major')
    expect(hammeredFrom(setup, flats, at(6, 3), undefined, lasting(1), 0.5)).toBeUndefined()
    expect(hammeredFrom(setup, flats, at(4, 1), undefined, lasting(1), 0.5)?.place).toEqual(at(4, 0))
  })
})

describe('the times of the brushes', () => {
  const seconds = (bpm: number) => (from: number, to: number) => ((to - from) / QUARTER) * (60 / bpm)
  const tunes = ['"C"C4|"C"C2 E2|"C"C E G E|"C"C/E/G/E/ C2|"C"z C2 z|]', '"C"C3|"C"C2 E|"C"C E G|]'].map(
    (music, i) => tuneOfMusic(music, i === 0 ? undefined : 'M:3/4\nL:1/4\nQ:1/4=100\nK:C'),
  )

  /** The brushes of a tune by measure and beat, as text: `d` down, `u` up, `b` a bass. */
  const laid = (tune: (typeof tunes)[number], level: (typeof LEVELS)[number], bpm = 90) => {
    const timeline = timelineOf(tune.measures)
    const melody = melodyOf(tune, timeline)
    return tune.measures.map((measure, m) =>
      brushTimes(measure, timeline.starts[m]!, melody, BASS_TUNE_LEVELS[level], timeline.length, seconds(bpm))
        .map(({ at, stroke, bass }) => `${(at - timeline.starts[m]!) / QUARTER + 1}${bass ? 'b' : stroke[0]}`)
        .join(' '),
    )
  }

  it('are those of the levels, beat by beat', () => {
    expect(laid(tunes[0]!, 1).slice(0, 3)).toEqual(['2d 3d 4d', '', ''])
    expect(laid(tunes[0]!, 2).slice(0, 3)).toEqual(['2d 3d 4d', '2d 4d', ''])
    expect(laid(tunes[0]!, 3)[2]).toBe('1.5d 2.5d 3.5d 4.5d')
    expect(laid(tunes[0]!, 4)[0]).toBe('1.5d 2d 2.5u 3d 3.5u 4d 4.5u')
    expect(laid(tunes[0]!, 5)[0]).toBe('1.5d 2d 2.5u 3b 3.5d 4d 4.5u')
    expect(laid(tunes[1]!, 2)[0]).toBe('2d 3d')
  })

  it('are never with the tune, never in a hurry, and at each level those of the one below', () => {
    fc.assert(
      fc.property(fc.constantFrom(...tunes), fc.integer({ min: 40, max: 260 }), (tune, bpm) => {
        const timeline = timelineOf(tune.measures)
        const melody = melodyOf(tune, timeline)
        const struck = new Set(melody.map((n) => n.start))
        let before: readonly string[] = tune.measures.map(() => '')
        for (const level of LEVELS) {
          const now = laid(tune, level, bpm)
          now.forEach((line, m) => {
            const times = line
              .split(' ')
              .filter(Boolean)
              .map((x) => Number.parseFloat(x))
            for (const t of times)
              expect(struck.has(Math.round(timeline.starts[m]! + (t - 1) * QUARTER))).toBe(false)
            for (const t of before[m]!.split(' ').filter(Boolean))
              expect(times).toContain(Number.parseFloat(t))
            for (let i = 1; i < times.length; i++)
              expect(((times[i]! - times[i - 1]!) * 60) / bpm).toBeGreaterThanOrEqual(0.17 - 1e-9)
          })
          before = now
        }
      }),
    )
  })
})
