import { arrangementFor, tuneOf } from './support.ts'
import { describe, expect, it } from 'vitest'
import { keyText, ticksAt } from '@velvet-porch/core'
import { handAt, moveBetween } from '../src/neck/handMove.ts'
import { neckView } from '../src/neck/neckView.ts'
import { rowsOf, STAFF_HEIGHT } from '../src/sheet/metrics.ts'
import { beatOf, keysOf, sheetModel } from '../src/sheet/sheetModel.ts'
import { guitarSetup, type Grip } from '@velvet-porch/core'

const waltz = tuneOf('G|"G"B2d|"C"e>dc|"D7"A2F|"G"G2|]', 'waltz', 'M:3/4\nL:1/4\nQ:1/4=100\nK:G')
const model = sheetModel(waltz, arrangementFor(waltz, 3, 2))

describe('the sheet model', () => {
  it('walks every onset of the tab once, in order', () => {
    const starts = model.spots.map((s) => model.timeline.starts[s.measure]! + s.tick)
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
    rowsOf(sheetModel(tuneOf(music)).staff, {
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
  const grip = (...pressed: Grip['pressed']): Grip => ({
    id: 'g',
    pos: { measure: 'm1', tick: 0 },
    until: { measure: 'm1', tick: 1 },
    pressed,
    position: 1,
    costs: [],
  })

  it('tells what each finger does between two grips', () => {
    const from = grip(
      { string: 5, fret: 3, finger: 3 },
      { string: 4, fret: 2, finger: 2 },
      { string: 2, fret: 1, finger: 1 },
    )
    const to = grip(
      { string: 5, fret: 3, finger: 3 },
      { string: 4, fret: 4, finger: 2 },
      { string: 1, fret: 3, finger: 4 },
    )
    expect(moveBetween(from, to)).toEqual({ stays: [3], slides: [2], lands: [4], lifts: [1] })
    expect(moveBetween(undefined, from).lands).toEqual([1, 2, 3])
  })

  it('finds the grip of every spot, with the one before and the next', () => {
    let before
    for (const spot of model.spots) {
      const hand = handAt(model, spot)!
      expect(ticksAt(model.timeline, hand.now.pos)).toBe(model.timeline.starts[spot.measure]! + spot.tick)
      expect(hand.before?.id).toBe(before)
      before = hand.now.id
    }
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
