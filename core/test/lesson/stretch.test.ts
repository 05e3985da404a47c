import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  beatAt,
  betweenBeats,
  isInPiece,
  isWithin,
  lessonOf,
  stretchOf,
  USUAL_LESSON,
} from '../../src/lesson/index.ts'
import { beatLength } from '../../src/music/time/metre.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

const QUARTER = 10_080
const pickup = tuneOf('X:1\nT:Sill\nM:4/4\nL:1/4\nK:C\nG|"C"cdec|"F"f2a2|"G7"gfed|"C"c3|]\n')
const jig = tuneOf('X:1\nT:Latch\nM:6/8\nL:1/8\nK:G\n"G"GBd gdB|"D"AFD D3|]\n')

describe('a stretch of the page', () => {
  it('is the beat around a moment: quarters in 4/4, dotted quarters in 6/8, a pickup from where it begins', () => {
    const at = (tune: typeof jig, measure: number, tick: number) => {
      const { from, to } = beatAt(tune, { measure, tick })
      return [from.tick, to.tick]
    }
    expect(at(pickup, 1, 15_000)).toEqual([QUARTER, 2 * QUARTER])
    expect(at(pickup, 0, 0)).toEqual([0, QUARTER])
    expect(at(jig, 0, 2 * QUARTER)).toEqual([15_120, 30_240])
  })

  it('between any two beats holds both, in either order, and nothing outside them', () => {
    for (const tune of [pickup, jig, ...CORPUS.slice(0, 3)]) {
      const moment = fc
        .integer({ min: 0, max: tune.measures.length - 1 })
        .chain((measure) =>
          fc.integer({ min: 0, max: tune.measures[measure]!.length - 1 }).map((tick) => ({ measure, tick })),
        )
      fc.assert(
        fc.property(moment, moment, moment, (a, b, c) => {
          const stretch = betweenBeats(tune, a, b)
          expect(betweenBeats(tune, b, a)).toEqual(stretch)
          expect(isWithin(stretch, a) && isWithin(stretch, b)).toBe(true)
          const key = ({ measure, tick }: typeof a) => measure * 1e9 + tick
          const [low, high] = [Math.min(key(a), key(b)), Math.max(key(a), key(b))]
          if (key(c) >= low && key(c) <= high) expect(isWithin(stretch, c)).toBe(true)
          const beat = beatLength(tune.measures[c.measure]!.metre)
          if (key(c) < low - beat || c.measure > stretch.to.measure) expect(isWithin(stretch, c)).toBe(false)
        }),
        { numRuns: 60 },
      )
    }
  })

  it('of a piece holds its steps and no others', () => {
    for (const unit of ['beat', 'measure', 'phrase'] as const) {
      const { tune, arrangement } = arrangedScore(pickup, 'alternating-bass', 2)
      const { pieces, steps } = lessonOf(tune, arrangement, { ...USUAL_LESSON, unit })
      for (const piece of pieces) {
        const stretch = stretchOf(tune, piece)
        for (const s of steps)
          expect([unit, piece.number, s, isWithin(stretch, s)]).toEqual([
            unit,
            piece.number,
            s,
            isInPiece(piece, s),
          ])
      }
    }
  })
})
