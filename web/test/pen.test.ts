import { midiOf, signatureAlter, STEPS, WHOLE, type Key, type Pitch } from '@velvet-porch/core/music'
import { pitchAt } from '@velvet-porch/core/instrument'
import type { Score, TabNote } from '@velvet-porch/core/document'
import { applyEdit, type EditCommand } from '@velvet-porch/core/edit'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sheetModel } from '../src/score/sheet/sheetModel.ts'
import { likelyRole, momentsOf, noteAt, noteOfCell, stepped, type Cell } from '../src/score/sheet/cells.ts'
import { soundEdit, soundKind, SOUND_KEYS, SOUNDS, soundsSo } from '../src/score/edit/noteEdits.ts'
import {
  byHalf,
  bySteps,
  eventAt,
  letterNear,
  pitchAtHeight,
  pitchBefore,
} from '../src/score/edit/staffPitch.ts'
import { lengthSign, neighbourValue, ticksOf, valueOf, VALUES } from '../src/score/edit/values.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('G|"G"B2d|"C"e>dc|"D7"A2F|"G"G2|]', 'waltz', 'M:3/4\nL:1/4\nQ:1/4=100\nK:G')
const arrangement = arrangementFor(tune, 3)
const score: Required<Score> = { tune, arrangement }
const model = sheetModel(tune, arrangement)

const keys = fc.integer({ min: -7, max: 7 }).map((fifths): Key => ({ ...tune.measures[0]!.key, fifths }))
const pitches = fc.record({
  step: fc.constantFrom(...STEPS),
  alter: fc.constantFrom(-1, 0, 1),
  octave: fc.integer({ min: 2, max: 6 }),
})

/** Places on the staff, counted from C0. */
const height = ({ step, octave }: Pitch) => octave * 7 + STEPS.indexOf(step)

describe('pitches under the pen', () => {
  it('a letter is the nearest note of that name, as the key has it', () => {
    fc.assert(
      fc.property(keys, fc.constantFrom(...STEPS), pitches, (key, step, near) => {
        const pitch = letterNear(step, near, key)
        expect(pitch.step).toBe(step)
        expect(pitch.alter).toBe(signatureAlter(key.fifths, step))
        expect(Math.abs(height(pitch) - height(near))).toBeLessThanOrEqual(3)
      }),
    )
  })

  it('steps go along the staff and come back, half steps sound half a step', () => {
    fc.assert(
      fc.property(keys, pitches, fc.integer({ min: -9, max: 9 }), (key, pitch, n) => {
        const moved = bySteps(pitch, n, key)
        expect(height(moved) - height(pitch)).toBe(n)
        expect(height(bySteps(moved, -n, key))).toBe(height(pitch))
        for (const by of [1, -1] as const) {
          const half = byHalf(pitch, by, key)
          expect(midiOf(half) - midiOf(pitch)).toBe(by)
          expect(Math.abs(half.alter)).toBeLessThanOrEqual(2)
        }
      }),
    )
  })

  it('a click on the top line of the staff is F, a space above it G', () => {
    const key = { ...tune.measures[0]!.key, fifths: 0 }
    expect(pitchAtHeight(0, key)).toEqual({ step: 'F', alter: 0, octave: 5 })
    expect(pitchAtHeight(-1, key)).toEqual({ step: 'G', alter: 0, octave: 5 })
    expect(pitchAtHeight(8, key)).toEqual({ step: 'E', alter: 0, octave: 4 })
  })

  it('the note before a spot is the one that sounded last', () => {
    expect(pitchBefore(tune, { measure: 0, tick: 0 })).toBeUndefined()
    tune.measures.forEach((m, measure) => {
      for (const e of tune.events.filter((x) => x.pos.measure === m.id)) {
        const at = { measure, tick: e.pos.tick }
        expect(eventAt(tune, at)).toBe(e)
        const index = tune.events.indexOf(e)
        if (index > 0) expect(pitchBefore(tune, at)).toEqual(tune.events[index - 1]!.pitch)
      }
    })
  })
})

describe('where the pen stands', () => {
  const steps = fc.constantFrom(...VALUES.map((v) => ticksOf(v, false)))

  it('walks over every moment of the tune once, forth and back', () => {
    fc.assert(
      fc.property(steps, (step) => {
        const all = tune.measures.flatMap((_, measure) =>
          momentsOf(model, measure, step).map((tick) => ({ measure, tick })),
        )
        let at = all[0]!
        const walked = [at]
        for (let i = 1; i < all.length; i++) walked.push((at = stepped(model, at, 1, step)))
        expect(walked).toEqual(all)
        expect(stepped(model, at, 1, step)).toEqual(at)
        for (let i = all.length - 2; i >= 0; i--) expect((at = stepped(model, at, -1, step))).toEqual(all[i])
        expect(stepped(model, at, -1, step)).toEqual(at)
      }),
    )
  })

  it('stops at every note, and finds it there, in the model as in the score', () => {
    for (const n of arrangement.base.notes) {
      const measure = model.timeline.indexOf.get(n.pos.measure)!
      const cell: Cell = { measure, tick: n.pos.tick, string: n.place.string }
      expect(momentsOf(model, measure, WHOLE)).toContain(n.pos.tick)
      expect(noteOfCell(model, cell)).toBe(n)
      expect(noteAt(score, cell)).toBe(n)
    }
    const bare: Cell = { measure: 0, tick: 1, string: 1 }
    expect([noteOfCell(model, bare), noteAt(score, bare)]).toEqual([undefined, undefined])
  })

  it('a new note is a bass on the low strings, a voice with the melody, a fill under it', () => {
    const role = (tick: number, string: number) => likelyRole(model, { measure: 1, tick, string })
    expect(role(0, 5)).toBe('bass')
    expect(role(0, 2)).toBe('harmony')
    expect(role(WHOLE / 8, 2)).toBe('fill')
  })
})

describe('ways of sounding a note', () => {
  const on: TabNote = { ...arrangement.base.notes.find((n) => n.role === 'melody')!, attack: 'pluck' }

  it('each has a key of its own and is an edit of the kind that it says', () => {
    expect(new Set(Object.values(SOUND_KEYS)).size).toBe(SOUNDS.length)
    for (const sound of SOUNDS) expect(soundEdit(on, sound).do).toBe(soundKind(sound))
  })

  it('what the edit does is what the note then says, and the same edit again takes it off', () => {
    for (const sound of [
      'accent',
      'staccato',
      'fermata',
      'letRing',
      'palmMute',
      'vibrato',
      'optional',
    ] as const) {
      const switched = (from: Score): Score => {
        const note = from.arrangement!.base.notes.find((n) => n.id === on.id)!
        const done = applyEdit(from, soundEdit(note, sound))
        if (!done.ok) throw new Error(done.refusal.reason)
        return done.score
      }
      const is = (s: Score) =>
        soundsSo(
          s.arrangement!.base.notes.find((n) => n.id === on.id)!,
          sound,
        )
      const once = switched(score)
      expect(is(once), sound).toBe(!is(score))
      expect(is(switched(once)), sound).toBe(is(score))
    }
  })
})

describe('bends by hand', () => {
  const bare = tuneOf('z2 z2 z2 z2|]', 'bare', 'M:4/4\nL:1/8\nK:C')
  const empty: Required<Score> = { tune: bare, arrangement: arrangementFor(bare, 2) }
  const at = (from: Score, tick: number) =>
    from.arrangement!.base.notes.find((n) => n.pos.tick === tick && n.place.string === 2)!
  const run = (from: Score, edit: EditCommand): Score => {
    const done = applyEdit(from, edit)
    if (!done.ok) throw new Error(done.refusal.reason)
    return done.score
  }
  const quarter = WHOLE / 4
  // Struck at fret 8, up a whole step, back down: 8, 10, 8 on string 2.
  const three = [8, 10, 8].reduce<Score>(
    (from, fret, i) =>
      run(from, {
        ...{ do: 'fret', at: { measure: bare.measures[0]!.id, tick: i * quarter }, string: 2, fret },
        ...{ ticks: quarter, role: 'melody' },
      }),
    empty,
  )
  const sounding = (s: Score) =>
    [0, 1, 2].map((i) => {
      const n = at(s, i * quarter)
      return pitchAt(s.arrangement!.setup, n.place) + (n.bend ?? 0)
    })

  it('the string is bent up to a note and let back to the next; every pitch stays', () => {
    const up = run(three, soundEdit(at(three, quarter), 'rise'))
    expect(at(up, quarter)).toMatchObject({ attack: 'bend', bend: 2, place: { string: 2, fret: 8 } })
    expect(soundsSo(at(up, quarter), 'rise')).toBe(true)
    expect(soundsSo(at(up, quarter), 'bend')).toBe(false)
    const back = run(up, soundEdit(at(up, 2 * quarter), 'release'))
    expect(at(back, 2 * quarter)).toMatchObject({ attack: 'release', place: { string: 2, fret: 8 } })
    expect(sounding(back)).toEqual(sounding(three))
    // Struck again while it is held: the same place, still up.
    const still = run(up, soundEdit(at(up, quarter), 'rise'))
    expect(at(still, quarter)).toMatchObject({ attack: 'pluck', bend: 2 })
    expect(soundsSo(at(still, quarter), 'bend')).toBe(true)
  })

  it('is refused where there is nothing to bend from', () => {
    const first = applyEdit(three, soundEdit(at(three, 0), 'rise'))
    expect(first).toMatchObject({ ok: false, refusal: { reason: 'noNext' } })
  })
})

describe('lengths in print', () => {
  it('are read back from what the pen offers', () => {
    for (const value of VALUES)
      for (const dotted of [false, true]) {
        const read = valueOf(ticksOf(value, dotted))!
        expect(ticksOf(read.value, read.dotted)).toBe(ticksOf(value, dotted))
      }
  })

  it('a longer and then a shorter one is the same again', () => {
    for (const value of VALUES.slice(1)) {
      const ticks = ticksOf(value, false)
      expect(neighbourValue(ticks, 1)).toBe(2 * ticks)
      expect(neighbourValue(neighbourValue(ticks, 1), -1)).toBe(ticks)
    }
    expect(neighbourValue(WHOLE, 1)).toBe(WHOLE)
  })

  it('what has no sign of its own is put together', () => {
    expect([WHOLE / 4, (WHOLE * 3) / 8, (WHOLE * 5) / 8].map(lengthSign)).toEqual(['¼', '¼.', '½+⅛'])
    expect([WHOLE / 12, WHOLE / 6, (WHOLE * 4) / 12].map(lengthSign)).toEqual(['⅓ ♩', '⅔ ♩', '¼+⅓ ♩'])
  })
})
