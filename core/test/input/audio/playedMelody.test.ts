import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { melodyOf, timelineOf, type TuneDoc } from '../../../src/document/index.ts'
import {
  draftTune,
  likelyPlaces,
  playedMelody,
  type ExpectedNote,
  type PlayedNote,
} from '../../../src/input/audio/index.ts'
import { guitarSetup, pitchAt, placesOf } from '../../../src/instrument/index.ts'
import { hertz, midiOf, QUARTER } from '../../../src/music/index.ts'
import { readAbc } from '../../../src/input/abc/index.ts'
import { finish } from '../../../src/turns.ts'
import { additiveString, noise, seeded } from '../../support/otherStrings.ts'
import { takeOf } from '../../support/otherTakes.ts'
import { CORPUS } from '../../support/tunes.ts'

const RATE = 44_100
const FOUR_FOUR = { num: 4, den: 4 }

/** The first notes of a tune, from its first one on. */
function beginningOf(tune: TuneDoc, count: number): { at: number; length: number; midi: number }[] {
  const notes = melodyOf(tune, timelineOf(tune.measures)).slice(0, count)
  return notes.map((n) => ({ at: n.start - notes[0]!.start, length: n.duration, midi: midiOf(n.pitch) }))
}

const gridOf = (notes: readonly { at: number }[]): number =>
  [QUARTER / 2, QUARTER / 4, QUARTER / 3].find((g) => notes.every((n) => n.at % g === 0)) ?? QUARTER / 12

/** A tune as it is played on other strings, one note after the other, 15 dB over noise in a room. */
function played(
  notes: readonly { at: number; length: number; midi: number }[],
  bpm: number,
  seed: number,
  rate = RATE,
) {
  const random = seeded(seed)
  const second = (ticks: number) => (ticks * 60) / (bpm * QUARTER)
  const setup = guitarSetup()
  const expected = notes.map((n): ExpectedNote => ({
    at: n.at,
    seconds: second(n.at),
    string: placesOf(setup, n.midi).sort((a, b) => a.fret - b.fret)[0]?.string ?? 6,
    hertz: hertz(n.midi),
    fret: 0,
    rings: second(n.length),
    isStruck: true,
  }))
  const room = { random, overNoise: 15, echo: 0.35, cents: 30 * (random() - 0.5), latency: 0.05 }
  return takeOf(expected, new Map(), rate, room)
}

describe('a melody that is played in', () => {
  it('comes out right in pitch and place for 95 of 100 notes, on other strings in a room 15 dB over noise', () => {
    let right = 0
    let all = 0
    CORPUS.filter((_, i) => i % 2 === 1).forEach((tune, i) => {
      const notes = beginningOf(tune, 32)
      const bpm = 76 + 4 * i
      const heard = finish(
        playedMelody(played(notes, bpm, i + 5), RATE, { bpm, grid: gridOf(notes), latencyMs: 50 }),
      )
      const byPlace = new Map(heard.map((n) => [n.at, n.midi]))
      all += Math.max(notes.length, heard.length)
      right += notes.filter((n) => byPlace.get(n.at) === n.midi).length
    })
    expect(all).toBeGreaterThan(180)
    expect(right / all).toBeGreaterThanOrEqual(0.95)
    // Minutes of sound are made and listened to: a busy machine may take as long over it.
  }, 180_000)

  it('is the same at any rate that a device may have', () => {
    const notes = beginningOf(CORPUS[0]!, 12)
    for (const rate of [16_000, 22_050, 48_000, 96_000]) {
      const on = { bpm: 80, grid: gridOf(notes), latencyMs: 50 }
      const heard = finish(playedMelody(played(notes, 80, 3, rate), rate, on))
      expect(heard.map((n) => [n.at, n.midi])).toEqual(notes.map((n) => [n.at, n.midi]))
    }
  })

  it('that is sung, without strokes between its notes, has the same notes', () => {
    const random = seeded(9)
    const midis = [60, 62, 64, 65, 67, 64, 60]
    const bpm = 60
    let phase = 0
    // A voice: partials of a buzz, five vibratos a second of 20 cents, glides of 60 ms.
    const samples = Float32Array.from({ length: midis.length * RATE }, (_, i) => {
      const t = i / RATE
      const n = Math.min(midis.length - 1, Math.floor(t))
      const into = Math.min(1, (t - n) / 0.06)
      const midi = n === 0 ? midis[0]! : midis[n - 1]! + (midis[n]! - midis[n - 1]!) * into
      phase += hertz(midi + 0.2 * Math.sin(2 * Math.PI * 5 * t)) / RATE
      return 0.2 * [1, 2, 3, 4, 5, 6].reduce((sum, h) => sum + Math.sin(2 * Math.PI * h * phase) / h, 0)
    })
    const heard = finish(playedMelody(noise(samples, 20, random), RATE, { bpm, grid: QUARTER, latencyMs: 0 }))
    expect(heard.map((n) => [n.at / QUARTER, n.midi])).toEqual(midis.map((midi, i) => [i, midi]))
  })

  it('is nothing where nothing was played: silence, noise, an empty take', () => {
    const random = seeded(4)
    const on = { bpm: 80, grid: QUARTER / 2, latencyMs: 0 }
    expect(finish(playedMelody(new Float32Array(0), RATE, on))).toEqual([])
    expect(finish(playedMelody(new Float32Array(2 * RATE), RATE, on))).toEqual([])
    const hiss = Float32Array.from({ length: 4 * RATE }, () => 0.2 * (2 * random() - 1))
    expect(finish(playedMelody(hiss, RATE, on))).toEqual([])
  })

  it('marks what lies between two places of the grid as doubtful, and puts no two notes on one', () => {
    const random = seeded(2)
    const beats = [0, 1, 2.5, 2.95]
    const samples = new Float32Array(5 * RATE)
    for (const [i, beat] of beats.entries()) {
      const tone = additiveString(hertz(60 + 2 * i), RATE, Math.round(0.4 * RATE), {
        random,
        stiffness: 1e-4,
      })
      tone.forEach(
        (x, k) => (samples[Math.round(beat * RATE) + k] = samples[Math.round(beat * RATE) + k]! + x),
      )
    }
    const heard = finish(playedMelody(samples, RATE, { bpm: 60, grid: QUARTER, latencyMs: 0 }))
    expect(heard.map((n) => n.midi)).toEqual([60, 62, 64, 66])
    expect(new Set(heard.map((n) => n.at)).size).toBe(4)
    expect(heard.map((n) => n.isDoubtful).slice(0, 2)).toEqual([false, false])
    expect(heard.slice(2).some((n) => n.isDoubtful)).toBe(true)
  })
})

/** Notes in order on a grid, with rests between some of them. */
const onGrid = (grid: number) =>
  fc
    .array(
      fc.record({
        midi: fc.integer({ min: 40, max: 76 }),
        rest: fc.nat(3),
        cells: fc.integer({ min: 1, max: 9 }),
      }),
      {
        minLength: 1,
        maxLength: 24,
      },
    )
    .map((list) => {
      let at = 0
      return list.map(({ midi, rest, cells }): PlayedNote => {
        const note = { midi, at: at + rest * grid, length: cells * grid, isDoubtful: rest === 3 }
        at = note.at + note.length
        return note
      })
    })

describe('the draft of it', () => {
  const draft = { id: 'd', title: 'Draft', bpm: 92, metre: FOUR_FOUR, setup: guitarSetup() }

  it.each([QUARTER, QUARTER / 2, QUARTER / 4, QUARTER / 3])(
    'on a grid of %i ticks has the notes that were played, and reads back from its text',
    (grid) => {
      fc.assert(
        fc.property(onGrid(grid), (notes) => {
          const { tune } = finish(draftTune(notes, draft))
          const sung = (of: TuneDoc) =>
            melodyOf(of, timelineOf(of.measures)).map((n) => ({
              midi: midiOf(n.pitch),
              at: n.start,
              length: n.duration,
            }))
          expect(sung(tune)).toEqual(notes.map(({ midi, at, length }) => ({ midi, at, length })))
          const again = readAbc(tune.abc!.text, () => 'again')[0]!.tune!
          expect(sung(again)).toEqual(sung(tune))
          for (const m of tune.measures) {
            const own = tune.events.filter((e) => e.pos.measure === m.id)
            expect(own.reduce((sum, e) => sum + e.dur.ticks, 0)).toBe(m.length)
          }
        }),
        { numRuns: 60 },
      )
    },
  )

  it('has each note on a string that has it, and doubtful measures are marked as guessed', () => {
    fc.assert(
      fc.property(onGrid(QUARTER / 2), (notes) => {
        const { tune, arrangement } = finish(draftTune(notes, draft))
        const tab = arrangement!.base.notes
        expect(tab.map((n) => pitchAt(draft.setup, n.place))).toEqual(notes.map((n) => n.midi))
        const nominal = 4 * QUARTER
        tune.measures.forEach((m, i) => {
          const doubtful = notes.some(
            (n) => n.isDoubtful && n.at < (i + 1) * nominal && n.at + n.length > i * nominal,
          )
          expect(m.provenance).toBe(doubtful ? 'guessed' : 'heard')
        })
      }),
      { numRuns: 20 },
    )
  })

  it('of notes below the strings is a tune without a tab', () => {
    const low: PlayedNote = { midi: 36, at: 0, length: QUARTER, isDoubtful: false }
    expect(finish(draftTune([low], draft)).arrangement).toBeUndefined()
  })
})

describe('the likely places of a melody', () => {
  const setup = guitarSetup()

  it('are those of the first position for a scale of C, as method books have it (common practice, no source)', () => {
    const scale = [60, 62, 64, 65, 67, 69, 71, 72]
    expect(finish(likelyPlaces(setup, scale)).map((p) => `${p!.string}.${p!.fret}`)).toEqual([
      '2.1',
      '2.3',
      '1.0',
      '1.1',
      '1.3',
      '1.5',
      '1.7',
      '1.8',
    ])
  })

  it('are none for a note that no string has, and the others keep theirs', () => {
    expect(finish(likelyPlaces(setup, [30, 64])).map((p) => p?.fret)).toEqual([undefined, 0])
  })
})
