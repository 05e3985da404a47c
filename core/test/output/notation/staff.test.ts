import { describe, expect, it } from 'vitest'
import { midiOf } from '../../../src/music/index.ts'
import { pitchAt, setupOf, tuningById } from '../../../src/instrument/index.ts'
import { SOLO_STYLES, type Score, type TuneDoc } from '../../../src/document/index.ts'
import {
  staffOf,
  writtenAbove,
  type StaffHead,
  type StaffMeasure,
  type StaffSign,
} from '../../../src/output/notation/staff.ts'
import { signatureAlter } from '../../../src/music/pitch/key.ts'
import { arrangedScore } from '../../support/score.ts'
import { scoreOfText } from '../../support/tabText.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const staff = ({ tune, arrangement }: Required<Score>, plain = false): StaffMeasure[] =>
  staffOf(tune, arrangement.transposed, arrangement.setup, arrangement.base.notes, plain)

/** Heads of a measure in the order in which they are read. */
const headsOf = ({ upper, lower }: StaffMeasure): StaffHead[] =>
  [...upper.map((s) => ({ s, v: 0 })), ...lower.map((s) => ({ s, v: 1 }))]
    .sort((a, b) => a.s.tick - b.s.tick || a.v - b.v)
    .flatMap(({ s }) => s.heads)

/** Pitches that a player reads: by the signature, by what is printed, and by what was printed before in the measure. */
function readPitches(measure: StaffMeasure): Map<StaffHead, number> {
  const memory = new Map<string, number>()
  const read = new Map<StaffHead, number>()
  for (const head of headsOf(measure)) {
    const { step, octave } = head.pitch
    const slot = `${step}${octave}`
    if (head.accidental !== undefined) memory.set(slot, head.accidental)
    const alter = memory.get(slot) ?? signatureAlter(measure.key.fifths, step)
    read.set(head, midiOf({ ...head.pitch, alter }))
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
        return m.upper.flatMap((s) => s.heads.map((h) => [h.shows, read.get(h)! - writtenAbove(setup)]))
      })
      const wanted = tune.events
        .filter((e) => e.voice === 0 && e.pitch)
        .map((e) => [e.id, midiOf(e.pitch!) + transposed])
      expect(sounding, tune.title).toEqual(wanted)
    }
  })

  it.each(SOLO_STYLES)(
    'of %s shows every note of the lower voices once where it begins, at its pitch, under one stem',
    (style) => {
      for (const tune of CORPUS.slice(0, 6)) {
        const score = arrangedScore(tune, style, 4)
        const { base, setup } = score.arrangement
        const read = staff(score).flatMap((m, i) => {
          const pitches = readPitches(m)
          return m.lower.flatMap((s) =>
            s.heads.map((h) => ({
              id: h.shows,
              measure: tune.measures[i]!.id,
              tick: s.tick,
              midi: pitches.get(h)! - writtenAbove(setup),
            })),
          )
        })
        const first = new Map([...read].reverse().map((r) => [r.id, r]))
        for (const n of base.notes) {
          if (n.role === 'melody') continue
          expect(first.get(n.id), `${tune.title}, ${style}`).toEqual({
            id: n.id,
            ...n.pos,
            midi: pitchAt(setup, n.place) + (n.bend ?? 0),
          })
          first.delete(n.id)
        }
        expect([...first.keys()]).toEqual([])
      }
    },
  )

  it('ties a head of a chord to the same head of the next sign, and no other', () => {
    for (const tune of CORPUS.slice(0, 6)) {
      const score = arrangedScore(tune, 'chord-melody', 4)
      const lower = staff(score).flatMap((m) => m.lower)
      lower.forEach((sign, i) => {
        for (const head of sign.heads.filter((h) => h.tied))
          expect(lower[i + 1]?.heads.map((h) => h.shows)).toContain(head.shows)
      })
      lower.forEach((sign, i) => {
        for (const { shows } of sign.heads)
          if (lower[i - 1]?.heads.some((h) => h.shows === shows))
            expect(lower[i - 1]!.heads.find((h) => h.shows === shows)!.tied).toBe(true)
      })
    }
  })

  it('lets a chord ring over the bar line head by head, unless another is struck before', () => {
    const held = scoreOfText(`
   q  q  h     h     h
e|-0-----0----|------3---|
B|-1-----1----|=---------|
G|-------0----|=---------|
D|-------2----|----------|
A|-3-----3----|=-----3---|
E|------------|----------|
`)
    const [before, after] = staff(held).map((m) => m.lower)
    const last = before!.filter((s) => s.kind === 'note').at(-1)!
    expect(last.heads).toHaveLength(4)
    const ringing = after![0]!
    expect(ringing.tick).toBe(0)
    expect(ringing.heads.map((h) => h.shows)).toEqual(last.heads.filter((h) => h.tied).map((h) => h.shows))
    expect(ringing.heads).toHaveLength(3)
    expect(after!.filter((s) => s.kind === 'note').at(-1)!.heads).toHaveLength(1)
  })

  it('shows a stroke that sounds no pitch as a cross', () => {
    const chop = arrangedScore(
      tuneOf('X:1\nT:O\nM:4/4\nL:1/4\nK:G\n"G"GBdB|"D"A2F2|\n'),
      'chord-melody',
      3,
      setupOf('mandolin'),
    )
    const muted = chop.arrangement.base.notes.map((n, i) =>
      n.role !== 'melody' && i % 2 ? { ...n, attack: 'muted' as const } : n,
    )
    const heads = staffOf(chop.tune, 0, chop.arrangement.setup, muted).flatMap((m) =>
      m.lower.flatMap((s) => s.heads),
    )
    const crossed = new Set(heads.flatMap((h) => (h.muted ? [h.shows] : [])))
    expect(crossed.size).toBeGreaterThan(0)
    expect(crossed).toEqual(new Set(muted.filter((n) => n.attack === 'muted').map((n) => n.id)))
  })

  it('prints no accidental that the signature or the measure has said', () => {
    for (const tune of CORPUS.slice(0, 8))
      for (const m of staff(arrangedScore(tune, 'arpeggio', 4))) {
        const memory = new Map<string, number>()
        for (const { pitch, accidental } of headsOf(m)) {
          if (accidental === undefined) continue
          const slot = `${pitch.step}${pitch.octave}`
          expect(accidental).not.toBe(memory.get(slot) ?? signatureAlter(m.key.fifths, pitch.step))
          memory.set(slot, accidental)
        }
      }
  })

  it('guitars are written an octave above, mandolins as they sound, a tune alone as it is', () => {
    const tune = tuneOf('X:1\nT:O\nM:4/4\nL:1/4\nK:C\n"C"cdec|\n')
    const first = (measures: StaffMeasure[]) => midiOf(measures[0]!.upper[0]!.heads[0]!.pitch)
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
    expect(plain.some((s) => s.heads.some((h) => h.tied))).toBe(false)
    expect(plain.some((s) => s.kind === 'filler')).toBe(false)
    const ringing = staff(score).flatMap((m) => m.lower)
    expect(ringing.some((s) => s.kind === 'rest')).toBe(false)
    const shows = (signs: readonly StaffSign[]) => new Set(signs.flatMap((s) => s.heads.map((h) => h.shows)))
    expect(shows(plain)).toEqual(shows(ringing))
  })

  it('a held note is tied over the bar line as often as it needs', () => {
    const tune: TuneDoc = tuneOf('X:1\nT:H\nM:4/4\nL:1/4\nK:C\n"C"c4-|c4-|c2 e2|]\n')
    const [first, second, third] = staffOf(tune, 0)
    expect(first!.upper.at(-1)!.heads[0]!.tied).toBe(true)
    expect(second!.upper.at(-1)!.heads[0]!.tied).toBe(true)
    expect(third!.upper[0]!.heads[0]!.tied).toBe(false)
  })
})
