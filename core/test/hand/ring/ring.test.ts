import { describe, expect, it } from 'vitest'
import { ticksAt } from '../../../src/document/index.ts'
import { ringOf } from '../../../src/hand/index.ts'
import { arrangeTune, CORPUS } from '../../support/tunes.ts'

describe('how long strings ring', () => {
  it('never past the next note on the string or the end of the page, and always as long as written', () => {
    for (const tune of CORPUS) {
      for (const level of [1, 3] as const) {
        const { layer, plan } = arrangeTune(tune, 'alternating-bass', level)
        const rings = ringOf(layer, plan.timeline)
        const byString = new Map<number, number[]>()
        for (const n of layer.notes) {
          const start = ticksAt(plan.timeline, n.pos)
          byString.set(n.place.string, [...(byString.get(n.place.string) ?? []), start])
        }
        for (const n of layer.notes) {
          const start = ticksAt(plan.timeline, n.pos)
          const ring = rings.get(n.id)!
          const next = Math.min(
            plan.timeline.length,
            ...byString.get(n.place.string)!.filter((s) => s > start),
          )
          expect(start + ring).toBeLessThanOrEqual(next)
          expect(ring).toBeGreaterThanOrEqual(n.dur.ticks)
        }
      }
    }
  })

  it('a fretted note stops with its finger, an open one rings on', () => {
    for (const tune of CORPUS.slice(0, 4)) {
      const { layer, plan } = arrangeTune(tune, 'melody-bass', 1)
      const rings = ringOf(layer, plan.timeline)
      for (const n of layer.notes.filter((x) => x.place.fret > 0)) {
        const end = ticksAt(plan.timeline, n.pos) + rings.get(n.id)!
        const holding = layer.grips.filter((g) => {
          const at = ticksAt(plan.timeline, g.pos)
          return at >= ticksAt(plan.timeline, n.pos) && at < end
        })
        for (const g of holding) {
          expect(
            g.pressed.some(
              (p) => p.string === n.place.string && p.fret === n.place.fret && p.finger === n.left,
            ),
          ).toBe(true)
        }
      }
    }
  })
})
