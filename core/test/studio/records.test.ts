import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  csvOf,
  dayOf,
  daysAfter,
  daysBetween,
  freshEntry,
  isDay,
  lessonsAround,
  mostWanted,
  weekOf,
  type LessonRecord,
} from '@velvet-porch/core/studio'

const someDay = fc
  .date({ min: new Date('1990-01-01'), max: new Date('2090-01-01'), noInvalidDate: true })
  .map((d) => d.toISOString().slice(0, 10))

describe('days', () => {
  it('go forth and back, whatever the clocks do', () => {
    fc.assert(
      fc.property(someDay, fc.integer({ min: -3000, max: 3000 }), (day, n) => {
        expect(daysBetween(day, daysAfter(day, n))).toBe(n)
        expect(isDay(daysAfter(day, n))).toBe(true)
      }),
    )
  })

  it('of a week begin on its Monday', () => {
    fc.assert(
      fc.property(someDay, (day) => {
        expect(new Date(`${weekOf(day)}T00:00:00Z`).getUTCDay()).toBe(1)
        expect(daysBetween(weekOf(day), day)).toBeLessThan(7)
        expect(weekOf(day) <= day).toBe(true)
      }),
    )
  })

  it('are those of the calendar', () => {
    expect(['2026-02-28', '2024-02-29', '2026-02-29', '2026-13-01', 'today', ''].map(isDay)).toEqual([
      true,
      true,
      false,
      false,
      false,
      false,
    ])
    expect(dayOf(new Date(2026, 0, 5, 0, 10))).toBe('2026-01-05')
    expect(dayOf(new Date(2026, 0, 5, 23, 50))).toBe('2026-01-05')
  })
})

describe('a table as text', () => {
  /** Reads RFC 4180: the test's own reader. */
  const readBack = (text: string): string[][] => {
    const rows: string[][] = []
    let row: string[] = []
    for (const [, quoted, bare, end] of text.matchAll(/(?:"((?:[^"]|"")*)"|([^",\r\n]*))(,|\r\n)/g)) {
      row.push(quoted === undefined ? bare! : quoted.replaceAll('""', '"'))
      if (end === '\r\n') {
        rows.push(row)
        row = []
      }
    }
    return rows
  }

  it('reads back', () => {
    const cell = fc.string().map((s) => s.replace(/^[=+\-@\t\r]+/, ''))
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { maxLength: 8 }), (rows) => {
        expect(readBack(csvOf(['one', 'two'], rows))).toEqual([['one', 'two'], ...rows])
      }),
    )
  })

  it('holds no formula', () => {
    expect(csvOf(['note'], [['=1+1'], ['@x'], ['-2'], [-2]])).toBe("note\r\n'=1+1\r\n'@x\r\n'-2\r\n-2\r\n")
  })
})

describe('lessons', () => {
  const lesson = (day: string, state: LessonRecord['state'], time = '16:00'): LessonRecord => ({
    id: `${day} ${time}`,
    studentId: 's',
    day,
    time,
    minutes: 45,
    state,
    done: '',
    next: '',
    notes: '',
  })

  it('around a day: the last that was held, the first that is planned', () => {
    const lessons = [
      lesson('2026-03-09', 'planned'),
      lesson('2026-02-23', 'held'),
      lesson('2026-03-02', 'missed'),
      lesson('2026-02-16', 'held'),
      lesson('2026-03-09', 'planned', '09:00'),
    ]
    const { last, coming } = lessonsAround(lessons, '2026-03-04')
    expect(last!.day).toBe('2026-02-23')
    expect(coming!.id).toBe('2026-03-09 09:00')
    expect(lessonsAround([], '2026-03-04')).toEqual({})
  })
})

describe('requests', () => {
  it('of one person count once, the most wanted first', () => {
    const wanted = (id: string, ...by: string[]) => ({
      ...freshEntry(id),
      requests: by.map((b) => ({ by: b, day: '2026-03-01' })),
    })
    expect(mostWanted([wanted('a', 'x'), freshEntry('b'), wanted('c', 'x', 'y', 'x')])).toEqual([
      { id: 'c', by: ['x', 'y'] },
      { id: 'a', by: ['x'] },
    ])
  })
})
