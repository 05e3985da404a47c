import { describe, expect, it } from 'vitest'
import { playedNext, unfold } from '../../../src/document/index.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

describe('what is played next', () => {
  it('is every measure that follows in some pass, and none after the last', () => {
    const { measures } = tuneOfMusic('|:C4|D4|1E4:|2F4|G4|]')
    const next = playedNext(unfold(measures))
    expect([0, 1, 2, 3, 4].map((m) => next.get(m))).toEqual([[1], [2, 3], [0], [4], []])
  })

  /** Traditional tunes, long out of copyright, from memory. */
  it('agrees with the played order, step by step', () => {
    for (const { measures } of CORPUS) {
      const unfolded = unfold(measures)
      const next = playedNext(unfolded)
      unfolded.order.forEach((o, i) => {
        const after = unfolded.order[i + 1]
        if (after) expect(next.get(o.measure)).toContain(after.measure)
      })
      const steps = [...next.values()].reduce((s, all) => s + all.length, 0)
      expect(steps).toBeLessThan(unfolded.order.length)
    }
  })
})
