import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { afterRepetition, isAtGoal, newLadder, practisedEntry, writtenOf } from '@velvet-porch/core/studio'

const TEMPOS = [60, 68, 76, 84, 92, 100]
const NEEDED = 3
const tries = fc.array(fc.boolean(), { maxLength: 60 })

const after = (all: readonly boolean[]) =>
  all.reduce((ladder, clean) => afterRepetition(ladder, clean, NEEDED), newLadder(TEMPOS))

describe('the tempo ladder', () => {
  it('rises by one rung after three clean repetitions in a row, and only then', () => {
    fc.assert(
      fc.property(tries, (all) => {
        let ladder = newLadder(TEMPOS)
        all.forEach((clean, i) => {
          const next = afterRepetition(ladder, clean, NEEDED)
          if (next.at > ladder.at) {
            expect(next.at).toBe(ladder.at + 1)
            expect(all.slice(i - NEEDED + 1, i + 1)).toEqual([true, true, true])
          }
          ladder = next
        })
      }),
    )
  })

  it('never rises after a miss, goes down after two, and stays within its tempos', () => {
    fc.assert(
      fc.property(tries, (all) => {
        const ladder = after(all)
        const missed = afterRepetition(ladder, false, NEEDED)
        expect(missed.at).toBeLessThanOrEqual(ladder.at)
        const twice = afterRepetition(missed, false, NEEDED)
        expect(twice.at).toBeGreaterThanOrEqual(0)
        expect(twice.at === 0 || twice.at < ladder.at).toBe(true)
        expect(ladder.at).toBeLessThan(TEMPOS.length)
      }),
    )
  })

  it('writes down nothing as clean that was not', () => {
    fc.assert(
      fc.property(tries, (all) => {
        const { bpm, clean } = writtenOf(after(all), NEEDED)
        expect(TEMPOS).toContain(bpm)
        const inARow = all
          .join()
          .split('false')
          .map((run) => run.split('true').length - 1)
        expect(clean).toBeLessThanOrEqual(Math.max(0, ...inARow))
      }),
    )
  })

  it('is at its goal once that was clean three times', () => {
    expect(isAtGoal(after(Array(3 * TEMPOS.length - 1).fill(true)))).toBe(false)
    const done = after(Array(3 * TEMPOS.length).fill(true))
    expect(isAtGoal(done)).toBe(true)
    expect(writtenOf(done, NEEDED)).toEqual({ bpm: 100, clean: 3 })
  })
})

it('what is written down has the day, the piece and a minute at least', () => {
  const ladder = afterRepetition(newLadder([80, 100]), true, 3)
  const entry = (ms: number) => practisedEntry(ladder, 3, { day: '2026-03-02', piece: 2, ms })
  expect(entry(4_000)).toEqual({ day: '2026-03-02', piece: 2, bpm: 80, clean: 1, minutes: 1, note: '' })
  expect(entry(260_000).minutes).toBe(4)
})
