import fc from 'fast-check'
import { expect, it } from 'vitest'
import { between } from '../../../src/document/form/between.ts'
import { ticksAt, timelineOf } from '../../../src/document/form/timeline.ts'

const MEASURES = [0, 1, 2, 3].map((i) => ({ id: `m${i}`, length: 480 }))

const item = fc.record({
  pos: fc.record({
    measure: fc.constantFrom(...MEASURES.map((m) => m.id)),
    tick: fc.integer({ min: 0, max: 479 }),
  }),
  name: fc.nat(9),
})

it('what stands in a stretch is what looking at every item finds, in the order of time', () => {
  const timeline = timelineOf(MEASURES)
  const tick = fc.integer({ min: -10, max: 2000 })
  fc.assert(
    fc.property(fc.array(item, { maxLength: 40 }), fc.array(fc.tuple(tick, tick)), (items, stretches) => {
      for (const [from, to] of stretches) {
        const all = items.filter((i) => {
          const at = ticksAt(timeline, i.pos)
          return at >= from && at < to
        })
        const inTime = [...all].sort((a, b) => ticksAt(timeline, a.pos) - ticksAt(timeline, b.pos))
        expect(between(items, timeline, from, to)).toEqual(inTime)
      }
    }),
  )
})

it('goes by the measures that it is asked about, though it was asked about others before', () => {
  const items = [{ pos: { measure: 'm1', tick: 0 } }]
  expect(between(items, timelineOf(MEASURES), 480, 481)).toHaveLength(1)
  const longer = timelineOf(MEASURES.map((m) => ({ ...m, length: 960 })))
  expect(between(items, longer, 480, 481)).toHaveLength(0)
  expect(between(items, longer, 960, 961)).toHaveLength(1)
})
