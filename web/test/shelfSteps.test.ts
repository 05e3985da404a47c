import './support.ts'
import '../src/texts/i18n.ts'
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { db } from '../src/state/db.ts'
import { addTunes, binTune, duplicateTune } from '../src/state/shelf.ts'
import { noteShelfStep, removeTune, renameTune, undoShelfStep } from '../src/state/shelfSteps.ts'
import { tuneOf } from './support.ts'

/** What stands on the shelf and what lies in the bin, by id and title. */
async function shelf() {
  const rows = await db.shelf.orderBy('id').toArray()
  const shown = (binned: boolean) =>
    rows.filter((r) => (r.removedAt !== undefined) === binned).map((r) => `${r.id} ${r.title}`)
  return { on: shown(false), bin: shown(true) }
}

const undoAll = async () => {
  while (await undoShelfStep());
}

beforeEach(async () => {
  await undoAll()
  await Promise.all(db.tables.map((t) => t.clear()))
  await addTunes([tuneOf('CDEF|G4|]', 'a'), tuneOf('EDCD|C4|]', 'b')])
})

describe('undo on the shelf', () => {
  it('puts a removed tune back, with its name and place', async () => {
    const before = await shelf()
    await removeTune('a', 'Gate Latch')
    expect((await shelf()).bin).toEqual(['a Gate Latch'])
    expect(await undoShelfStep()).toEqual({ kind: 'remove', id: 'a', title: 'Gate Latch' })
    expect(await shelf()).toEqual(before)
  })

  it('gives a tune its old name again, in the tune itself too', async () => {
    await renameTune('a', 'Gate Latch', 'Hinge')
    expect((await db.tunes.get('a'))!.title).toBe('Hinge')
    await undoShelfStep()
    expect((await db.tunes.get('a'))!.title).toBe('Gate Latch')
    expect((await db.shelf.get('a'))!.title).toBe('Gate Latch')
  })

  it('notes no step where a name stays as it is', async () => {
    await renameTune('a', 'Gate Latch', 'Gate Latch')
    expect(await undoShelfStep()).toBeUndefined()
  })

  it('puts a copy, and what came in, in the bin: nothing is lost by an undo', async () => {
    const copy = await duplicateTune('a', 'Gate Latch (copy)')
    noteShelfStep({ kind: 'duplicate', id: copy!, title: 'Gate Latch' })
    await addTunes([tuneOf('C4|]', 'c'), tuneOf('D4|]', 'd')])
    noteShelfStep({ kind: 'add', ids: ['c', 'd'], title: 'Gate Latch' })
    await undoShelfStep()
    expect((await shelf()).bin).toEqual(['c Gate Latch', 'd Gate Latch'])
    await undoShelfStep()
    expect((await shelf()).bin).toContain(`${copy} Gate Latch (copy)`)
    expect(await db.tunes.count()).toBe(5)
  })

  it('brings the shelf back step by step, whatever was done in whatever order', async () => {
    const step = fc.constantFrom('remove a', 'remove b', 'rename a', 'rename b', 'copy a')
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 8 }), async (steps) => {
        await Promise.all(db.tables.map((t) => t.clear()))
        await addTunes([tuneOf('CDEF|G4|]', 'a'), tuneOf('EDCD|C4|]', 'b')])
        const states = [await shelf()]
        let n = 0
        for (const s of steps) {
          const [what, id] = s.split(' ') as [string, string]
          const row = (await db.shelf.get(id))!
          if (what === 'remove') {
            if (row.removedAt !== undefined) continue
            await removeTune(id, row.title)
          } else if (what === 'rename') await renameTune(id, row.title, `Name ${++n}`)
          else {
            const copy = (await duplicateTune(id, `Copy ${++n}`))!
            noteShelfStep({ kind: 'duplicate', id: copy, title: row.title })
          }
          states.push(await shelf())
        }
        for (const state of states.toReversed().slice(1)) {
          await undoShelfStep()
          // Copies that were undone lie in the bin; what stands on the shelf is as it was.
          expect((await shelf()).on).toEqual(state.on)
        }
        expect(await undoShelfStep()).toBeUndefined()
      }),
      { numRuns: 25 },
    )
  })

  it('does nothing to a tune that was deleted for good meanwhile', async () => {
    await removeTune('a', 'Gate Latch')
    await db.shelf.delete('a')
    await undoShelfStep()
    expect((await shelf()).on).toEqual(['b Gate Latch'])
    await binTune('b')
  })
})
