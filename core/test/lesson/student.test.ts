import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { secondsOf } from '../../src/music/index.ts'
import {
  entriesFrom,
  knownIn,
  lessonOf,
  lessonPlan,
  pieceTicks,
  piecesOf,
  recipeIn,
  targetOf,
  toLearnIn,
  UNITS,
  USUAL_LESSON,
  type LogEntry,
  type LogOf,
} from '../../src/lesson/index.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

const { tune, arrangement } = arrangedScore(CORPUS[0]!, 'melody-bass', 2)

const entry = (piece: number, bpm: number, more: Partial<LogEntry> = {}): LogEntry => ({
  day: '2026-11-26',
  piece,
  bpm,
  clean: 3,
  minutes: 5,
  note: '',
  ...more,
})

const phrases = (entries: readonly LogEntry[]): LogOf => ({ unit: 'phrase', entries })
const lesson = (log?: LogOf, unit: (typeof UNITS)[number] = 'phrase') =>
  lessonOf(tune, arrangement, { ...USUAL_LESSON, unit }, log)

const anew = lesson()
const goal = (number: number) => {
  const { goalBpm, ceiling } = recipeIn(anew, anew.pieces[number - 1]!)
  return targetOf(goalBpm, ceiling)
}

describe('a student, from the log', () => {
  it('nobody has learnt anything without a log: the plan is the whole order', () => {
    expect(anew.student).toBeUndefined()
    expect(lesson(phrases([])).student).toBeUndefined()
    expect(toLearnIn(anew)).toEqual(anew.order)
  })

  it('a piece that is clean at its target is not learnt again, one that is slower goes on from its tempo', () => {
    const slow = Math.round(goal(2) * 0.8)
    const own = lesson(phrases([entry(1, goal(1)), entry(2, slow)]))
    const numbers = toLearnIn(own).flatMap((s) => (s.kind === 'piece' ? [s.piece.number] : []))
    const before = anew.order.flatMap((s) => (s.kind === 'piece' ? [s.piece.number] : []))
    expect(numbers).toEqual(before.filter((n) => n !== 1))
    const [first, second] = own.pieces
    expect(knownIn(own)).toContain(first)
    expect(knownIn(own)).not.toContain(second)
    expect(recipeIn(own, second!).tempos[0]).toBe(slow)
    expect(recipeIn(own, second!).seconds).toBeLessThan(recipeIn(anew, second!).seconds)
    // The change within what is known is not drilled alone.
    const inFirst = (measure: number) => first!.from <= measure && measure <= first!.to
    for (const s of toLearnIn(own)) if (s.kind === 'change') expect(inFirst(s.spot.measure)).toBe(false)
  })

  it('what was played, but never clean, is not known', () => {
    const own = lesson(phrases([entry(1, goal(1), { clean: 0 })]))
    expect(own.student!.clean.size).toBe(0)
    expect(toLearnIn(own)).toEqual(own.order)
  })

  it('joins that a later piece was built upon are left out, all of them after the whole was clean', () => {
    const joins = (log: LogOf) => toLearnIn(lesson(log)).filter((s) => s.kind === 'join').length
    const count = anew.pieces.length
    expect(count).toBeGreaterThan(2)
    const all = anew.pieces.map((p) => entry(p.number, goal(p.number)))
    const fresh = anew.order.filter((s) => s.kind === 'join').length
    expect(joins(phrases(all.slice(0, 1)))).toBe(fresh)
    expect(joins(phrases(all))).toBeLessThan(fresh)
    expect(joins(phrases([...all, entry(0, 60)]))).toBe(0)
    // All that is left is to play it.
    expect(toLearnIn(lesson(phrases([...all, entry(0, 60)]))).map((s) => s.kind)).toEqual(['whole'])
  })

  it('more practice never makes the plan longer', () => {
    const log = fc.array(
      fc.record({
        piece: fc.integer({ min: 0, max: anew.pieces.length }),
        bpm: fc.integer({ min: 30, max: 300 }),
      }),
      { maxLength: 8 },
    )
    fc.assert(
      fc.property(log, fc.integer({ min: 1, max: anew.pieces.length }), (some, piece) => {
        const entries = some.map((s) => entry(s.piece, s.bpm))
        const before = toLearnIn(lesson(phrases(entries))).length
        expect(toLearnIn(lesson(phrases([...entries, entry(piece, 300)]))).length).toBeLessThanOrEqual(before)
      }),
      { numRuns: 25 },
    )
  })

  it('tries are the minutes against what clean repetitions alone would take', () => {
    const { way } = USUAL_LESSON
    const [piece] = anew.pieces
    const { tempos } = recipeIn(anew, piece!)
    const once = tempos
      .filter((bpm) => bpm <= goal(1))
      .reduce((s, bpm) => s + way.clean * secondsOf(pieceTicks(tune, piece!), bpm), 0)
    for (const tries of [1.5, 3, 6]) {
      const minutes = (tries * once) / 60
      // As long as it takes to tell: the same again and again.
      const times = Math.ceil(10 / minutes)
      const { student } = lesson(phrases(Array.from({ length: times }, () => entry(1, goal(1), { minutes }))))
      expect(student!.tries).toBeCloseTo(Math.min(10, tries * times), 0)
    }
    expect(lesson(phrases([entry(1, goal(1), { minutes: 9 })])).student!.tries).toBeUndefined()
    // Whoever needs more tries gets less into a lesson.
    const slow = lesson(phrases([entry(1, goal(1), { minutes: 500 })]))
    const second = slow.pieces[1]!
    expect(slow.student!.tries).toBe(10)
    expect(recipeIn(slow, second).seconds).toBeGreaterThan(recipeIn(anew, second).seconds)
  })

  it.each(UNITS)(
    'a log by phrases is read in a lesson by %s: known where all that it overlaps is',
    (unit) => {
      const logged = piecesOf(tune, arrangement, 'phrase')
      const own = lesson(phrases([entry(1, 90), entry(2, 80)]), unit)
      const [one, two, three] = logged
      for (const piece of own.pieces) {
        const bpm = own.student!.clean.get(piece.number)
        if (piece.from >= three!.from && (piece.tick ?? 0) >= (three!.tick ?? 0)) expect(bpm).toBeUndefined()
        else if (piece.to < one!.to) expect(bpm).toBe(90)
        else if (piece.from > two!.from && piece.to < two!.to) expect(bpm).toBe(80)
        else if (piece.from <= one!.from && piece.to >= two!.to && piece.to < three!.from)
          expect(bpm).toBe(80)
      }
    },
  )
})

describe('entries that a device kept', () => {
  it('are those that are any, whatever else is found there', () => {
    const good = [entry(1, 60), entry(0, 72, { clean: 0 })]
    fc.assert(
      fc.property(fc.array(fc.anything(), { maxLength: 5 }), fc.nat(5), (junk, at) => {
        const odd = junk.filter((x) => typeof x !== 'object' || x === null || !('day' in x))
        const kept = [...odd.slice(0, at), ...good, ...odd.slice(at)]
        expect(entriesFrom(kept)).toEqual(good)
        // A lesson opens with them.
        expect(lesson(phrases(entriesFrom(kept))).student!.clean.get(1)).toBe(60)
      }),
      { numRuns: 30 },
    )
    for (const none of [undefined, null, 7, 'text', {}, [null], [{ ...good[0], bpm: 'fast' }]])
      expect(entriesFrom(none)).toEqual([])
  })
})

describe('rests in a plan', () => {
  it('nobody practises longer than twelve minutes without one, nor rests before anything was done', () => {
    const slow = { ...USUAL_LESSON, way: { ...USUAL_LESSON.way, tries: 10 } }
    const long = lessonOf(tune, arrangement, slow)
    for (const minutes of [10, 20, 30, 45, 60, 120])
      for (let from = 0; from < long.order.length; from++) {
        const { items } = lessonPlan(long.order, (p) => recipeIn(long, p), minutes, from)
        let since = 0
        items.forEach(({ what, minutes: n }, i) => {
          if (what.kind === 'rest') {
            expect(items[i - 1]!.what.kind).not.toBe('warmUp')
            since = 0
          } else if (what.kind !== 'again') since += n
          expect(since).toBeLessThanOrEqual(12)
        })
        expect(items.reduce((s, i) => s + i.minutes, 0)).toBeLessThanOrEqual(minutes)
      }
  })

  it('what is gone on with after a rest is said so', () => {
    const hard = arrangedScore(
      tuneOf('X:1\nT:Long\nM:4/4\nL:1/4\nQ:1/4=60\nK:C\n"C"cdec|"C"cdef|"C"edcd|"C"c4|]\n'),
      'melody-bass',
      1,
    )
    const own = lessonOf(hard.tune, hard.arrangement, {
      ...USUAL_LESSON,
      unit: 'part',
      way: { ...USUAL_LESSON.way, tries: 8 },
    })
    const { items } = lessonPlan(own.order, (p) => recipeIn(own, p), 40)
    const parts = items.filter((i) => i.what.kind === 'piece')
    expect(parts.length).toBeGreaterThan(1)
    expect(parts.map((p) => p.goesOn ?? false)).toEqual([false, ...parts.slice(1).map(() => true)])
  })
})
