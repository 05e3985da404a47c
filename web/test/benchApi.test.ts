import { inputHash } from '@velvet-porch/core/document'
import { wholeTune } from '@velvet-porch/core/arrange'
import { DEFAULT_PLAYER, guitarSetup } from '@velvet-porch/core/instrument'
import { describe, expect, it } from 'vitest'
import { benchApi, type ArrangeOrder } from '../src/workers/benchApi.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('"C"cdec|"F"f2"G7"d2|"C"edcB|"C"c4|]')
const orderFor = (level: 1 | 2 | 3): ArrangeOrder => ({
  tune,
  setup: guitarSetup(0),
  regions: wholeTune(tune, 'alternating-bass', level),
  locks: [],
})
let jobs = 0
const arrange = (order: ArrangeOrder, shares: number[] = []) =>
  benchApi.arrange(++jobs, order, (share) => void shares.push(share))

describe('what the worker of the bench can be asked', () => {
  it('reads every tune of a text, each with an id of its own', async () => {
    const text = 'X:1\nT:Gate Latch\nK:C\nCDEF|\n\nX:2\nT:Sill\nK:G\nGABc|\n'
    const readings = await benchApi.read(text)
    expect(readings.map((r) => r.tune?.title)).toEqual(['Gate Latch', 'Sill'])
    expect(new Set(readings.map((r) => r.tune?.id)).size).toBe(2)
  })

  it('arranges, says how far it is, and answers the same order with the same tab', async () => {
    const shares: number[] = []
    const reply = await arrange(orderFor(2), shares)
    expect(reply).toMatchObject({ kind: 'done', idleLocks: [] })
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.at(-1)).toBeLessThanOrEqual(1)
    const again = await arrange(orderFor(2))
    expect(again.kind === 'done' && again.layer).toEqual(reply.kind === 'done' && reply.layer)
  })

  it('is stopped where nobody waits any more', async () => {
    const job = ++jobs
    const reply = benchApi.arrange(job, orderFor(3), () => benchApi.cancel(job))
    expect((await reply).kind).toBe('cancelled')
  })

  it('says why something cannot be arranged, and which locks contradict', async () => {
    const order = orderFor(2)
    const wrong = await arrange({ ...order, regions: wholeTune(tune, 'chord-melody', 1) })
    expect(wrong.kind).toBe('failed')
    expect(wrong.kind === 'failed' && wrong.says.code).toMatch(/^arranging\./)
  })

  it('audits, and finds other ways to play a moment', async () => {
    const doc = arrangementFor(tune)
    expect(benchApi.audit(tune, doc)?.structural).toBe(0)
    const order = { tune, setup: doc.setup, regions: doc.regions, locks: [] }
    const ways = benchApi.alternatives(order, { measure: 0, tick: 0 })
    expect(ways.length).toBeGreaterThan(0)
    for (const way of ways) expect(way.extra).toBeGreaterThanOrEqual(0)
  })

  it('takes what storage holds, refuses what is broken, and knows what is newer', async () => {
    const doc = arrangementFor(tune)
    expect(await benchApi.check(tune, doc)).toEqual({})
    const broken = await benchApi.check({ ...tune, measures: 'none' }, doc)
    expect(broken?.tune).toMatchObject({ newer: false })
    const newer = await benchApi.check(tune, { ...doc, schema: 9999 })
    expect(newer.arrangement).toMatchObject({ newer: true })
    expect(inputHash(tune, doc.setup, doc.regions, [])).toBe(doc.inputHash)
  })

  it('reads text tab with both hands, and says what it could not read', async () => {
    const text = 'e|--0---1-|\nB|--1-----|\nG|--0-----|\nD|--2-----|\nA|--3-----|\nE|--------|\n'
    const order = { player: DEFAULT_PLAYER, title: 'Pasted' }
    const taken = await benchApi.understand(text, order)
    expect(taken.kind).toBe('tab')
    expect(taken.tunes[0]?.arrangement?.base.notes.map((n) => n.left)).toEqual(
      expect.arrayContaining([3, 2, 1]),
    )
    const nothing = await benchApi.understand('no tab here', order)
    expect(nothing.tunes[0]?.tune).toBeUndefined()
    expect(nothing.tunes[0]?.problems[0]?.says.code).toBe('reading.noKind')
  })
})
