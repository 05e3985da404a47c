import { arrangementFor, tuneOf } from './support.ts'
import { beforeEach, describe, expect, it } from 'vitest'
import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import { lessonSettingsFrom, USUAL_LESSON, type PracticeLog } from '@velvet-porch/core/lesson'
import { usualHandout } from '@velvet-porch/core/output/handout'
import { db } from '../src/state/db.ts'
import { keepHandout } from '../src/state/handouts.ts'
import { savePlayer } from '../src/state/players.ts'
import { BIN_DAYS, addScore, binTune, sweep } from '../src/state/shelf.ts'
import { asLogOf, keepLog, lookAtLog } from '../src/state/logs.ts'
import { keepPieceNote } from '../src/state/teaching.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|]')
const log: PracticeLog = {
  format: 'velvet-porch-practice-log',
  version: 1,
  tune: tune.id,
  title: tune.title,
  entries: [{ day: '2026-11-26', piece: 1, bpm: 72, clean: 3, minutes: 10, note: 'better' }],
}

/** Reads a log and keeps it; says whose it was taken for. */
async function takeLog(text: string, student: string) {
  const returned = await lookAtLog('log.json', text, student)
  await keepLog(returned, 'here')
  return returned.student
}

beforeEach(async () => {
  await Promise.all(db.tables.map((t) => t.clear()))
  await addScore({ tune, arrangement: arrangementFor(tune) })
})

describe('a teacher’s words to pieces', () => {
  it('are kept piece by piece; an empty one is taken off', async () => {
    await keepPieceNote(tune.id, 'm1.0', 'Soft thumb.')
    await keepPieceNote(tune.id, 'm2.0', 'Count aloud.')
    expect((await db.teaching.get(tune.id))!.notes).toEqual({ 'm1.0': 'Soft thumb.', 'm2.0': 'Count aloud.' })
    await keepPieceNote(tune.id, 'm1.0', '  ')
    expect((await db.teaching.get(tune.id))!.notes).toEqual({ 'm2.0': 'Count aloud.' })
  })

  it('typed at once in two pieces, none is lost', async () => {
    await Promise.all(['a', 'b', 'c', 'd'].map((p) => keepPieceNote(tune.id, p, p)))
    expect(Object.keys((await db.teaching.get(tune.id))!.notes).sort()).toEqual(['a', 'b', 'c', 'd'])
  })
})

describe('a student’s log', () => {
  it('is read and kept with its tune; a later one goes on from it', async () => {
    await takeLog(JSON.stringify(log), '')
    const later = { ...log, entries: [...log.entries, { ...log.entries[0]!, day: '2026-11-27', bpm: 80 }] }
    await takeLog(JSON.stringify(later), '')
    expect(await db.logs.toArray()).toMatchObject([{ tuneId: tune.id, entries: later.entries }])
  })

  it('belongs to the student who is taught, or to the one that it names; each has a log of their own', async () => {
    await savePlayer({ ...DEFAULT_PLAYER, id: 'wren', name: 'Wren' })
    await savePlayer({ ...DEFAULT_PLAYER, id: 'odile', name: 'Odile' })
    const named = (student: string, bpm: number) =>
      JSON.stringify({ ...log, student, unit: 'measure', entries: [{ ...log.entries[0]!, bpm }] })
    expect(await takeLog(JSON.stringify(log), 'odile')).toBe('odile')
    expect(await takeLog(named('wren', 90), 'odile')).toBe('wren')
    // Somebody who was taken off the list: it is whose lesson it is.
    expect(await takeLog(named('gone', 50), '')).toBe('')
    const kept = await db.logs.where('tuneId').equals(tune.id).toArray()
    const tempos = kept.map((row) => row.entries[0]!.bpm)
    expect(tempos.sort((a, b) => a - b)).toEqual([50, 72, 90])
    expect(kept.filter((row) => row.unit === 'measure')).toHaveLength(2)
  })

  it('that tells a day differently is kept as somebody has chosen', async () => {
    const first = log.entries[0]!
    const told = JSON.stringify({
      ...log,
      entries: [
        { ...first, bpm: 90 },
        { ...first, piece: 2 },
      ],
    })
    await takeLog(JSON.stringify(log), '')
    const returned = await lookAtLog('again.json', told, '')
    expect(returned.merged!.conflicts).toHaveLength(1)
    const tempos = async () => (await db.logs.get(tune.id))!.entries.map((e) => [e.piece, e.bpm])
    await keepLog(returned, 'here')
    expect(await tempos()).toEqual([
      [1, 72],
      [2, 72],
    ])
    await keepLog(returned, 'there')
    expect(await tempos()).toEqual([
      [1, 90],
      [2, 72],
    ])
  })

  it('of other pieces does not mix with the one that is kept, which is laid aside', async () => {
    await takeLog(JSON.stringify(log), '')
    const byMeasure = { ...log, unit: 'measure', entries: [{ ...log.entries[0]!, piece: 3, bpm: 99 }] }
    const returned = await lookAtLog('m.json', JSON.stringify(byMeasure), '')
    expect(returned.otherPieces).toBe(true)
    await keepLog(returned, 'there')
    expect((await db.logs.get(tune.id))!.entries).toEqual(byMeasure.entries)
    expect((await db.logs.toArray()).flatMap((row) => row.entries)).toContainEqual(log.entries[0])
  })

  it('of nobody who is known waits until somebody says whose it is', async () => {
    await savePlayer({ ...DEFAULT_PLAYER, id: 'wren', name: 'Wren' })
    const returned = await lookAtLog('log.json', JSON.stringify({ ...log, student: 'gone' }))
    expect(returned.student).toBeUndefined()
    await expect(keepLog(returned, 'here')).rejects.toThrow('whose')
    expect((await asLogOf(returned, 'wren')).merged!.added).toEqual(log.entries)
  })

  it.each([
    ['no JSON', 'rubbish', /not a practice log/],
    ['another file', '{"format":"tab"}', /not a practice log/],
    ['another tune’s', JSON.stringify({ ...log, tune: 'other', title: 'Heron' }), /belongs to “Heron”/],
    [
      'a wrong entry',
      JSON.stringify({ ...log, entries: [{ ...log.entries[0], bpm: -1 }] }),
      /entries\[0\].bpm/,
    ],
  ])('%s is refused with the reason, and what was kept stays', async (_, text, reason) => {
    await takeLog(JSON.stringify(log), '')
    await expect(takeLog(text, '')).rejects.toThrow(reason)
    expect((await db.logs.get(tune.id))!.entries).toEqual(log.entries)
  })
})

describe('a handout', () => {
  it('is kept as it is, and nothing wrong takes its place', async () => {
    const handout = { ...usualHandout(tune.id), large: true }
    await keepHandout(handout)
    await expect(keepHandout({ ...handout, paper: 'a9' as 'a4' })).rejects.toThrow(/paper/)
    expect(await db.handouts.get(tune.id)).toEqual(handout)
  })

  it('goes with its tune, and so do notes and log', async () => {
    await keepHandout(usualHandout(tune.id))
    await keepPieceNote(tune.id, 'a', 'x')
    await takeLog(JSON.stringify(log), '')
    await takeLog(JSON.stringify(log), 'wren')
    await binTune(tune.id)
    await db.shelf.update(tune.id, { removedOnDay: -BIN_DAYS })
    await sweep()
    for (const table of [db.handouts, db.teaching, db.logs]) expect(await table.count()).toBe(0)
  })
})

describe('settings of lessons', () => {
  it('are taken as kept, the usual ones where something is missing or no longer known', () => {
    expect(lessonSettingsFrom(undefined)).toEqual(USUAL_LESSON)
    expect(lessonSettingsFrom({ unit: 'galaxy', minutes: 9000, way: { clean: 5, tries: 'x' } })).toEqual({
      ...USUAL_LESSON,
      way: { ...USUAL_LESSON.way, clean: 5 },
    })
    const own = {
      ...USUAL_LESSON,
      unit: 'lick',
      names: 'german',
      speech: { language: 'fil', length: 'short', fingers: 'numbers' },
    } as const
    expect(lessonSettingsFrom(JSON.parse(JSON.stringify(own)))).toEqual(own)
  })
})
