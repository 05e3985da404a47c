import { describe, expect, it } from 'vitest'
import { midiOf } from '../../../src/music/index.ts'
import { pitchAt, setupOf, tuningById } from '../../../src/instrument/index.ts'
import { SOLO_STYLES, ticksAt, timelineOf, type Score, type TuneDoc } from '../../../src/document/index.ts'
import {
  staffOf,
  writtenAbove,
  type StaffMeasure,
  type StaffSign,
} from '../../../src/output/notation/staff.ts'
import { signatureAlter } from '../../../src/music/pitch/key.ts'
import { arrangedScore } from '../../support/score.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const staff = ({ tune, arrangement }: Required<Score>, plain = false): StaffMeasure[] =>
  staffOf(tune, arrangement.transposed, arrangement.setup, arrangement.base.notes, plain)

/** Pitches that a player reads: by the signature, by what is printed, and by what was printed before in the measure. */
function readPitches({ key, upper, lower }: StaffMeasure): Map<StaffSign, number> {
  const memory = new Map<string, number>()
  const read = new Map<StaffSign, number>()
  const signs = [...upper.map((s) => ({ s, v: 0 })), ...lower.map((s) => ({ s, v: 1 }))]
  for (const { s } of signs.sort((a, b) => a.s.tick - b.s.tick || a.v - b.v)) {
    if (!s.pitch) continue
    const slot = `${s.pitch.step}${s.pitch.octave}`
    if (s.accidental !== undefined) memory.set(slot, s.accidental)
    const alter = memory.get(slot) ?? signatureAlter(key.fifths, s.pitch.step)
    read.set(s, midiOf({ ...s.pitch, alter }))
  }
  return read
}

describe('a staff', () => {
  it.each(SOLO_STYLES)(
    'of %s: every measure is filled in both voices, without a gap or an overlap',
    (style) => {
      for (const tune of CORPUS.slice(0, 4))
        staff(arrangedScore(tune, style, 3)).forEach(({ upper, lower }, i) => {
          const { length } = tune.measures[i]!
          for (const voice of [upper, lower]) {
            let at = voice[0]?.tick ?? 0
            for (const s of voice) {
              expect(s.tick).toBe(at)
              at += s.ticks
            }
            if (voice.length > 0) expect(at, `${tune.title}, measure ${i}`).toBe(length)
          }
        })
    },
  )

  it('read by a player sounds the melody, in the key to which it was moved', () => {
    for (const tune of CORPUS.slice(0, 8)) {
      const score = arrangedScore(tune, 'melody-bass', 3)
      const { transposed, setup } = score.arrangement
      const sounding = staff(score).flatMap((m) => {
        const read = readPitches(m)
        return m.upper.flatMap((s) => (s.pitch ? [[s.shows, read.get(s)! - writtenAbove(setup)]] : []))
      })
      const wanted = tune.events
        .filter((e) => e.voice === 0 && e.pitch)
        .map((e) => [e.id, midiOf(e.pitch!) + transposed])
      expect(sounding, tune.title).toEqual(wanted)
    }
  })

  it('shows every note of the lower voices where it begins, at its pitch, unless another begins with it', () => {
    for (const tune of CORPUS.slice(0, 6)) {
      const score = arrangedScore(tune, 'alternating-bass', 3)
      const { base, setup } = score.arrangement
      const shown = new Map(
        staff(score).flatMap((m) => {
          const read = readPitches(m)
          return m.lower.flatMap((s) =>
            s.shows ? [[s.shows, read.get(s)! - writtenAbove(setup)] as const] : [],
          )
        }),
      )
      const timeline = timelineOf(tune.measures)
      const lower = base.notes.filter((n) => n.role !== 'melody')
      const begins = new Map<number, number>()
      for (const n of lower) {
        const at = ticksAt(timeline, n.pos)
        begins.set(at, (begins.get(at) ?? 0) + 1)
      }
      for (const n of lower) {
        const midi = shown.get(n.id)
        if (midi !== undefined) expect(midi).toBe(pitchAt(setup, n.place))
        else expect(begins.get(ticksAt(timeline, n.pos))).toBeGreaterThan(1)
      }
    }
  })

  it('prints no accidental that the signature or the measure has said', () => {
    for (const tune of CORPUS.slice(0, 8))
      for (const m of staff(arrangedScore(tune, 'arpeggio', 4))) {
        const memory = new Map<string, number>()
        const all = [...m.upper.map((s) => ({ s, v: 0 })), ...m.lower.map((s) => ({ s, v: 1 }))]
        for (const { s } of all.sort((a, b) => a.s.tick - b.s.tick || a.v - b.v)) {
          if (!s.pitch || s.accidental === undefined) continue
          const slot = `${s.pitch.step}${s.pitch.octave}`
          expect(s.accidental).not.toBe(memory.get(slot) ?? signatureAlter(m.key.fifths, s.pitch.step))
          memory.set(slot, s.accidental)
        }
      }
  })

  it('guitars are written an octave above, mandolins as they sound, a tune alone as it is', () => {
    const tune = tuneOf('X:1\nT:O\nM:4/4\nL:1/4\nK:C\n"C"cdec|\n')
    const first = (measures: StaffMeasure[]) => midiOf(measures[0]!.upper[0]!.pitch!)
    expect(first(staffOf(tune, 0))).toBe(midiOf(tune.events[0]!.pitch!))
    const guitar = arrangedScore(tune, 'melody-bass', 1)
    expect(first(staff(guitar)) - guitar.arrangement.transposed).toBe(midiOf(tune.events[0]!.pitch!) + 12)
    const mandolin = arrangedScore(tune, 'double-stops', 2, setupOf('mandolin'))
    expect(first(staff(mandolin)) - mandolin.arrangement.transposed).toBe(midiOf(tune.events[0]!.pitch!))
  })

  it('plainly written, the lower voice has no ties and rests where nothing begins', () => {
    const score = arrangedScore(
      CORPUS[3]!,
      'alternating-bass',
      2,
      setupOf('guitar', tuningById('guitar', 'dropD')),
    )
    const plain = staff(score, true).flatMap((m) => m.lower)
    expect(plain.some((s) => s.tied)).toBe(false)
    expect(plain.some((s) => s.kind === 'filler')).toBe(false)
    const ringing = staff(score).flatMap((m) => m.lower)
    expect(ringing.some((s) => s.kind === 'rest')).toBe(false)
    const shows = (signs: readonly StaffSign[]) => new Set(signs.flatMap((s) => s.shows ?? []))
    expect(shows(plain)).toEqual(shows(ringing))
  })

  it('a held note is tied over the bar line as often as it needs', () => {
    const tune: TuneDoc = tuneOf('X:1\nT:H\nM:4/4\nL:1/4\nK:C\n"C"c4-|c4-|c2 e2|]\n')
    const [first, second, third] = staffOf(tune, 0)
    expect(first!.upper.at(-1)!.tied).toBe(true)
    expect(second!.upper.at(-1)!.tied).toBe(true)
    expect(third!.upper[0]!.tied).toBe(false)
  })
})
