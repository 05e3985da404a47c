import 'fake-indexeddb/auto'
import { applyEdit } from '@velvet-porch/core/edit'
import { readBackup, readTuneFile, SchemaError } from '@velvet-porch/core/schema'
import { beforeEach, describe, expect, it } from 'vitest'
import { everything, restore, takeTuneFile, tuneFile } from '../src/state/backup.ts'
import { db, TABLES_VERSION } from '../src/state/db.ts'
import { change, changeScore, historyOf, step } from '../src/state/documents.ts'
import { addScore, addTunes, arrangementId } from '../src/state/shelf.ts'
import { addStudent, changeEntry, keepAssignment, keepSet } from '../src/state/studio.ts'
import { keepVersion, versionsOf } from '../src/state/versions.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|]', 'own')
const other = tuneOf('GABc|d4|]', 'other')

const stored = async () =>
  Object.fromEntries(await Promise.all(db.tables.map(async (t) => [t.name, await t.toArray()] as const)))
const clear = () => Promise.all(db.tables.map((t) => t.clear()))
const backup = async () => readBackup(JSON.parse((await everything()).text), TABLES_VERSION)

/** A shelf with something in every table. */
beforeEach(async () => {
  await clear()
  await addScore({ tune, arrangement: arrangementFor(tune) })
  await addTunes([other])
  await keepVersion(tune.id, 'easy')
  await changeScore(tune.id, 'insert', (score) => {
    const edited = applyEdit(score, { do: 'insert', before: 1, count: 1 })
    return edited.ok ? edited.score : undefined
  })
  await db.players.put({ id: 'p', name: 'Small hand' } as never)
  await db.patterns.put({ id: 'q', name: 'Mine' } as never)
  await db.handouts.put({ id: tune.id } as never)
  await db.teaching.put({ id: tune.id, notes: { a: 'slowly' } })
  await db.logs.put({ id: tune.id, tuneId: tune.id, readAt: 1, entries: [] })
  await db.drafts.put({ id: tune.id, text: 'half a', rev: 2, ancestors: ['1.a'], at: 5 })
  await db.meta.put({ id: 'days', day: '2026-1-1', count: 3 })
  const id = await addStudent('Wren')
  await keepAssignment({ id: 'a', studentId: id, tuneId: tune.id, given: '2026-01-01' })
  await keepSet({ id: 'gig', name: 'Porch', items: [{ tuneId: tune.id }] })
  await changeEntry(tune.id, { status: 'teaching' })
})

describe('one file with everything', () => {
  it('brings a wiped browser back whole, history included', async () => {
    const before = await stored()
    const file = await backup()
    await clear()
    expect(await restore(file, 'replace')).toEqual({ added: 2, kept: 0 })
    expect(await stored()).toEqual(before)
    await step(tune.id, 'undo')
    expect((await db.tunes.get(tune.id))!.measures).toHaveLength(3)
  })

  it('adds what is missing and leaves what is here as it is', async () => {
    const file = await backup()
    await change('tune', tune.id, 'to Hinge', (d) => void (d.title = 'Hinge'))
    await db.transaction('rw', db.tunes, db.shelf, async () => {
      await db.tunes.delete(other.id)
      await db.shelf.delete(other.id)
    })
    const mine = await historyOf(tune.id)
    expect(await restore(file, 'add')).toEqual({ added: 1, kept: 1 })
    expect((await db.tunes.get(tune.id))!.title).toBe('Hinge')
    expect(await historyOf(tune.id)).toEqual(mine)
    expect(await db.tunes.get(other.id)).toEqual(other)
  })

  it('is all or nothing: a file that breaks on the way changes nothing', async () => {
    const before = await stored()
    const file = await backup()
    const broken = { ...file, rows: { ...file.rows, shelf: [...file.rows.shelf, { title: 'no id' }] } }
    await expect(restore(broken, 'replace')).rejects.toThrow()
    expect(await stored()).toEqual(before)
  })

  it.each([
    ['nothing', null],
    ['another program’s file', { format: 'x' }],
    ['a list', []],
  ])('refuses %s with a word', (_, value) => {
    expect(() => readBackup(value, TABLES_VERSION)).toThrow(SchemaError)
  })

  it('refuses what a newer version saved, and says so', async () => {
    const file = JSON.parse((await everything()).text) as Record<string, unknown>
    expect(() => readBackup({ ...file, tables: TABLES_VERSION + 1 }, TABLES_VERSION)).toThrow(/newer version/)
  })

  it('keeps a tune that cannot be read, as it is', async () => {
    await db.tunes.put({ id: 'broken', measures: 'none' } as never)
    const file = await backup()
    await clear()
    await restore(file, 'replace')
    expect(await db.tunes.get('broken')).toEqual({ id: 'broken', measures: 'none' })
  })
})

describe('a tune with its arrangements as a file', () => {
  it('comes in beside the one that is there, under ids of its own, the same else', async () => {
    const { name, text } = (await tuneFile(tune.id))!
    expect(name).toBe('Gate Latch.json')
    const id = await takeTuneFile(readTuneFile(JSON.parse(text)))
    expect(id).not.toBe(tune.id)
    const [now, before] = [await db.tunes.get(id), await db.tunes.get(tune.id)]
    expect({ ...now, id: '' }).toEqual({ ...before, id: '' })
    const tab = (await db.arrangements.get(arrangementId(id)))!
    expect(tab.base).toEqual((await db.arrangements.get(arrangementId(tune.id)))!.base)
    expect((await versionsOf(id)).map((v) => v.name)).toEqual(['easy'])
  })

  it('refuses a tab that stands in measures that its tune does not have', async () => {
    const file = JSON.parse((await tuneFile(tune.id))!.text) as {
      arrangements: { base: { notes: { pos: { measure: string } }[] } }[]
    }
    file.arrangements[0]!.base.notes[0]!.pos.measure = 'nowhere'
    expect(() => readTuneFile(file)).toThrow(/no measure "nowhere"/)
  })

  it('is nothing where there is no such tune', async () => {
    expect(await tuneFile('nobody')).toBeUndefined()
  })
})
