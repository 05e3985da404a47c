import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { notesOf, progressOf, type LogEntry } from '../../src/lesson/index.ts'

const entry = fc.record<LogEntry>({
  day: fc.integer({ min: 1, max: 28 }).map((d) => `2026-11-${String(d).padStart(2, '0')}`),
  piece: fc.integer({ min: 0, max: 5 }),
  bpm: fc.integer({ min: 40, max: 160 }),
  clean: fc.integer({ min: 0, max: 5 }),
  minutes: fc.integer({ min: 0, max: 60 }),
  note: fc.constantFrom('', '  ', 'the stretch hurts', 'better'),
})

describe('what a student wrote into the practice log', () => {
  it('are the entries with words, the latest first, and of one day the one written last', () => {
    const at = (day: string, note: string): LogEntry => ({
      day,
      piece: 1,
      bpm: 80,
      clean: 1,
      minutes: 5,
      note,
    })
    expect(
      notesOf([
        at('2026-11-02', 'a'),
        at('2026-11-05', ' '),
        at('2026-11-04', 'b'),
        at('2026-11-02', 'c'),
      ]).map((e) => e.note),
    ).toEqual(['b', 'c', 'a'])
  })

  it('loses no words and adds none, in falling order of days', () => {
    fc.assert(
      fc.property(fc.array(entry), (entries) => {
        const notes = notesOf(entries)
        expect(new Set(notes)).toEqual(new Set(entries.filter((e) => e.note.trim() !== '')))
        expect(new Set(notes).size).toBe(notes.length)
        notes.slice(1).forEach((e, i) => expect(e.day <= notes[i]!.day).toBe(true))
      }),
    )
  })

  it('sums minutes and days of each piece, and keeps the best tempo that was clean', () => {
    fc.assert(
      fc.property(fc.array(entry), (entries) => {
        const progress = progressOf(entries)
        expect(progress.reduce((sum, p) => sum + p.minutes, 0)).toBe(
          entries.reduce((sum, e) => sum + e.minutes, 0),
        )
        for (const p of progress) {
          const own = entries.filter((e) => e.piece === p.piece)
          expect(p.days).toBe(new Set(own.map((e) => e.day)).size)
          const clean = own.filter((e) => e.clean > 0).map((e) => e.bpm)
          expect(p.bestBpm).toBe(clean.length === 0 ? undefined : Math.max(...clean))
        }
      }),
    )
  })
})
