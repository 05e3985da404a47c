import type { Score } from '@velvet-porch/core/document'
import { applyEdit } from '@velvet-porch/core/edit'
import { arrangementFor, tuneOf } from './support.ts'
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { db } from '../src/state/db.ts'
import { change, changeScore, goTo, historyOf, labelsOf, openingOf, step } from '../src/state/documents.ts'
import {
  BIN_DAYS,
  addTunes,
  arrangementId,
  duplicateTune,
  putBack,
  binTune,
  sweep,
} from '../src/state/shelf.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|]')

beforeEach(async () => {
  await Promise.all([db.shelf.clear(), db.tunes.clear(), db.arrangements.clear(), db.history.clear()])
  await addTunes([tune])
})

const retitle = (title: string) => change('tune', tune.id, `to ${title}`, (d) => void (d.title = title))

describe('documents in the store', () => {
  it('a change writes document, shelf and history together, and raises the revision', async () => {
    expect(await retitle('Hinge')).toBe(true)
    expect(await db.tunes.get(tune.id)).toMatchObject({ title: 'Hinge', rev: 2 })
    expect(await db.shelf.get(tune.id)).toMatchObject({ title: 'Hinge' })
    expect(await labelsOf(tune.id)).toEqual({ undo: 'to Hinge' })
  })

  it('a change that fails leaves nothing behind', async () => {
    await expect(
      change('tune', tune.id, 'bad', (d) => {
        d.title = 'half done'
        throw new Error('no')
      }),
    ).rejects.toThrow('no')
    expect((await db.tunes.get(tune.id))!.title).toBe('Gate Latch')
    expect(await db.history.count()).toBe(0)
  })

  it('a change of nothing, or of a document that is gone, is no step', async () => {
    expect(await retitle('Gate Latch')).toBe(false)
    expect(await change('tune', 'nobody', 'x', (d) => void (d.title = 'y'))).toBe(false)
    expect(await labelsOf(tune.id)).toEqual({})
  })

  it('undo and redo walk any history, and a new change forgets what was undone', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('a', 'b', 'undo', 'redo'), { maxLength: 14 }),
        async (moves) => {
          await Promise.all([db.tunes.clear(), db.shelf.clear(), db.history.clear()])
          await addTunes([tune])
          const past = ['Gate Latch']
          let future: string[] = []
          for (const [i, move] of moves.entries()) {
            if (move === 'undo' || move === 'redo') {
              const done = await step(tune.id, move)
              const possible = move === 'undo' ? past.length > 1 : future.length > 0
              expect(done !== undefined).toBe(possible)
              if (!possible) continue
              if (move === 'undo') future = [past.pop()!, ...future]
              else past.push(future.shift()!)
            } else {
              await retitle(`${move}${i}`)
              past.push(`${move}${i}`)
              future = []
            }
            expect((await db.tunes.get(tune.id))!.title).toBe(past.at(-1))
            expect((await db.shelf.get(tune.id))!.title).toBe(past.at(-1))
          }
        },
      ),
      { numRuns: 25, seed: 4 },
    )
  })

  it('a tune and its arrangement have one history, other tunes have theirs', async () => {
    const other = { ...tune, id: 'other' }
    await addTunes([other])
    await db.arrangements.put(arrangementFor(tune))
    await retitle('Hinge')
    await change('tune', 'other', 'elsewhere', (d) => void (d.title = 'Elsewhere'))
    await change('arrangement', arrangementId(tune.id), 'rename', (d) => void (d.name = 'Easy'))
    expect(await labelsOf(tune.id)).toEqual({ undo: 'rename' })
    await step(tune.id, 'undo')
    expect((await db.arrangements.get(arrangementId(tune.id)))!.name).toBe('Gate Latch')
    expect(await labelsOf(tune.id)).toEqual({ undo: 'to Hinge', redo: 'rename' })
    await step(tune.id, 'undo')
    expect((await db.tunes.get(tune.id))!.title).toBe('Gate Latch')
    expect((await db.tunes.get('other'))!.title).toBe('Elsewhere')
    expect(await labelsOf('other')).toEqual({ undo: 'elsewhere' })
  })

  it('an edit of the score changes both documents in one step, and both come back in one', async () => {
    await db.arrangements.put(arrangementFor(tune))
    const opening = {
      tune: await db.tunes.get(tune.id),
      tab: await db.arrangements.get(arrangementId(tune.id)),
    }
    const insert = (count: number) => (score: Score) => {
      const edited = applyEdit(score, { do: 'insert', before: 1, count })
      return edited.ok ? edited.score : undefined
    }
    expect(await changeScore(tune.id, 'two more', insert(2))).toBe(true)
    expect(await changeScore(tune.id, 'impossible', insert(0))).toBe(false)
    expect((await db.tunes.get(tune.id))!.measures).toHaveLength(5)
    expect((await db.arrangements.get(arrangementId(tune.id)))!.regions.at(-1)!.to).toBe(
      opening.tune!.measures.at(-1)!.id,
    )
    expect((await historyOf(tune.id)).map((s) => s.label)).toEqual(['two more'])
    await changeScore(tune.id, 'one more', insert(1))
    await goTo(tune.id, 0)
    const plain = <T extends { rev: number }>(doc: T | undefined) => ({ ...doc, rev: 0 })
    expect(plain(await db.tunes.get(tune.id))).toEqual(plain(opening.tune))
    expect(plain(await db.arrangements.get(arrangementId(tune.id)))).toEqual(plain(opening.tab))
    await goTo(tune.id, 2)
    expect((await db.tunes.get(tune.id))!.measures).toHaveLength(6)
    expect((await historyOf(tune.id)).map((s) => s.undone)).toEqual([false, false])
  })
})

describe('the shelf', () => {
  it('tunes arrive all or none', async () => {
    const other = { ...tune, id: 'other' }
    await expect(addTunes([other, tune])).rejects.toThrow()
    expect(await db.tunes.get('other')).toBeUndefined()
  })

  it('a copy has its arrangement and lives its own life', async () => {
    await db.arrangements.put(arrangementFor(tune))
    const copy = (await duplicateTune(tune.id, 'Copy'))!
    expect(await db.arrangements.get(arrangementId(copy))).toMatchObject({ tuneId: copy })
    await change('tune', copy, 'x', (d) => void (d.title = 'Changed'))
    expect((await db.tunes.get(tune.id))!.title).toBe('Gate Latch')
    expect(await duplicateTune('nobody', 'x')).toBeUndefined()
  })

  it('what is removed can be put back, and is swept with all its parts after thirty days of use', async () => {
    await db.arrangements.put(arrangementFor(tune))
    await retitle('Hinge')
    await binTune(tune.id)
    await sweep()
    expect(await db.tunes.get(tune.id)).toBeDefined()
    await putBack(tune.id)
    expect((await db.shelf.get(tune.id))!.removedAt).toBeUndefined()
    await binTune(tune.id)
    const today = (await db.shelf.get(tune.id))!.removedOnDay!
    await db.shelf.update(tune.id, { removedOnDay: today - BIN_DAYS + 1 })
    await sweep()
    expect(await db.tunes.get(tune.id)).toBeDefined()
    await db.shelf.update(tune.id, { removedOnDay: today - BIN_DAYS })
    await sweep()
    expect([
      await db.shelf.count(),
      await db.tunes.count(),
      await db.arrangements.count(),
      await db.history.count(),
    ]).toEqual([0, 0, 0, 0])
  })

  it('a change to a removed tune does not bring it back by itself', async () => {
    await binTune(tune.id)
    await retitle('Hinge')
    expect((await db.shelf.get(tune.id))!.removedAt).toBeDefined()
  })

  it('the opening of a tune is what came in, whatever was changed, taken back and brought again', async () => {
    for (const title of ['Hinge', 'Latch', 'Sill']) await retitle(title)
    await step(tune.id, 'undo')
    await changeScore(tune.id, 'insert', (score) => {
      const edited = applyEdit(score, { do: 'insert', before: 1, count: 2 })
      return edited.ok ? edited.score : undefined
    })
    expect({ ...(await openingOf(tune.id))!, rev: tune.rev }).toEqual(tune)
    expect((await db.tunes.get(tune.id))!.title).toBe('Latch')
    expect(await openingOf('nobody')).toBeUndefined()
  })
})
