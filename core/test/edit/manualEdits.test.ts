import { describe, expect, it } from 'vitest'
import { WHOLE } from '../../src/music/index.ts'
import { lastFret, pitchAt, placesOf } from '../../src/instrument/index.ts'
import type { Level, Score, Style } from '../../src/document/index.ts'
import { arranging, wholeTune } from '../../src/arrange/index.ts'
import { applyEdit, type EditCommand } from '../../src/edit/index.ts'
import { finish } from '../../src/turns.ts'
import { arrangedScore, structuralFaults } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

type Arranged = Required<Score>

const opened = (tune = tuneOf(TUNE), style: Style = 'melody-bass', level: Level = 2): Arranged =>
  arrangedScore(tune, style, level)

const TUNE = 'X:1\nT:Sill\nM:4/4\nL:1/4\nQ:1/4=90\nK:C\n"C"cdec|"F"f2a2|"G7"gfed|"C"c4|]\n'

function edit(score: Arranged, command: EditCommand): Arranged {
  const edited = applyEdit(score, command)
  if (!edited.ok) throw new Error(`${command.do}: ${edited.refusal.reason}`)
  return edited.score as Arranged
}

function refusal(score: Score, command: EditCommand) {
  const edited = applyEdit(score, command)
  if (edited.ok) throw new Error(`${command.do} was written`)
  return edited.refusal
}

const again = ({ tune, arrangement }: Arranged, level: Level, style: Style = 'melody-bass') =>
  finish(arranging(tune, arrangement.setup, wholeTune(tune, style, level), { locks: arrangement.base.locks }))
    .layer

const at = (score: Score, measure: number, tick: number) => ({
  measure: score.tune.measures[measure]!.id,
  tick,
})

describe('what is written by hand', () => {
  it('a fret of the melody changes tune, text and tab together', () => {
    const score = opened()
    const note = score.arrangement.base.notes.find((n) => n.role === 'melody')!
    const { string, fret } = note.place
    const next = edit(score, {
      do: 'fret',
      at: note.pos,
      string,
      fret: fret + 2,
      ticks: WHOLE / 4,
      role: 'melody',
    })
    expect(next.tune.events[0]!.pitch).toMatchObject({ step: 'D' })
    expect(next.tune.abc!.text).toContain('"C"d2 d2 e2 c2')
    expect(next.arrangement.base.notes.find((n) => n.id === note.id)!.place).toMatchObject({
      string,
      fret: fret + 2,
    })
    expect(structuralFaults(next)).toEqual([])
  })

  it('stays through every level and style, and the rest is arranged around it', () => {
    let score = opened()
    score = edit(score, {
      do: 'fret',
      at: at(score, 1, WHOLE / 4),
      string: 4,
      fret: 3,
      ticks: WHOLE / 4,
      role: 'bass',
    })
    const melody = score.arrangement.base.notes.find(
      (n) => n.role === 'melody' && n.pos.measure === score.tune.measures[2]!.id,
    )!
    const other = placesOf(score.arrangement.setup, pitchAt(score.arrangement.setup, melody.place)).find(
      (p) => p.string !== melody.place.string && p.fret < 10,
    )!
    score = edit(score, { do: 'restring', note: melody.id, string: other.string })
    const bass = score.arrangement.base.notes.find((n) => n.role === 'bass' && n.id.startsWith('b.'))!
    score = edit(score, { do: 'erase', note: bass.id })
    for (const style of ['melody-bass', 'alternating-bass', 'chord-melody'] as const)
      for (const level of [2, 3, 5] as const) {
        const layer = again(score, level, style)
        const typed = layer.notes.find((n) => n.id.startsWith('t.'))
        expect(typed?.place, `${style} ${level}`).toEqual({ string: 4, fret: 3 })
        expect(layer.notes.find((n) => n.id === melody.id)!.place).toEqual(other)
        expect(layer.notes.some((n) => n.id === bass.id)).toBe(false)
      }
  })

  it('a finger set by hand is kept by the hand that is found around it', () => {
    let score = opened()
    const note = score.arrangement.base.notes.find((n) => n.place.fret > 0 && n.role === 'melody')!
    score = edit(score, { do: 'left', note: note.id, finger: 4 })
    score = edit(score, { do: 'finger', from: 0, to: 3 })
    expect(score.arrangement.base.notes.find((n) => n.id === note.id)!.left).toBe(4)
    const grip = score.arrangement.base.grips.find(
      (g) => g.pos.measure === note.pos.measure && g.pos.tick === note.pos.tick,
    )!
    expect(grip.pressed).toContainEqual({ string: note.place.string, fret: note.place.fret, finger: 4 })
    const sign = score.arrangement.base.notes.find((n) => n.role === 'melody')!
    score = edit(score, { do: 'right', note: sign.id, sign: 'a' })
    score = edit(score, { do: 'finger', from: 0, to: 3 })
    expect(score.arrangement.base.notes.find((n) => n.id === sign.id)!.right).toBe('a')
  })

  it('a melody note is let down from its bend only where the neck has the fret for it', () => {
    const score = opened()
    const note = score.arrangement.base.notes.find((n) => n.role === 'melody' && n.place.string <= 2)!
    const last = lastFret(score.arrangement.setup, note.place.string)
    const bentAt = (fret: number): Arranged => ({
      ...score,
      arrangement: {
        ...score.arrangement,
        base: {
          ...score.arrangement.base,
          notes: score.arrangement.base.notes.map((n) =>
            n.id === note.id ? { ...n, place: { ...n.place, fret }, left: 3, bend: 2 } : n,
          ),
        },
      },
    })
    const plain: EditCommand = { do: 'bend', note: note.id, semitones: 0 }
    const down = edit(bentAt(last - 2), plain).arrangement.base.notes.find((n) => n.id === note.id)!
    expect(down.place.fret).toBe(last)
    expect(down.bend).toBeUndefined()
    expect(refusal(bentAt(last - 1), plain).reason).toBe('noRoom')
  })

  it('hands found again are hands that can be: no structural fault on the corpus', () => {
    for (const tune of CORPUS.slice(0, 8)) {
      const score = opened(tune, 'alternating-bass', 3)
      const hands = edit(score, { do: 'finger', from: 0, to: tune.measures.length - 1 })
      expect(structuralFaults(hands), tune.title).toEqual([])
    }
  })
})

describe('what cannot be written', () => {
  const score = opened()
  const melody = score.arrangement.base.notes.find((n) => n.role === 'melody')!

  it('a fret beyond the neck: the pitch elsewhere, or the last fret', () => {
    const beyond = refusal(score, {
      do: 'fret',
      at: at(score, 3, 0),
      string: 6,
      fret: 24,
      ticks: WHOLE / 4,
      role: 'bass',
    })
    expect(beyond).toMatchObject({
      reason: 'beyondNeck',
      values: { last: 20 },
      offer: { do: 'fret', string: 1, fret: 0 },
    })
    const nowhere = refusal(score, {
      do: 'fret',
      at: at(score, 3, 0),
      string: 1,
      fret: 30,
      ticks: WHOLE / 4,
      role: 'fill',
    })
    expect(nowhere.offer).toMatchObject({ string: 1, fret: 20 })
  })

  it.each([
    [
      'overfull',
      { do: 'fret', at: at(score, 0, (3 * WHOLE) / 4), string: 5, fret: 3, ticks: WHOLE / 2, role: 'bass' },
      { ticks: WHOLE / 4 },
    ],
    ['noPlace', { do: 'restring', note: melody.id, string: 1 }, { do: 'restring' }],
    ['nothingThere', { do: 'erase', note: 'nobody' }, undefined],
    ['lastMeasure', { do: 'delete', from: 0, to: 3 }, undefined],
    ['noSuchMeasure', { do: 'insert', before: 9, count: 1 }, undefined],
    ['metre', { do: 'metre', from: 0, num: 4, den: 3 }, undefined],
    ['noSign', { do: 'jump', measure: 3, jump: 'dalSegno' }, undefined],
    ['otherPitch', { do: 'tie', at: at(score, 0, 0) }, { do: 'pitch' }],
    ['unsung', { do: 'word', at: at(score, 0, 99), text: 'la' }, undefined],
  ] as const)('%s is said, with the nearest that can be', (reason, command, offer) => {
    const found = refusal(score, command)
    expect(found.reason).toBe(reason)
    if (offer) expect(found.offer).toMatchObject(offer)
    // What is offered can be written.
    if (found.offer) edit(score, found.offer)
  })

  it('a measure that held too much has the length of its metre again once nothing sounds beyond it', () => {
    const small = edit(opened(), { do: 'metre', from: 3, num: 3, den: 8 })
    expect(small.tune.measures[3]).toMatchObject({ nominal: (3 * WHOLE) / 8, length: WHOLE })
    const empty = edit(small, { do: 'rest', at: at(small, 3, 0), ticks: WHOLE })
    expect(empty.tune.measures[3]!.length).toBe((3 * WHOLE) / 8)
    expect(structuralFaults(empty)).toEqual([])
    expect(tuneOf(empty.tune.abc!.text).measures.map((m) => m.length)).toEqual(
      empty.tune.measures.map((m) => m.length),
    )
  })

  it('a fret typed in the middle of a tied note strikes it anew', () => {
    const tied = opened(tuneOf('X:1\nT:Sill\nM:4/4\nL:1/4\nQ:1/4=90\nK:C\n"C"c4-|c4|"F"f4|"C"c4|]\n'))
    const at = { measure: tied.tune.measures[1]!.id, tick: 0 }
    for (const fret of [1, 3]) {
      const struck = edit(tied, { do: 'fret', at, string: 2, fret, ticks: WHOLE, role: 'melody' })
      const melody = struck.arrangement.base.notes.filter((n) => n.role === 'melody')
      expect(melody).toHaveLength(4)
      expect(melody.slice(0, 2).map((n) => n.dur.ticks)).toEqual([WHOLE, WHOLE])
      expect(struck.tune.events.some((e) => e.tieTo)).toBe(false)
      expect(structuralFaults(struck)).toEqual([])
    }
  })
})
