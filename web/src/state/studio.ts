import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import {
  dayOf,
  freshEntry,
  type Assignment,
  type Day,
  type LessonRecord,
  type RepertoireEntry,
  type SetList,
  type StudentRecord,
} from '@velvet-porch/core/studio'
import { newId } from '../newId.ts'
import type { Table } from 'dexie'
import { db, type PlayerRow } from './db.ts'
import { forgetName } from './forgetName.ts'
import { isLogOf } from './logs.ts'
import { usePlayers } from './players.ts'
import { currentPrefs, setPrefs } from './prefs.ts'
import { storing } from './storageTrouble.ts'
import { allWritten } from './unwritten.ts'
import { useStored } from './useStored.ts'

/** A student: the hand with its name, and what is kept besides. */
export interface Student {
  readonly hand: PlayerRow
  readonly record: StudentRecord
}

/** Today by the clock of this device. */
export const today = (): Day => dayOf(new Date())

/** A student of whom nothing was written down yet. */
const freshRecord = (id: string): StudentRecord => ({
  id,
  since: today(),
  instrument: 'guitar',
  level: 2,
  minutesADay: 15,
  goals: '',
  notes: '',
})

const NONE: readonly never[] = []

/** All students, by name: every hand on record is somebody's. */
export function useStudents(): readonly Student[] {
  const hands = usePlayers()
  const records = useStored(() => db.students.toArray()) ?? NONE
  return hands.map((hand) => ({
    hand,
    record: records.find((r) => r.id === hand.id) ?? freshRecord(hand.id),
  }))
}

export const useAssignments = (): readonly Assignment[] => useStored(() => db.assignments.toArray()) ?? NONE

/** All lessons, by day and hour. */
export const useLessons = (): readonly LessonRecord[] =>
  useStored(async () =>
    (await db.lessons.orderBy('day').toArray()).sort((a, b) =>
      `${a.day} ${a.time}`.localeCompare(`${b.day} ${b.time}`),
    ),
  ) ?? NONE

export const useRepertoire = (): readonly RepertoireEntry[] =>
  useStored(() => db.repertoire.toArray()) ?? NONE

/** Set lists, by name; undefined until they have been read. */
export const useSets = (): readonly SetList[] | undefined =>
  useStored(() => db.sets.orderBy('name').toArray())

const schemas = () => import('@velvet-porch/core/schema')

/** Writes a new student down, with an adult hand until another is measured. @returns the id */
export async function addStudent(name: string): Promise<string> {
  const id = newId()
  const { readPlayer } = await schemas()
  readPlayer({ ...DEFAULT_PLAYER, name })
  await storing(() =>
    db.transaction('rw', db.players, db.students, async () => {
      await db.players.add({ ...DEFAULT_PLAYER, id, name })
      await db.students.add(freshRecord(id))
    }),
  )
  return id
}

/**
 * Changes a row as it is stored, not as a page last showed it: of two changes in one breath both stay. A row that is gone, with
 * none to begin with, stays gone.
 * @param read checks what was made; throws SchemaError naming what is wrong
 */
const changeRow = <T>(
  table: Table<T, string>,
  id: string,
  read: (row: unknown) => T,
  change: (now: T) => T,
  fresh?: T,
) =>
  storing(() =>
    db.transaction('rw', table, async () => {
      const now = (await table.get(id)) ?? fresh
      if (now !== undefined) await table.put(read(change(now)))
    }),
  )

/** Changes what is kept of a student besides the hand. @throws SchemaError naming what is wrong */
export async function changeStudent(id: string, change: Partial<StudentRecord>): Promise<void> {
  const { readStudentRecord } = await schemas()
  await changeRow(db.students, id, readStudentRecord, (now) => ({ ...now, ...change }), freshRecord(id))
}

/** @throws SchemaError naming what is wrong */
export async function keepAssignment(assignment: Assignment): Promise<void> {
  ;(await schemas()).readAssignment(assignment)
  await storing(() => db.assignments.put(assignment))
}

/** Changes a tune that was given to a student. @throws SchemaError naming what is wrong */
export async function changeAssignment(id: string, change: (now: Assignment) => Assignment): Promise<void> {
  await changeRow(db.assignments, id, (await schemas()).readAssignment, change)
}

export const dropAssignment = (id: string) => storing(() => db.assignments.delete(id))

/** @throws SchemaError naming what is wrong */
export async function keepLesson(lesson: LessonRecord): Promise<void> {
  ;(await schemas()).readLessonRecord(lesson)
  await storing(() => db.lessons.put(lesson))
}

export const dropLesson = (id: string) => storing(() => db.lessons.delete(id))

/** Changes what is kept of a tune. @throws SchemaError naming what is wrong */
export async function changeEntry(id: string, change: Partial<RepertoireEntry>): Promise<void> {
  const { readRepertoireEntry } = await schemas()
  await changeRow(db.repertoire, id, readRepertoireEntry, (now) => ({ ...now, ...change }), freshEntry(id))
}

/** @throws SchemaError naming what is wrong */
export async function keepSet(set: SetList): Promise<void> {
  ;(await schemas()).readSetList(set)
  await storing(() => db.sets.put(set))
}

/** Changes a set list. @throws SchemaError naming what is wrong */
export async function changeSet(id: string, change: (now: SetList) => SetList): Promise<void> {
  await changeRow(db.sets, id, (await schemas()).readSetList, change)
}

export const dropSet = (id: string) => storing(() => db.sets.delete(id))

/**
 * Erases a student whole: hand, records, lessons, assignments, logs. Tabs that were measured for the hand keep its spans,
 * not its name.
 */
export async function eraseStudent(id: string): Promise<void> {
  const { players, students, assignments, lessons, logs, repertoire, tunes, arrangements, history } = db
  await allWritten()
  await storing(() =>
    db.transaction(
      'rw',
      [players, students, assignments, lessons, logs, repertoire, tunes, arrangements, history],
      async () => {
        const name = (await players.get(id))?.name
        await players.delete(id)
        await students.delete(id)
        await assignments.where('studentId').equals(id).delete()
        await lessons.where('studentId').equals(id).delete()
        const own = (await logs.toArray()).filter((row) => isLogOf(row, id))
        await logs.bulkDelete(own.map((row) => row.id))
        if (name === undefined) return
        await repertoire.toCollection().modify((entry, ref) => {
          ref.value = { ...entry, requests: entry.requests.filter((r) => r.by !== name) }
        })
        await forgetName(name)
      },
    ),
  )
  const prefs = currentPrefs()
  setPrefs({
    ...(prefs.player === id ? { player: '' } : {}),
    leaveOut: prefs.leaveOut.filter((hand) => hand !== id),
  })
}
