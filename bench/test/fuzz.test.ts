import { describe, expect, it } from 'vitest'
import { fuzz } from '../src/fuzz/run.ts'
import { TARGETS } from '../src/fuzz/targets/index.ts'

/** `npm run fuzz` gives each reader five thousand; the seed is another one there. */
const CASES = 80

describe('every reader, given mutations of good inputs', () => {
  it.each(TARGETS.map((t) => t.name))(
    '%s: no exception, no hang, no later refusal, no silent loss',
    async (name) => {
      const { faults } = await fuzz(name, CASES, 17, 20_000)
      expect(faults.map(({ case: at, kind, what }) => `case ${at}: ${kind}: ${what}`)).toEqual([])
    },
    120_000,
  )
})
