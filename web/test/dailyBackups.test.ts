import {
  backupInZip,
  backupText,
  type PackedRecording,
  readingBackupText,
  recordingsInZip,
  ShelfZipError,
  zippingShelf,
} from '@velvet-porch/core/formats'
import { readAbc } from '@velvet-porch/core/input/abc'
import { applyEdit } from '@velvet-porch/core/edit'
import { readBackup, type Backup } from '@velvet-porch/core/schema'
import { finish } from '@velvet-porch/core/turns'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

// The worker's work, on this thread: for modules of this file's own, as files share theirs.
const WORKER = '../src/workers/benchWorker.ts'
vi.resetModules()
vi.doMock(WORKER, () => ({
  packInWorker: async (text: Blob, recordings: readonly PackedRecording[]) =>
    finish(zippingShelf(new Uint8Array(await text.arrayBuffer()), recordings)),
  unpackInWorker: (zip: Uint8Array) => ({ text: backupInZip(zip), recordings: recordingsInZip(zip) }),
}))
const { asBefore, everythingKept, putBack, restore, restoreChanges } = await import('../src/state/backup.ts')
const { BackupFileError, everythingPacked, openBackup, projectOf } =
  await import('../src/state/backupFile.ts')
const { dailyBackups, keepDailyBackup, keptDays } = await import('../src/state/dailyBackups.ts')
const { db, TABLES_VERSION } = await import('../src/state/db.ts')
const { changeScore } = await import('../src/state/documents.ts')
const { keepRecording, recordingRow } = await import('../src/state/recordings.ts')
const { addTunes } = await import('../src/state/shelf.ts')
const { addStudent } = await import('../src/state/studio.ts')

afterAll(() => {
  vi.doUnmock(WORKER)
  vi.resetModules()
})

/** What a zip with everything says. */
const inZip = (zip: Uint8Array) => finish(readingBackupText(backupInZip(zip)))
const zipOf = (backup: Backup) => finish(zippingShelf(strToU8([...backupText(backup)].join(''))))

const tuneOf = (title: string) =>
  readAbc(`X:1\nT:${title}\nM:4/4\nL:1/4\nK:G\n"G"GABc|"D"d4|]\n`, () => title)[0]!.tune!

beforeEach(async () => {
  for (const table of db.tables) await table.clear()
})
afterEach(() => {
  vi.useRealTimers()
})

describe('everything as a zip', () => {
  it('brings the same back, and holds each tune to be read without the app', async () => {
    await addTunes([tuneOf('Tin Lantern'), tuneOf('Up/Down: "a" tune')])
    const kept = await everythingKept()
    const zip = zipOf(kept)
    expect(readBackup(inZip(zip), TABLES_VERSION)).toEqual(kept)
    const files = unzipSync(zip)
    expect(Object.keys(files).sort()).toEqual([
      'README.txt',
      'everything.json',
      'tunes/Tin Lantern.abc',
      'tunes/Up-Down- -a- tune.abc',
    ])
    expect(strFromU8(files['tunes/Tin Lantern.abc']!)).toContain('T:Tin Lantern')
    for (const table of db.tables) await table.clear()
    await restore(kept, 'replace')
    expect(await everythingKept()).toEqual({ ...kept, madeAt: expect.any(String) as string })
  })

  it('is opened again, with how far the work is; a plain file too, one of nonsense is not', async () => {
    await addTunes(Array.from({ length: 40 }, (_, i) => tuneOf(`Lantern ${i}`)))
    const shares: number[] = []
    const { bytes } = await everythingPacked(false, (share) => shares.push(share))
    expect(shares.length).toBeGreaterThan(1)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    const kept = await everythingKept()
    const same = { ...kept, madeAt: expect.any(String) as string }
    expect((await openBackup(new Blob([bytes]))).backup).toEqual(same)
    expect((await openBackup(new Blob([JSON.stringify(kept)]))).backup).toEqual(same)
    await expect(openBackup(new Blob(['{ half']))).rejects.toThrow(BackupFileError)
    for (const table of db.tables) await table.clear()
    const written: number[] = []
    await restore(kept, 'add', [], (share) => written.push(share))
    expect(await everythingKept()).toEqual(same)
    expect(written).toEqual([...written].sort((a, b) => a - b))
    expect(Math.max(...written)).toBeLessThanOrEqual(1)
  })

  it('that is damaged, of something else, or would grow too large is refused', () => {
    expect(() => backupInZip(Uint8Array.of(0x50, 0x4b, 3, 4, 0, 0))).toThrow(ShelfZipError)
    expect(() => backupInZip(zipSync({ 'other.txt': new Uint8Array(3) }))).toThrow('files.otherZip')
    // What the directory of a zip says of a file's size stands 24 bytes behind its sign (PK 1 2).
    const bomb = zipSync({ 'everything.json': new Uint8Array(10) })
    const directory = bomb.findIndex((b, k) => b === 0x50 && bomb[k + 1] === 0x4b && bomb[k + 2] === 1)
    new DataView(bomb.buffer).setUint32(directory + 24, 2_000_000_000, true)
    expect(() => backupInZip(bomb)).toThrow('files.shelfTooLarge')
  })

  it('is shown before it is brought in: what comes, what is here, what would be gone', async () => {
    await addTunes([tuneOf('Tin Lantern'), tuneOf('Salt Road')])
    const kept = await everythingKept()
    await db.tunes.delete('Salt Road')
    await addTunes([tuneOf('Brass Hinge')])
    expect(await restoreChanges(kept)).toEqual({
      come: ['Salt Road'],
      here: ['Tin Lantern'],
      gone: ['Brass Hinge'],
      students: 0,
    })
  })
})

describe('recordings', () => {
  const sound = (byte: number, name: string) => new File([new Uint8Array(2000).fill(byte)], name)
  const heard = async (tune: string) => {
    const row = await db.recordings.get(tune)
    return row && [row.name, new Uint8Array(await row.sound.arrayBuffer())[0], row.marks]
  }
  it('go with the file that is saved by hand and with the project of their tune, byte for byte; with no daily one', async () => {
    await addTunes([tuneOf('Tin Lantern'), tuneOf('Salt Road')])
    const marks = [{ played: 0, seconds: 1.5 }]
    await keepRecording('Tin Lantern', sound(7, 'Lesson 1.mp3'), marks)
    await keepRecording('Salt Road', sound(9, 'lesson 1.MP3'), [])
    const { bytes } = await everythingPacked(true)
    const files = Object.keys(unzipSync(bytes)).filter((name) => name.startsWith('recordings/'))
    expect(files).toEqual(['recordings/lesson 1.MP3', 'recordings/Lesson 1 2.mp3'])
    const packed = recordingsInZip(bytes)
    expect(packed.map((r) => r.tune)).toEqual(['Salt Road', 'Tin Lantern'])
    for (const table of db.tables) await table.clear()
    const backup = readBackup(inZip(bytes), TABLES_VERSION)
    await restore(backup, 'replace', packed.map(recordingRow))
    expect(await heard('Tin Lantern')).toEqual(['Lesson 1.mp3', 7, marks])
    expect(await heard('Salt Road')).toEqual(['lesson 1.MP3', 9, []])
    expect(recordingsInZip((await projectOf('Salt Road'))!.bytes).map((r) => r.tune)).toEqual(['Salt Road'])
    expect(recordingsInZip((await everythingPacked(false)).bytes)).toEqual([])
  })

  it('that are here stay where what is missing is added, give way where all is replaced, and come back', async () => {
    await addTunes([tuneOf('Tin Lantern')])
    const backup = await everythingKept()
    const came = [
      { id: 'Tin Lantern', name: 'new.wav', sound: sound(2, 'new.wav'), marks: [] },
      { id: 'of no tune', name: 'lost.wav', sound: sound(3, 'lost.wav'), marks: [] },
    ]
    await keepRecording('Tin Lantern', sound(1, 'own.wav'), [])
    await restore(backup, 'add', came)
    expect(await heard('Tin Lantern')).toEqual(['own.wav', 1, []])
    const before = await asBefore()
    await restore(backup, 'replace', came)
    expect(await heard('Tin Lantern')).toEqual(['new.wav', 2, []])
    expect(await db.recordings.count()).toBe(1)
    await putBack(before)
    expect(await heard('Tin Lantern')).toEqual(['own.wav', 1, []])
  })

  it('of a list that was tampered with are left out, and nothing else', () => {
    const list = (value: unknown) =>
      zipSync({
        'recordings.json': new TextEncoder().encode(JSON.stringify(value)),
        'recordings/a.mp3': new Uint8Array(4),
        'everything.json': new Uint8Array(2),
      })
    const whole = { tune: 'a', name: 'a.mp3', file: 'recordings/a.mp3', marks: [] }
    expect(recordingsInZip(list([whole]))).toHaveLength(1)
    expect(recordingsInZip(list([{ ...whole, file: 'everything.json' }]))).toEqual([])
    expect(recordingsInZip(list([{ ...whole, marks: [{ played: -1, seconds: 'x' }] }]))).toEqual([])
    expect(recordingsInZip(list('nonsense'))).toEqual([])
  })
})

describe('all of one tune', () => {
  it('is the same elsewhere: history, handout, practice and whose it is, and nothing of other tunes', async () => {
    await addTunes([tuneOf('Tin Lantern'), tuneOf('Salt Road')])
    await changeScore('Tin Lantern', 'insert', (score) => {
      const edited = applyEdit(score, { do: 'insert', before: 1, count: 1 })
      return edited.ok ? edited.score : undefined
    })
    const [wren, ansel] = [await addStudent('Wren'), await addStudent('Ansel')]
    await db.logs.bulkPut([
      { id: `Tin Lantern ${wren}`, tuneId: 'Tin Lantern', readAt: 1, entries: [] },
      { id: `Salt Road ${ansel}`, tuneId: 'Salt Road', readAt: 1, entries: [] },
    ])
    await db.handouts.put({ id: 'Tin Lantern' } as never)
    const { name, bytes } = (await projectOf('Tin Lantern'))!
    expect(name).toBe('Tin Lantern project.zip')
    const project = readBackup(inZip(bytes), TABLES_VERSION)
    expect(project.rows.students.map((r) => r['id'])).toEqual([wren])
    expect(project.prefs).toBeUndefined()
    for (const table of db.tables) await table.clear()
    await restore(project, 'add')
    expect(await db.tunes.toCollection().primaryKeys()).toEqual(['Tin Lantern'])
    expect(await db.logs.toCollection().primaryKeys()).toEqual([`Tin Lantern ${wren}`])
    expect(await db.history.count()).toBe(1)
    const again = (await projectOf('Tin Lantern'))!
    const rowsOf = (packed: Uint8Array) => {
      const { rows } = inZip(packed) as { rows: { history: { seq?: number }[] } }
      return { ...rows, history: rows.history.map(({ seq: _, ...step }) => step) }
    }
    expect(rowsOf(again.bytes)).toEqual(rowsOf(bytes))
    expect(await projectOf('nobody')).toBeUndefined()
  })
})

describe('what the app keeps by itself', () => {
  it('is made once a day where there is anything, and brings back what was', async () => {
    await keepDailyBackup()
    expect(await dailyBackups()).toEqual([])
    await addTunes([tuneOf('Tin Lantern')])
    vi.useFakeTimers({ now: new Date('2026-03-01T10:00:00Z'), toFake: ['Date'] })
    await keepDailyBackup()
    await addTunes([tuneOf('Salt Road')])
    await keepDailyBackup()
    vi.setSystemTime(new Date('2026-03-02T10:00:00Z'))
    await keepDailyBackup()
    const days = await dailyBackups()
    expect(days.map((d) => `${d.day} ${d.tunes}`)).toEqual(['2026-03-02 2', '2026-03-01 1'])
    const first = readBackup(inZip(days[1]!.bytes), TABLES_VERSION)
    expect(first.rows.tunes.map((t) => t['title'])).toEqual(['Tin Lantern'])
  })

  it('are the last seven days, and the first of each month before', () => {
    const days = Array.from({ length: 120 }, (_, i) =>
      new Date(Date.UTC(2026, 0, 1 + i)).toISOString().slice(0, 10),
    )
    const kept = keptDays(days)
    expect(kept.slice(0, 7)).toEqual(days.slice(-7).reverse())
    expect(kept.slice(7)).toEqual(['2026-04-01', '2026-03-01', '2026-02-01', '2026-01-01'])
  })
})
