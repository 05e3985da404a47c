import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { beatStarts, strongBeats, QUARTER } from '../../../src/music/index.ts'
import { melodyOf, timelineOf, unfold, type Measure } from '../../../src/document/index.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const order = (music: string) => unfold(tuneOfMusic(music).measures).order.map((o) => o.measure)

describe('played order', () => {
  it('A A B B of eight-bar parts sounds 32 bars (common practice, no source)', () => {
    const part = Array.from({ length: 8 }, () => 'CDEF').join('|')
    expect(order(`|:${part}:|\n|:${part}:|`)).toHaveLength(32)
  })

  it.each([
    ['!segno!CDEF|GABc|!D.S.!cBAG|', [0, 1, 2, 0, 1, 2]],
    ['CDEF|!fine!GABc|!D.C.!cBAG|', [0, 1, 2, 0, 1]],
    ['|:CDEF:|GABc|!D.C.!cBAG|', [0, 0, 1, 2, 0, 1, 2]],
  ])('%s', (music, expected) => {
    expect(order(music)).toEqual(expected)
  })

  it('says that a sign is missing and ends', () => {
    const { problems, order: played } = unfold(tuneOfMusic('CDEF|!D.S.!GABc|').measures)
    expect(problems).toEqual([{ code: 'form.noSegno', values: {} }])
    expect(played).toHaveLength(2)
  })

  it('always ends, whatever the marks, and plays nothing that is not there', () => {
    const mark: fc.Arbitrary<
      Pick<Measure, 'length' | 'repeatStart' | 'repeatEnd' | 'endings' | 'segno' | 'coda' | 'fine' | 'jump'>
    > = fc
      .record({
        length: fc.constant(40320),
        repeatStart: fc.boolean(),
        repeatEnd: fc.integer({ min: 1, max: 3 }),
        endings: fc.oneof(fc.constant([]), fc.subarray([1, 2, 3])),
        segno: fc.boolean(),
        coda: fc.boolean(),
        fine: fc.boolean(),
        jump: fc.constantFrom(
          undefined,
          'daCapo' as const,
          'dalSegno' as const,
          'daCapoAlCoda' as const,
          'dalSegnoAlFine' as const,
        ),
      })
      .map(({ jump, ...measure }) => (jump ? { ...measure, jump } : measure))
    fc.assert(
      fc.property(fc.array(mark, { maxLength: 12 }), (measures) => {
        const { order: played, length } = unfold(measures)
        expect(played.every((o) => measures[o.measure] !== undefined)).toBe(true)
        expect(length).toBe(played.length * 40320)
      }),
      { numRuns: 400, seed: 5 },
    )
  })
})

describe('time', () => {
  it('strong beats by metre (common practice, no source)', () => {
    const beats = (num: number, den: number) =>
      strongBeats({ num, den }).map((t) => t / ((QUARTER * 4) / den))
    expect(beats(4, 4)).toEqual([0, 2])
    expect(beats(3, 4)).toEqual([0])
    expect(beats(2, 4)).toEqual([0])
    expect(beats(2, 2)).toEqual([0, 1])
    expect(beats(6, 8)).toEqual([0, 3])
    expect(beats(9, 8)).toEqual([0])
    expect(beats(12, 8)).toEqual([0, 6])
    expect(beats(5, 4)).toEqual([0, 2])
    expect(beats(7, 8)).toEqual([0, 2, 4])
    expect(beatStarts({ num: 6, den: 8 })).toHaveLength(2)
  })

  it('the written melody has no gap or overlap that the source does not have', () => {
    for (const tune of CORPUS) {
      const timeline = timelineOf(tune.measures)
      const melody = melodyOf(tune, timeline)
      melody.forEach((n, i) =>
        expect(n.start + n.duration).toBeLessThanOrEqual(melody[i + 1]?.start ?? timeline.length),
      )
      const sounding = melody.reduce((sum, n) => sum + n.duration, 0)
      const rests = tune.events.filter((e) => !e.pitch).reduce((sum, e) => sum + e.dur.ticks, 0)
      expect(sounding + rests).toBe(timeline.length)
    }
  })
})
