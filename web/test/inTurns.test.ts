import { describe, expect, it } from 'vitest'
import { inTurns } from '../src/workers/inTurns.ts'

/** Work that takes longer than a slice before it yields. */
function* slowWork(): Generator<number, string> {
  for (let i = 0; i < 3; i++) {
    const until = performance.now() + 15
    while (performance.now() < until);
    yield i
  }
  return 'done'
}

describe('long work in turns', () => {
  it('ends only after its last report was received, however late that is', async () => {
    const order: string[] = []
    const result = await inTurns(slowWork(), {
      onProgress: async (i) => {
        await new Promise((resolve) => setTimeout(resolve, 200))
        order.push(`report ${i}`)
      },
    })
    order.push(result)
    expect(order.length).toBeGreaterThan(1)
    expect(order.at(-1)).toBe('done')
  })

  it('has its result although nobody receives reports any more', async () => {
    await expect(inTurns(slowWork(), { onProgress: () => Promise.reject(new Error('gone')) })).resolves.toBe(
      'done',
    )
  })

  it('is dropped between two turns', async () => {
    await expect(inTurns(slowWork(), { isStopped: () => true })).resolves.toBeUndefined()
  })
})
