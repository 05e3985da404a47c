import { applyPatches } from 'immer'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { commandTo, difference, redo, undo } from '../../src/document/index.ts'

/** Plain data in the shape of a document: members, members of members, and lists of records. */
const documents = fc.record(
  {
    title: fc.constantFrom('Gate', 'Hinge'),
    base: fc.record({ notes: fc.array(fc.record({ id: fc.nat(6) }), { maxLength: 9 }), hand: fc.nat(2) }),
    list: fc.array(fc.record({ id: fc.nat(6), tie: fc.option(fc.nat(3), { nil: undefined }) }), {
      maxLength: 9,
    }),
  },
  { requiredKeys: ['base'] },
)

/** What would be stored: members that are undefined are absent. */
const stored = (x: unknown) => JSON.parse(JSON.stringify(x)) as unknown

describe('the difference of two states', () => {
  it('leads there and back, whatever changed', () => {
    fc.assert(
      fc.property(documents, documents, (before, after) => {
        const { data, patches, inverse } = difference(before, after)
        expect(stored(data)).toEqual(stored(after))
        expect(stored(applyPatches(before, patches))).toEqual(stored(after))
        expect(stored(applyPatches(data, inverse))).toEqual(stored(before))
        expect(patches.length === 0).toBe(JSON.stringify(stored(data)) === JSON.stringify(stored(before)))
      }),
    )
  })

  it('leaves what did not change as the same objects', () => {
    const before = { list: [{ id: 1 }, { id: 2 }, { id: 3 }], other: [{ id: 4 }] }
    const after = structuredClone(before)
    after.list.splice(1, 0, { id: 9 })
    const { data, patches } = difference(before, after)
    expect(patches).toHaveLength(1)
    expect(data.other).toBe(before.other)
    expect(data.list[0]).toBe(before.list[0])
    expect(data.list[3]).toBe(before.list[2])
  })

  it('a change of one item of a long list is one patch', () => {
    const list = Array.from({ length: 500 }, (_, id) => ({ id, pitch: 60 }))
    const fresh = list.map((x) => (x.id === 250 ? { ...x, pitch: 61 } : x))
    expect(difference({ list }, { list: fresh }).patches).toHaveLength(1)
  })
})

describe('a command that leads to another state', () => {
  it('raises the revision, and so do undo and redo', () => {
    const doc = { rev: 4, title: 'Gate' }
    const made = commandTo(doc, 'c', 'rename', { rev: 1, title: 'Hinge' })!
    expect(made.doc).toEqual({ rev: 5, title: 'Hinge' })
    expect(undo(made.doc, made.command)).toEqual({ rev: 6, title: 'Gate' })
    expect(redo(undo(made.doc, made.command), made.command)).toEqual({ rev: 7, title: 'Hinge' })
  })

  it('is none where nothing changes', () => {
    expect(commandTo({ rev: 4, title: 'Gate' }, 'c', 'x', { rev: 9, title: 'Gate' })).toBeUndefined()
  })
})
