import { describe, expect, it } from 'vitest'
import { fuzz } from '../src/fuzz/run.ts'
import { caseInput, faultsOf } from '../src/fuzz/target.ts'
import { TARGETS } from '../src/fuzz/targets/index.ts'

/** `npm run fuzz` gives each reader five thousand, in a thread that is ended where one hangs; the seed is another one there. */
const CASES = 60

describe('every reader, given mutations of good inputs', () => {
  it.each(TARGETS.map((t) => t.name))(
    '%s: no exception, no hang, no later refusal, no silent loss',
    (name) => {
      const target = TARGETS.find((t) => t.name === name)!
      for (let i = 0; i < CASES; i++)
        expect(faultsOf(target, caseInput(target, 17, i)), `case ${i}`).toEqual([])
    },
    120_000,
  )

  it('runs in a thread of its own the same', async () => {
    const { faults, cases } = await fuzz(TARGETS[0]!.name, 3, 17, 20_000)
    expect({ faults, cases }).toEqual({ faults: [], cases: 3 })
  })
})
