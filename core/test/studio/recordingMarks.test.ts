import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { playedAt, secondOf, withMark, type RecordingMark } from '@velvet-porch/core/studio'

const someMarks = fc
  .array(fc.tuple(fc.nat(40), fc.integer({ min: 0, max: 3000 })), { minLength: 1, maxLength: 25 })
  .map((all) =>
    all.reduce<RecordingMark[]>(
      (marks, [played, tenths]) => withMark(marks, { played, seconds: tenths / 10 }),
      [],
    ),
  )

describe('marks in a recording', () => {
  it('always rise, whatever order they were laid in, and the last one laid stands', () => {
    fc.assert(
      fc.property(someMarks, fc.nat(40), fc.integer({ min: 0, max: 3000 }), (marks, played, tenths) => {
        const mark = { played, seconds: tenths / 10 }
        const now = withMark(marks, mark)
        expect(now).toContainEqual(mark)
        now.slice(1).forEach((m, i) => {
          expect(m.played).toBeGreaterThan(now[i]!.played)
          expect(m.seconds).toBeGreaterThan(now[i]!.seconds)
        })
      }),
    )
  })

  it('lead from measures to seconds and back', () => {
    fc.assert(
      fc.property(someMarks, fc.double({ min: 0, max: 40, noNaN: true }), (marks, played) => {
        fc.pre(marks.length > 1)
        expect(playedAt(marks, secondOf(marks, played)!)).toBeCloseTo(played, 6)
        for (const m of marks) expect(secondOf(marks, m.played)).toBeCloseTo(m.seconds, 9)
      }),
    )
  })

  it('are steady between two and go on beyond them', () => {
    const marks = [
      { played: 0, seconds: 1 },
      { played: 4, seconds: 9 },
      { played: 5, seconds: 13 },
    ]
    expect([0, 1, 2.5, 4.5, 6].map((p) => secondOf(marks, p))).toEqual([1, 3, 6, 11, 17])
    expect(secondOf(marks, -0.5)).toBe(0)
    expect(secondOf(marks.slice(0, 1), 2)).toBeUndefined()
  })
})
