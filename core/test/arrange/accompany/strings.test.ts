import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  chordPitchClasses,
  keyOf,
  mod12,
  readChordSymbol,
  type ChordReading,
} from '../../../src/music/index.ts'
import { guitarSetup, namedTunings, openPitch, pitchAt } from '../../../src/instrument/index.ts'
import { handFault, THUMB } from '../../../src/hand/index.ts'
import { findShapes, heldShapesFor } from '../../../src/chords/index.ts'
import {
  bassPitch,
  bassRun,
  bassString,
  otherBass,
  readPattern,
  shufflePair,
  spokenPattern,
  struckStrings,
  type PatternStep,
} from '../../../src/arrange/index.ts'

const setup = guitarSetup()
const chordOf = (text: string): ChordReading => {
  const reading = readChordSymbol(text)
  if (reading.kind !== 'chord') throw new Error(text)
  return reading.chord
}
/** The shape that a first book prints. */
const book = (text: string) => {
  const chord = chordOf(text)
  return { frets: heldShapesFor(chord, setup)[0]!.frets, chord }
}

const CHORDS = ['C', 'Am', 'G7', 'Dm', 'F', 'Bb', 'E7', 'Bm', 'F#m7', 'Dsus4', 'Cmaj7', 'A/C#']
const shapes = CHORDS.flatMap((text) =>
  findShapes(setup, chordOf(text)).zones.flatMap((z) =>
    z.rows.slice(0, 4).map((r) => ({ frets: r.head.frets, chord: chordOf(text) })),
  ),
)
const shape = fc.constantFrom(...shapes)

describe('the bass strings of the common shapes (common practice, no source)', () => {
  it.each([
    ['E', 6],
    ['Em', 6],
    ['G', 6],
    ['A', 5],
    ['Am', 5],
    ['C', 5],
    ['B7', 5],
    ['D', 4],
    ['Dm', 4],
    ['F', 4],
  ])('%s has its bass on string %i', (text, string) => {
    expect(bassString(book(text))).toBe(string)
  })

  it.each([
    ['A', [6, 4]],
    ['Am', [6, 4]],
    ['E', [5, 4]],
    ['Em', [5, 4]],
    ['C', [6, 4]],
    ['G', [4, 5]],
    ['D', [5]],
  ])('the thumb alternates from %s to one of strings %o', (text, strings) => {
    const other = otherBass(setup, book(text))!
    expect(strings).toContain(other.string)
    expect(chordPitchClasses(chordOf(text))).toContain(mod12(pitchAt(setup, other)))
  })
})

describe('what a step sounds', () => {
  it('is exactly the strings that it names, on every shape that sounds them', () => {
    fc.assert(
      fc.property(
        shape,
        fc.uniqueArray(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 4 }),
        (s, strings) => {
          const step: PatternStep = {
            strings: strings.map((string) => ({ of: 'string', string })),
            accent: false,
            palm: false,
          }
          const { plucked, moved } = struckStrings(setup, s, step)
          const sounded = strings.filter((n) => s.frets[n - 1] !== null)
          const struck = plucked.map((p) => p.place.string)
          for (const n of sounded) expect(struck).toContain(n)
          for (const p of plucked) expect(s.frets[p.place.string - 1]).toBe(p.place.fret)
          expect(new Set(struck).size).toBe(struck.length)
          // Whatever is not there is said.
          expect(moved.map((m) => m.from).sort()).toEqual(
            strings.filter((n) => s.frets[n - 1] === null).sort(),
          )
        },
      ),
    )
  })

  it('a stroke above the bass never strikes the bass again, and keeps at least and at most', () => {
    fc.assert(
      fc.property(
        shape,
        fc.constantFrom('down' as const, 'up' as const),
        fc.constantFrom('all' as const, 'trebles' as const),
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 0, max: 3 }),
        (s, direction, over, least, more) => {
          const sweep = { direction, over, least, most: least + more, muted: false }
          const { swept, lacking } = struckStrings(setup, s, {
            strings: [],
            sweep,
            accent: false,
            palm: false,
          })
          const strings = swept.map((x) => x.place.string)
          if (over === 'trebles') expect(strings).not.toContain(bassString(s))
          expect(strings.length).toBeLessThanOrEqual(least + more)
          expect(strings.length + lacking).toBeGreaterThanOrEqual(least)
          expect(swept.filter((x) => !x.optional).length).toBe(Math.min(least, strings.length))
          const order = [...strings].sort((a, b) => (direction === 'down' ? b - a : a - b))
          expect(strings).toEqual(order)
          for (const x of swept) expect(s.frets[x.place.string - 1]).toBe(x.place.fret)
        },
      ),
    )
  })

  it('is said as string numbers, those sounded together grouped', () => {
    const read = readPattern({ metre: { num: 4, den: 4 }, perBeat: 2, text: 'b1 . a 2 b 3 d u' })
    if (!read.ok) throw new Error()
    expect(spokenPattern(setup, book('C'), read.pattern.steps)).toEqual([
      { strings: [5, 1], swept: false },
      { strings: [4], swept: false },
      { strings: [2], swept: false },
      { strings: [5], swept: false },
      { strings: [3], swept: false },
      { strings: [4, 3, 2, 1], swept: true },
      { strings: [3, 2, 1], swept: true },
    ])
    // The pattern follows the bass string to the next shape.
    expect(spokenPattern(setup, book('D'), read.pattern.steps)[0]).toEqual({ strings: [4, 1], swept: false })
    expect(spokenPattern(setup, book('E'), read.pattern.steps)[0]).toEqual({ strings: [6, 1], swept: false })
  })
})

describe('a shuffle', () => {
  it('in open D has root and fifth on strings 6 and 5 open, the sixth on string 5 at fret 2 (common practice, no source)', () => {
    const openD = { ...setup, tuning: namedTunings('guitar').find((n) => n.id === 'openD')!.tuning }
    const pair = shufflePair(openD, 2)!
    expect(pair.root).toEqual({ place: { string: 6, fret: 0 }, finger: 0 })
    expect(pair.fifth).toEqual({ place: { string: 5, fret: 0 }, finger: 0 })
    expect(pair.sixth!.place).toEqual({ string: 5, fret: 2 })
  })

  it('goes up the neck for a sixth, not for a fifth alone: G at fret 3, or at fret 5 (common practice, no source)', () => {
    expect(shufflePair(setup, 7, false)!.root.place).toEqual({ string: 6, fret: 3 })
    expect(shufflePair(setup, 7)!.root.place).toEqual({ string: 4, fret: 5 })
  })

  it('from every root in every tuning sounds root, fifth, sixth and flat seventh, in reach of the hand', () => {
    for (const { tuning } of namedTunings('guitar'))
      for (let root = 0; root < 12; root++) {
        const here = { ...setup, tuning }
        const pair = shufflePair(here, root)
        if (!pair) continue
        const low = pitchAt(here, pair.root.place)
        expect(mod12(low)).toBe(root)
        for (const [held, semitones] of [
          [pair.fifth, 7],
          [pair.sixth, 9],
          [pair.seventh, 10],
        ] as const) {
          if (!held) continue
          expect(pitchAt(here, held.place) - low).toBe(semitones)
          const pressed = [pair.root, held].flatMap(({ place, finger }) =>
            finger ? [{ ...place, finger }] : [],
          )
          expect(handFault(here, here.player.spans, pressed)).toBeUndefined()
          expect(pressed.every((p) => p.finger < THUMB)).toBe(true)
        }
      }
  })
})

describe('a bass run', () => {
  it('walks G A B C and C B A G (common practice, no source)', () => {
    const c = keyOf({ step: 'C', alter: 0 }, 'major')
    const [g, low] = [bassPitch(setup, book('G').frets), bassPitch(setup, book('C').frets)]
    expect(bassRun(setup, c, g, low, 2).map((p) => pitchAt(setup, p))).toEqual([45, 47])
    expect(bassRun(setup, c, low, g, 2).map((p) => pitchAt(setup, p))).toEqual([47, 45])
  })

  it('moves by steps of the scale towards the new bass, between the two, on the bass strings', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 55 }),
        fc.integer({ min: 40, max: 55 }),
        fc.constantFrom('C', 'D', 'E', 'F', 'G', 'A', 'B'),
        fc.constantFrom('major' as const, 'minor' as const, 'dorian' as const),
        fc.integer({ min: 1, max: 3 }),
        (from, to, step, mode, most) => {
          const key = keyOf({ step: step, alter: 0 }, mode)
          const scale = MODES[mode].map((s) => mod12(ROOTS[step as 'C'] + s))
          const run = bassRun(setup, key, from, to, most)
          expect(run.length).toBeLessThanOrEqual(most)
          const pitches = run.map((p) => pitchAt(setup, p))
          const way = Math.sign(to - from)
          pitches.forEach((p, i) => {
            expect(scale).toContain(mod12(p))
            expect((p - from) * way).toBeGreaterThan(0)
            expect((to - p) * way).toBeGreaterThan(0)
            if (i > 0) expect((p - pitches[i - 1]!) * way).toBeGreaterThan(0)
          })
          for (const p of run) {
            expect(p.string).toBeGreaterThanOrEqual(4)
            expect(p.fret).toBeLessThanOrEqual(4)
            expect(openPitch(setup, p.string) + p.fret).toBe(pitchAt(setup, p))
          }
        },
      ),
    )
  })
})

const ROOTS = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 } as const
const MODES = { major: [0, 2, 4, 5, 7, 9, 11], minor: [0, 2, 3, 5, 7, 8, 10], dorian: [0, 2, 3, 5, 7, 9, 10] }
