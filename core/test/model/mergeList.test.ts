import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { command, mergeList } from '../../src/index.ts'

describe('merging a list', () => {
  it('always ends equal to the fresh list, and undo gives the old one back', () => {
    const items = fc.array(fc.record({ id: fc.nat(6) }), { maxLength: 12 })
    fc.assert(
      fc.property(items, items, (old, fresh) => {
        const made = command({ rev: 1, list: old }, 'c', 'merge', (d) => mergeList(d.list, fresh))
        expect(made?.doc.list ?? old).toEqual(fresh)
      }),
    )
  })

  it('a change of one item is a command of one patch', () => {
    const old = Array.from({ length: 500 }, (_, id) => ({ id, pitch: 60 }))
    const fresh = old.map((x) => (x.id === 250 ? { ...x, pitch: 61 } : x))
    expect(
      command({ rev: 1, list: old }, 'c', 'merge', (d) => mergeList(d.list, fresh))!.command.patches,
    ).toHaveLength(1)
  })
})
