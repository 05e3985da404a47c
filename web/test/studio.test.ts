import 'fake-indexeddb/auto'
import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import { isFresh } from '@velvet-porch/core/document'
import { readBackup } from '@velvet-porch/core/schema'
import { daysAfter } from '@velvet-porch/core/studio'
import { beforeEach, describe, expect, it } from 'vitest'
import { bringDemoStudio } from '../src/features/shelf/demo/demoStudio.ts'
import { DEMO_STUDENTS } from '../src/features/shelf/demo/demoStudents.ts'
import { everything, restore } from '../src/state/backup.ts'
import { db, TABLES_VERSION } from '../src/state/db.ts'
import { studentOfLog } from '../src/state/logs.ts'
import { addScore } from '../src/state/shelf.ts'
import {
  addStudent,
  changeEntry,
  eraseStudent,
  keepAssignment,
  keepLesson,
  keepSet,
  changeAssignment,
  changeSet,
  changeStudent,
} from '../src/state/studio.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|]')
const TODAY = '2026-03-02'
const stored = async () =>
  Object.fromEntries(await Promise.all(db.tables.map(async (t) => [t.name, await t.toArray()] as const)))

beforeEach(async () => {
  await Promise.all(db.tables.map((t) => t.clear()))
  await addScore({ tune, arrangement: arrangementFor(tune) })
})

describe('a student', () => {
  it('has a hand and a record of one id', async () => {
    const id = await addStudent('Wren')
    expect((await db.players.get(id))!.name).toBe('Wren')
    expect(await db.students.get(id)).toMatchObject({ id, instrument: 'guitar', minutesADay: 15 })
  })

  it('cannot be kept with what makes no sense, and what was kept stays', async () => {
    const id = await addStudent('Wren')
    const record = (await db.students.get(id))!
    await expect(changeStudent(id, { minutesADay: -5 })).rejects.toThrow(/minutesADay/)
    await expect(changeStudent(id, { since: '2026-02-30' })).rejects.toThrow(/since/)
    expect(await db.students.get(id)).toEqual(record)
  })

  it('is erased whole: no table has the id or the name any more, and others keep theirs', async () => {
    const wren = await addStudent('Wren Tallow')
    const ansel = await addStudent('Ansel Pike')
    for (const studentId of [wren, ansel]) {
      await keepAssignment({ id: `a ${studentId}`, studentId, tuneId: tune.id, given: TODAY })
      await keepLesson({
        ...{ id: `l ${studentId}`, studentId, day: TODAY, time: '16:00', minutes: 45, state: 'held' },
        ...{ done: 'x', next: 'y', notes: '' },
      })
      await db.logs.put({ id: `${tune.id} ${studentId}`, tuneId: tune.id, readAt: 1, entries: [] })
    }
    await changeEntry(tune.id, { requests: [{ by: 'Wren Tallow', day: TODAY }] })
    const measured = arrangementFor(tune)
    const own = { ...DEFAULT_PLAYER, name: 'Wren Tallow' }
    await db.arrangements.put({ ...measured, id: 'v', setup: { ...measured.setup, player: own } })
    await eraseStudent(wren)
    const left = JSON.stringify(await stored())
    expect(left).not.toContain(wren)
    expect(left).not.toContain('Wren')
    expect(left).toContain(ansel)
    expect(await db.lessons.count()).toBe(1)
  })

  it('who is erased takes no tab along, nor makes one stale', async () => {
    const id = await addStudent('Wren')
    const { madeFresh } = await import('@velvet-porch/core/document')
    const doc = arrangementFor(tune)
    const own = madeFresh(tune, {
      ...doc,
      setup: { ...doc.setup, player: { ...DEFAULT_PLAYER, name: 'Wren' } },
    })
    await db.arrangements.put(own)
    await eraseStudent(id)
    const after = (await db.arrangements.get(own.id))!
    expect(after.setup.player.name).toBe('')
    expect(isFresh(tune, after)).toBe(true)
  })
})

describe('records', () => {
  it('take two changes in one breath, and keep both', async () => {
    const id = await addStudent('Wren')
    await Promise.all([changeStudent(id, { minutesADay: 20 }), changeStudent(id, { goals: 'Waltzes' })])
    expect(await db.students.get(id)).toMatchObject({ minutesADay: 20, goals: 'Waltzes' })
    await keepAssignment({ id: 'a', studentId: id, tuneId: tune.id, given: TODAY })
    await Promise.all([
      changeAssignment('a', (now) => ({ ...now, due: TODAY })),
      changeAssignment('a', (now) => ({ ...now, learnt: TODAY })),
    ])
    expect(await db.assignments.get('a')).toMatchObject({ due: TODAY, learnt: TODAY })
    await keepSet({ id: 'gig', name: 'Porch', items: [{ tuneId: 'one' }, { tuneId: 'two' }] })
    await Promise.all([
      changeSet('gig', (now) => ({ ...now, last: 'one' })),
      changeSet('gig', (now) => ({ ...now, items: now.items.toReversed() })),
    ])
    expect(await db.sets.get('gig')).toMatchObject({
      last: 'one',
      items: [{ tuneId: 'two' }, { tuneId: 'one' }],
    })
    // What is gone is not made again by a change that came late.
    await db.sets.delete('gig')
    await changeSet('gig', (now) => ({ ...now, name: 'Late' }))
    expect(await db.sets.count()).toBe(0)
  })

  it('are refused with the place that is wrong', async () => {
    await expect(
      keepAssignment({ id: 'a', studentId: 's', tuneId: 't', given: TODAY, due: 'soon' }),
    ).rejects.toThrow(/due/)
    await expect(keepSet({ id: 's', name: 'x'.repeat(300), items: [] })).rejects.toThrow(/name/)
    await expect(changeEntry(tune.id, { tags: [''] })).rejects.toThrow(/tags/)
    expect(await db.repertoire.count()).toBe(0)
  })

  it('come back whole from one file with everything', async () => {
    await bringDemoStudio(new Map([["Lamplighter's Round", tune.id]]), TODAY)
    await changeEntry(tune.id, { status: 'teaching', tags: ['porch'] })
    const before = await stored()
    const file = readBackup(JSON.parse((await everything()).text), TABLES_VERSION)
    await Promise.all(db.tables.map((t) => t.clear()))
    await restore(file, 'replace')
    expect(await stored()).toEqual(before)
  })

  it('that are not here are added from a file, those that are here stay', async () => {
    const id = await addStudent('Wren')
    await keepSet({ id: 'gig', name: 'Porch', items: [] })
    const file = readBackup(JSON.parse((await everything()).text), TABLES_VERSION)
    await db.sets.clear()
    await changeStudent(id, { goals: 'mine' })
    await restore(file, 'add')
    expect(await db.sets.count()).toBe(1)
    expect((await db.students.get(id))!.goals).toBe('mine')
  })
})

describe('the studio of the demo', () => {
  const ids = new Map([
    ["Lamplighter's Round", 'lamp'],
    ['The Ferry at Dusk', 'ferry'],
    ['Two Chairs', 'chairs'],
  ])

  it('has three students of different hands, months of practice up to now, lessons before and after today', async () => {
    await bringDemoStudio(ids, TODAY)
    const hands = await db.players.toArray()
    expect(hands).toHaveLength(3)
    expect(new Set(hands.map((h) => h.spans['14'])).size).toBe(3)
    const entries = (await db.logs.toArray()).flatMap((row) => row.entries)
    const days = entries.map((e) => e.day).sort()
    expect(days[0]! < daysAfter(TODAY, -90)).toBe(true)
    expect(days.at(-1)! <= TODAY).toBe(true)
    const lessons = await db.lessons.toArray()
    expect(lessons.filter((l) => l.state === 'planned').every((l) => l.day >= TODAY)).toBe(true)
    expect(lessons.filter((l) => l.state === 'held').every((l) => l.day < TODAY)).toBe(true)
    for (const row of await db.logs.toArray()) expect(hands.map((h) => h.id)).toContain(studentOfLog(row))
  })

  it('stays away where anybody is on record', async () => {
    await addStudent('Mine')
    await bringDemoStudio(ids, TODAY)
    expect(await db.players.count()).toBe(1)
    expect(DEMO_STUDENTS.map((s) => s.hand.name)).not.toContain('Mine')
  })
})
