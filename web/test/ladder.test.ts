import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LADDERS, tempoAfter } from '../src/score/playback/ladder.ts'

describe('the ladder of tempos', () => {
  it('never goes down, never over the written tempo, and not before its loops were played', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 30, max: 150 }),
        fc.nat(9),
        fc.constantFrom(...LADDERS),
        (percent, loops, ladder) => {
          const tempo = percent / 100
          const after = tempoAfter(tempo, loops, ladder)
          expect(after).toBeGreaterThanOrEqual(tempo)
          expect(after).toBeLessThanOrEqual(Math.max(1, tempo))
          if (ladder === 0 || loops < ladder) expect(after).toBe(tempo)
          else if (tempo < 1) expect(after).toBeGreaterThan(tempo)
        },
      ),
    )
  })

  it('is climbed to the written tempo by single steps', () => {
    let tempo = 0.6
    const steps = [tempo]
    while (tempo < 1) steps.push((tempo = tempoAfter(tempo, 2, 2)))
    expect(steps).toEqual([0.6, 0.65, 0.7, 0.75, 0.8, 0.85, 0.9, 0.95, 1])
  })
})
