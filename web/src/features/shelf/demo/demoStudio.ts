import type { LogEntry } from '@velvet-porch/core/lesson'
import { daysAfter, type Day } from '@velvet-porch/core/studio'
import { newId } from '../../../newId.ts'
import { db, type LogRow } from '../../../state/db.ts'
import { DEMO_GIG, DEMO_STANDING, DEMO_STUDENTS, type DemoStudent, type DemoStudy } from './demoStudents.ts'

/** Pieces of a demo tune that are practised, and minutes for each. */
const PIECES = 4
const MINUTES = 5

/**
 * Brings the studio of the demo: three invented students with some months of lessons and practice, and a set list. Where
 * anybody is on record already it stays away.
 * @param ids the tunes of the demo by title
 */
export async function bringDemoStudio(ids: ReadonlyMap<string, string>, today: Day): Promise<void> {
  await db.transaction(
    'rw',
    [db.players, db.students, db.assignments, db.lessons, db.logs, db.sets, db.repertoire],
    async () => {
      if ((await db.players.count()) > 0 || (await db.students.count()) > 0) return
      for (const student of DEMO_STUDENTS) await bringStudent(student, ids, today)
      for (const { title, status, tags, askedBy } of DEMO_STANDING) {
        const id = ids.get(title)
        if (id === undefined) continue
        const requests = askedBy.map((by) => ({ by, day: daysAfter(today, -60) }))
        await db.repertoire.put({ id, status, source: '', rights: 'own', tags, requests })
      }
      await db.sets.add({
        id: newId(),
        name: DEMO_GIG.name,
        day: daysAfter(today, 21),
        items: DEMO_GIG.titles.flatMap((title) => {
          const tuneId = ids.get(title)
          return tuneId === undefined ? [] : [{ tuneId }]
        }),
      })
    },
  )
}

async function bringStudent(
  student: DemoStudent,
  ids: ReadonlyMap<string, string>,
  today: Day,
): Promise<void> {
  const id = newId()
  const { hand, level, minutesADay, goals, studies, lessons, next, time } = student
  const since = daysAfter(today, -Math.max(...studies.map((s) => s.given)))
  await db.players.add({ ...hand, id })
  await db.students.add({ id, since, instrument: 'guitar', level, minutesADay, goals, notes: '' })
  for (const study of studies) {
    const tuneId = ids.get(study.title)
    if (tuneId === undefined) continue
    await db.assignments.add({
      id: newId(),
      studentId: id,
      tuneId,
      given: daysAfter(today, -study.given),
      ...(study.wanted === undefined ? {} : { due: daysAfter(today, -study.wanted) }),
      ...(study.learnt === undefined ? {} : { learnt: daysAfter(today, -study.learnt) }),
    })
    const log: LogRow = {
      id: `${tuneId} ${id}`,
      tuneId,
      readAt: 0,
      unit: 'phrase',
      entries: practiceOf(study, today),
    }
    await db.logs.add(log)
  }
  const lesson = { studentId: id, time, minutes: 45, notes: '' }
  await db.lessons.add({
    ...lesson,
    id: newId(),
    day: daysAfter(today, next),
    state: 'planned',
    done: '',
    next: '',
  })
  for (const [i, words] of lessons.entries())
    await db.lessons.add({
      ...lesson,
      id: newId(),
      day: daysAfter(today, next - 7 * (i + 1)),
      state: 'held',
      ...words,
    })
}

/** Invented practice: two pieces a day, the next one begun when the one before is halfway. */
function practiceOf({ given, until, every, from, rise, goal, stuck }: DemoStudy, today: Day): LogEntry[] {
  const entries: LogEntry[] = []
  const done = new Map<number, number>()
  let turn = 0
  for (let ago = given - 1; ago >= until; ago -= every, turn++) {
    for (const piece of piecesOn(turn)) {
      const times = done.get(piece) ?? 0
      const reached = Math.min(goal, Math.round(from + rise * times))
      const held = stuck?.piece === piece ? Math.min(stuck.bpm, reached) : reached
      const isBad = (turn + piece) % 5 === 4
      entries.push({
        day: daysAfter(today, -ago),
        piece,
        bpm: held,
        clean: isBad ? 0 : 3,
        minutes: MINUTES + ((turn + piece) % 3),
        note: held < reached && turn % 4 === 0 ? 'The change here still stops me.' : '',
      })
      done.set(piece, times + (isBad ? 0 : 1))
    }
  }
  return entries
}

/** The pieces that are practised on the so-manieth day. */
function piecesOn(turn: number): number[] {
  const newest = Math.min(PIECES, 1 + Math.floor(turn / 3))
  return newest === 1 ? [1] : [newest, 1 + (turn % (newest - 1))]
}
