import { arrangementFor, tuneOf } from './support.ts'
import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { keyText } from '@velvet-porch/core/music'
import { LONGEST_REMARK, ticksAt, timelineOf, type TabNote } from '@velvet-porch/core/document'
import { withoutOptional } from '@velvet-porch/core/arrange'
import { heldShape } from '@velvet-porch/core/lesson'
import { handAt, withLifted } from '../src/score/neck/handMove.ts'
import { neckView } from '../src/score/neck/neckView.ts'
import { systemRows, STAFF_HEIGHT } from '../src/score/sheet/metrics.ts'
import { remarkLines } from '../src/score/sheet/remarkLines.ts'
import { beatOf, keysOf, sheetModel } from '../src/score/sheet/sheetModel.ts'
import { guitarSetup } from '@velvet-porch/core/instrument'

const waltz = tuneOf('G|"G"B2d|"C"e>dc|"D7"A2F|"G"G2|]', 'waltz', 'M:3/4\nL:1/4\nQ:1/4=100\nK:G')
const model = sheetModel(waltz, arrangementFor(waltz, 3, 2))

describe('the sheet model', () => {
  it('walks every onset of the tab once, in order', () => {
    const starts = model.positions.map((s) => model.timeline.starts[s.measure]! + s.tick)
    expect(starts).toEqual([...starts].sort((a, b) => a - b))
    expect(new Set(starts)).toEqual(new Set(model.layer!.notes.map((n) => ticksAt(model.timeline, n.pos))))
  })

  it('counts beats as they are spoken, a pickup from the end of its measure', () => {
    expect(beatOf(model, { measure: 0, tick: 0 })).toBe('3')
    expect(beatOf(model, { measure: 2, tick: 15120 })).toBe('2 &')
    expect(beatOf(model, { measure: 1, tick: 2520 })).toBe('1 e')
    expect(beatOf(model, { measure: 1, tick: 3360 })).toBe('1.33')
  })

  it('says the key as it sounds and as the hand calls it', () => {
    expect(keysOf(model, { key: keyText } as never)).toEqual({ sounding: 'G major', shape: 'F major' })
  })

  it('makes room for signs: a metre at the start, a repeat after it', () => {
    const repeated = sheetModel(tuneOf('|:CDEF:|'))
    expect(repeated.layoutMeasures[0]!.signs).toBeGreaterThan(
      sheetModel(tuneOf('CDEF|')).layoutMeasures[0]!.signs,
    )
  })
})

describe('rows of a system', () => {
  const rows = (music: string) =>
    systemRows(sheetModel(tuneOf(music)).staff, {
      marksAbove: false,
      strings: 6,
      picking: true,
      intervals: false,
      verses: 0,
      counts: false,
      degrees: false,
      stringNumbers: false,
      signs: false,
    })

  it('stand apart from top to bottom', () => {
    const r = rows("CDEF|c'd'e'f'|")
    expect(r.chords).toBeLessThan(r.staffTop)
    expect(r.staffTop + STAFF_HEIGHT).toBeLessThan(r.tabTop)
    expect(r.tabTop).toBeLessThan(r.tabBottom)
    expect(r.picking).toBeLessThan(r.height)
  })

  it('give high and low notes the room that they need', () => {
    expect(rows("c'''4|").staffTop).toBeGreaterThan(rows('c4|').staffTop + 20)
    const low = rows('C,,4|')
    const high = rows('c4|')
    expect(low.tabTop - low.staffTop).toBeGreaterThan(high.tabTop - high.staffTop + 20)
  })
})

describe('the hand on the neck', () => {
  it('finds the grip of every spot, with the one before and the next', () => {
    let before
    for (const position of model.positions) {
      const hand = handAt(model, position)!
      expect(ticksAt(model.timeline, hand.now.pos)).toBe(
        model.timeline.starts[position.measure]! + position.tick,
      )
      expect(hand.before?.id).toBe(before)
      before = hand.now.id
    }
    // A finger that is lifted first was not there before.
    const position = model.positions.find((s) => (handAt(model, s)?.before?.pressed.length ?? 0) > 0)!
    const moment = handAt(model, position)!
    const [first] = moment.before!.pressed
    const lifted = withLifted(moment, [first!.finger])!
    expect(lifted.before!.pressed.some((p) => p.finger === first!.finger)).toBe(false)
    expect(lifted.now).toBe(moment.now)
    expect(withLifted(moment, [])).toBe(moment)
    // In the middle of a grip nothing has just landed.
    const within = handAt(model, {
      measure: model.positions[0]!.measure,
      tick: model.positions[0]!.tick + 1,
    })!
    expect(within.before).toBe(within.now)
    expect(handAt(sheetModel(waltz), { measure: 0, tick: 0 })).toBeUndefined()
  })
})

describe('the standing neck', () => {
  const size = { width: 200, height: 520 }

  it('is true to scale: fret lines keep their ratio of the twelfth root of two, strings at least 24 px apart', () => {
    const view = neckView(guitarSetup(), 1, size)
    const gaps = view.frets.slice(1).map((f) => view.fretY(f) - view.fretY(f - 1))
    for (let i = 1; i < gaps.length; i++) expect(gaps[i - 1]! / gaps[i]!).toBeCloseTo(2 ** (1 / 12), 6)
    for (const s of [1, 2, 3, 4, 5])
      expect(view.stringX(s, 'top') - view.stringX(s + 1, 'top')).toBeGreaterThanOrEqual(24)
    expect(view.stringX(1, 'end') - view.stringX(6, 'end')).toBeGreaterThan(
      view.stringX(1, 'top') - view.stringX(6, 'top'),
    )
  })

  it('shows the capo first and counts frets from it', () => {
    const view = neckView(guitarSetup(3), 1, size)
    expect(view.top).toBe(3)
    expect(view.place(1, 1).cy).toBeGreaterThan(view.fretY(3))
    expect(view.place(1, 1).cy).toBeLessThan(view.fretY(4))
  })

  it('follows the hand up the neck and is mirrored for a left hand', () => {
    const high = neckView(guitarSetup(), 7, size)
    expect(high.top).toBeGreaterThanOrEqual(5)
    expect(high.frets).toContain(10)
    const left = neckView(
      { ...guitarSetup(), player: { ...guitarSetup().player, handedness: 'left' } },
      1,
      size,
    )
    expect(left.stringX(1, 'top')).toBeLessThan(left.stringX(6, 'top'))
  })
})

describe('the box of what the hand holds', () => {
  it('has a finger once, and every string at the fret where it is first played under the chord', () => {
    for (const level of [1, 3, 5] as const) {
      const sheet = sheetModel(waltz, arrangementFor(waltz, level, 2))
      for (const segment of sheet.harmony) {
        const held = heldShape(sheet.layer!, 6, sheet.timeline, segment.start, segment.end)
        if (!held) continue
        expect(held.frets).toHaveLength(6)
        const pressed = held.fingers.flatMap((f, i) => (f === 0 ? [] : [{ f, fret: held.frets[i] }]))
        for (const { f, fret } of pressed)
          expect(pressed.filter((p) => p.f === f).every((p) => p.fret === fret)).toBe(true)
        held.frets.forEach((fret, i) => expect(held.fingers[i] === 0).toBe(!fret))
      }
    }
  })

  it('is none where nothing is played', () => {
    expect(heldShape({ notes: [], grips: [] }, 6, model.timeline, 0, 1)).toBeUndefined()
  })
})

describe('what may be left out', () => {
  const whole = arrangementFor(waltz, 4)
  const timeline = timelineOf(waltz.measures)

  it('goes, and nothing else does', () => {
    const base = {
      ...whole.base,
      notes: whole.base.notes.map((n, i) => ({ ...n, optional: n.role !== 'melody' && i % 2 === 0 })),
    }
    const left = withoutOptional(base, timeline)
    expect(left.notes.map((n) => n.id)).toEqual(base.notes.filter((n) => !n.optional).map((n) => n.id))
    expect(left.spans.every((s) => left.notes.some((n) => n.id === s.from))).toBe(true)
  })

  it('a note reached from one that is left out is plucked', () => {
    const [first, second] = whole.base.notes.filter((n) => n.role === 'melody')
    const on = { string: 2, fret: 3 }
    const base = {
      ...whole.base,
      notes: [
        { ...first!, place: on, optional: true },
        { ...second!, place: { ...on, fret: 1 }, attack: 'pull' as const },
      ],
      spans: [{ id: 's', kind: 'pull' as const, from: first!.id, to: second!.id }],
    }
    expect(withoutOptional(base, timeline)).toMatchObject({
      notes: [{ id: second!.id, attack: 'pluck' }],
      spans: [],
    })
  })

  it('short notes go alone; the note they led to is plucked', () => {
    const [note] = whole.base.notes
    const grace = { place: { string: 1, fret: 2 }, left: 1 as const, attack: 'pluck' as const }
    const base = (graces: NonNullable<TabNote['graces']>) => ({
      ...whole.base,
      notes: [{ ...note!, attack: 'hammer' as const, graces }],
    })
    expect(withoutOptional(base([{ ...grace, optional: true }]), timeline).notes[0]).toMatchObject({
      attack: 'pluck',
    })
    expect(withoutOptional(base([grace]), timeline).notes[0]!.graces).toHaveLength(1)
  })
})

describe('words to the student', () => {
  it('stand in at most two lines, whole', () => {
    const words = fc.array(fc.stringMatching(/^[a-z]{1,9}$/), { minLength: 1, maxLength: 12 })
    fc.assert(
      fc.property(words, (list) => {
        const text = list.join(' ').slice(0, LONGEST_REMARK).trim()
        const lines = remarkLines(text)
        expect(lines.length).toBeLessThanOrEqual(2)
        expect(lines.join(' ')).toBe(text)
        expect(lines[0]!.length).toBeLessThanOrEqual(30)
      }),
    )
  })

  it('make room for themselves', () => {
    const noted = arrangementFor(waltz, 2)
    const [first, ...others] = noted.base.notes
    const base = { ...noted.base, notes: [{ ...first!, remark: 'keep finger three down' }, ...others] }
    const [bare, wide] = [noted, { ...noted, base }].map((d) => sheetModel(waltz, d).layoutMeasures)
    const at = first!.pos.tick
    const index = waltz.measures.findIndex((m) => m.id === first!.pos.measure)
    expect(bare![index]!.needs!.get(at)).toBeUndefined()
    expect(wide![index]!.needs!.get(at)).toBeGreaterThan(80)
  })
})
