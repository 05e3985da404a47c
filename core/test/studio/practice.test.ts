import fc from 'fast-check'
import { createEmptyCard, fsrs, Rating } from 'ts-fsrs'
import { describe, expect, it } from 'vitest'
import type { LogEntry } from '@velvet-porch/core/lesson'
import {
  daysAfter,
  effortOverTime,
  gradeOf,
  masteredOn,
  mergeLogs,
  minutesAWeek,
  practiceList,
  readinessOf,
  reviewsOf,
  shareMastered,
  stuckPieces,
  tempoOverTime,
  waitFor,
  type PieceToPractise,
} from '@velvet-porch/core/studio'

const FIRST = '2026-01-05'
const entry = (day: number, piece: number, bpm: number, clean = 3, minutes = 5): LogEntry => ({
  day: daysAfter(FIRST, day),
  piece,
  bpm,
  clean,
  minutes,
  note: '',
})
const hundred = () => 100
const someEntry = fc
  .tuple(fc.nat(80), fc.integer({ min: 1, max: 5 }), fc.integer({ min: 40, max: 120 }), fc.nat(4))
  .map(([day, piece, bpm, clean]) => entry(day, piece, bpm, clean))
const someLog = fc.array(someEntry, { maxLength: 40 })

describe('reviews', () => {
  it('fall due when the scheduler itself says so', () => {
    const scheduler = fsrs({ enable_fuzz: false, enable_short_term: false })
    let day = 0
    const entries: LogEntry[] = []
    let card = createEmptyCard(new Date(`${daysAfter(FIRST, day)}T12:00:00Z`))
    for (const [bpm, clean, grade] of [
      [60, 3, Rating.Good],
      [70, 3, Rating.Good],
      [70, 0, Rating.Again],
      [65, 1, Rating.Hard],
      [100, 3, Rating.Good],
      [100, 3, Rating.Easy],
    ] as const) {
      card = scheduler.next(card, new Date(`${daysAfter(FIRST, day)}T12:00:00Z`), grade).card
      entries.push(entry(day, 1, bpm, clean))
      const [review] = reviewsOf(entries, hundred, daysAfter(FIRST, day))
      expect(review!.due).toBe(card.due.toISOString().slice(0, 10))
      day += card.scheduled_days
    }
  })

  it('are the same in every time zone, also over a change of clocks', () => {
    const zone = process.env['TZ']
    const entries = [entry(60, 1, 60), entry(76, 1, 70), entry(90, 1, 80), entry(290, 1, 90)]
    const inZone = (tz: string) => {
      process.env['TZ'] = tz
      return reviewsOf(entries, hundred, daysAfter(FIRST, 300))
    }
    const there = ['Pacific/Auckland', 'America/New_York', 'Europe/Berlin'].map(inZone)
    if (zone === undefined) delete process.env['TZ']
    else process.env['TZ'] = zone
    expect(there[1]).toEqual(there[0])
    expect(there[2]).toEqual(there[0])
  })

  it('come sooner after a bad day than after a good one', () => {
    const before = [entry(0, 1, 60), entry(3, 1, 70)]
    const day = daysAfter(FIRST, 20)
    const due = (last: LogEntry) => reviewsOf([...before, last], hundred, day)[0]!.due
    expect(due(entry(20, 1, 70, 0)) < due(entry(20, 1, 60))).toBe(true)
    expect(due(entry(20, 1, 60)) < due(entry(20, 1, 80))).toBe(true)
  })

  it('do not know what comes after the day that is asked for', () => {
    const log = [entry(0, 1, 60), entry(9, 1, 90)]
    expect(reviewsOf(log, hundred, daysAfter(FIRST, 5))).toEqual(
      reviewsOf(log.slice(0, 1), hundred, daysAfter(FIRST, 5)),
    )
  })

  it('grade a day by its best', () => {
    expect(gradeOf([entry(0, 1, 60, 0), entry(0, 1, 70, 1)], 60, 100)).toBe(Rating.Good)
    expect(gradeOf([entry(0, 1, 120, 3)], 110, 100)).toBe(Rating.Easy)
  })
})

describe("today's list", () => {
  const today = daysAfter(FIRST, 90)
  const pieces = (log: readonly LogEntry[]): PieceToPractise[] => {
    const reviews = reviewsOf(log, hundred, today)
    return [1, 2, 3, 4, 5].map((piece) => {
      const review = reviews.find((r) => r.piece === piece)
      return { tuneId: 't', piece, minutes: 3 + piece, stuck: false, ...(review ? { review } : {}) }
    })
  }

  it('keeps the minutes, has no piece twice and nothing that is not due or new', () => {
    fc.assert(
      fc.property(someLog, fc.nat(60), (log, minutes) => {
        const all = pieces(log)
        const list = practiceList(all, today, minutes)
        expect(list.reduce((sum, i) => sum + i.minutes, 0)).toBeLessThanOrEqual(minutes)
        expect(new Set(list.map((i) => i.piece)).size).toBe(list.length)
        for (const item of list) {
          const piece = all.find((p) => p.piece === item.piece)!
          if (item.why === 'new') expect(piece.review).toBeUndefined()
          else expect(piece.review!.due <= today).toBe(true)
        }
      }),
    )
  })

  it('begins with what is nearest to being forgotten, and has something new after two reviews', () => {
    const log = [entry(0, 1, 60), entry(0, 2, 60), entry(50, 3, 60)]
    const list = practiceList(pieces(log), today, 60)
    expect(list.map((i) => [i.piece, i.why])).toEqual([
      [1, 'due'],
      [2, 'due'],
      [4, 'new'],
      [3, 'due'],
      [5, 'new'],
    ])
  })

  it('puts the piece that is stuck first', () => {
    const all = pieces([entry(0, 1, 60), entry(50, 2, 60)]).map((p) => ({ ...p, stuck: p.piece === 2 }))
    expect(practiceList(all, today, 60)[0]).toMatchObject({ piece: 2, why: 'stuck' })
  })
})

describe('a log that comes back', () => {
  it('twice is the same as once', () => {
    fc.assert(
      fc.property(someLog, someLog, (here, there) => {
        const once = mergeLogs(here, there, 'both')
        const again = mergeLogs(once.entries, there, 'both')
        expect(again.entries).toEqual(once.entries)
        expect(again).toMatchObject({ added: [], known: there.length })
      }),
    )
  })

  it('loses nothing that is here, and takes all of the file but for conflicts', () => {
    fc.assert(
      fc.property(someLog, someLog, (here, there) => {
        const { entries, added, known, conflicts } = mergeLogs(here, there)
        for (const e of here) expect(entries).toContainEqual(e)
        expect(entries.length).toBe(here.length + added.length)
        expect(known + added.length + conflicts.flatMap((c) => c.there).length).toBe(there.length)
      }),
    )
  })

  it('that tells a day differently is asked about', () => {
    const here = [entry(0, 1, 60), entry(1, 1, 70)]
    const there = [entry(0, 1, 60), entry(1, 1, 75), entry(2, 1, 80)]
    const merged = mergeLogs(here, there)
    expect(merged.conflicts).toEqual([
      { day: daysAfter(FIRST, 1), piece: 1, here: [entry(1, 1, 70)], there: [entry(1, 1, 75)] },
    ])
    expect(merged.entries).toEqual([...here, entry(2, 1, 80)])
    expect(mergeLogs(here, there, 'there').entries).toEqual(there)
    expect(mergeLogs(here, there, 'both').entries.length).toBe(4)
  })
})

describe('progress', () => {
  it('of the tempo: the best never falls, and is one that was reached', () => {
    fc.assert(
      fc.property(someLog, (log) => {
        const points = tempoOverTime(log)
        points.forEach((p, i) => expect(p.best).toBeGreaterThanOrEqual(points[i - 1]?.best ?? 0))
        for (const p of points)
          expect(log.some((e) => e.day === p.day && e.bpm === p.reached && e.clean > 0)).toBe(true)
      }),
    )
  })

  it('counts every minute of the weeks that are shown once', () => {
    fc.assert(
      fc.property(someLog, (log) => {
        const weeks = minutesAWeek(log, daysAfter(FIRST, 83), 12)
        expect(weeks.reduce((sum, w) => sum + w.minutes, 0)).toBe(log.reduce((sum, e) => sum + e.minutes, 0))
      }),
    )
  })

  it('finds who is stuck: no rise in three days of practice, below the goal', () => {
    const flat = [entry(0, 1, 60), entry(2, 1, 60), entry(4, 1, 58), entry(6, 1, 60)]
    expect(stuckPieces(flat, hundred)).toEqual([
      { piece: 1, bpm: 60, sessions: 3, since: daysAfter(FIRST, 2) },
    ])
    expect(stuckPieces([...flat, entry(7, 1, 62)], hundred)).toEqual([])
    expect(stuckPieces(flat, () => 60)).toEqual([])
    expect(stuckPieces(flat.slice(0, 3), hundred)).toEqual([])
  })

  it('counts the effort of every mastered piece once, from the day on which it was mastered', () => {
    const effortOfPiece = (piece: number) => 10 * piece
    fc.assert(
      fc.property(someLog, (log) => {
        const points = effortOverTime(masteredOn(log, hundred), effortOfPiece)
        for (const { day, effort } of points) {
          const until = log.filter((e) => e.day <= day && e.clean > 0 && e.bpm >= 100)
          const pieces = [...new Set(until.map((e) => e.piece))]
          expect(effort).toBe(pieces.reduce((sum, p) => sum + effortOfPiece(p), 0))
        }
        expect(points.length > 0).toBe(log.some((e) => e.clean > 0 && e.bpm >= 100))
      }),
    )
  })

  it('is mastered where it was clean at the goal', () => {
    expect(shareMastered([entry(0, 1, 100), entry(0, 2, 100, 0), entry(0, 3, 90)], 4, hundred)).toBe(0.25)
  })
})

describe('readiness', () => {
  it('waits as the distribution says: the first of one event at a known rate, half the time', () => {
    // One event to come after one seen: P(wait ≤ x) = x / (1 + x), so the middle is 1.
    expect(waitFor(1, 1, 0.5)).toBeCloseTo(1, 6)
    expect(waitFor(1, 1, 0.9)).toBeCloseTo(9, 6)
  })

  it('agrees with drawing at random', () => {
    let seed = 7
    const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647
    const gamma = (shape: number) =>
      Array.from({ length: shape }, () => -Math.log(random())).reduce((a, b) => a + b)
    const draws = Array.from({ length: 20000 }, () => gamma(4) / gamma(6)).sort((a, b) => a - b)
    for (const share of [0.1, 0.5, 0.9])
      expect(waitFor(4, 6, share) / draws[Math.floor(share * draws.length)]!).toBeCloseTo(1, 1)
  })

  it('is early, likely and late in this order, and later with more to learn', () => {
    fc.assert(
      fc.property(someLog, fc.integer({ min: 1, max: 12 }), (log, more) => {
        const today = daysAfter(FIRST, 90)
        const some = readinessOf(log, 6, () => 90, FIRST, today)
        const longer = readinessOf(log, 6 + more, () => 90, FIRST, today)!
        if (!some) return
        expect(some.early <= some.day && some.day <= some.late).toBe(true)
        expect(longer.day >= some.day).toBe(true)
      }),
    )
  })

  it('has no date where all is mastered', () => {
    expect(readinessOf([entry(0, 1, 100)], 1, hundred, FIRST, daysAfter(FIRST, 3))).toBeUndefined()
  })
})
