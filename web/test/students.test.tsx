// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import type { LogEntry } from '@velvet-porch/core/lesson'
import { daysAfter, type LessonRecord, type Study } from '@velvet-porch/core/studio'
import { act, cleanup, fireEvent, renderHook, screen, waitFor, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ReturnedFiles } from '../src/features/lesson/ReturnedFiles.tsx'
import { useReturnedLogs } from '../src/features/lesson/useReturnedLogs.ts'
import { LessonLog } from '../src/features/students/LessonLog.tsx'
import { MeasureMap } from '../src/features/students/MeasureMap.tsx'
import { StudentsPage } from '../src/features/students/StudentsPage.tsx'
import { TodayWith } from '../src/features/students/TodayWith.tsx'
import { useDayWords } from '../src/features/students/useDayWords.ts'
import type { StudiedTune } from '../src/features/students/useStudies.ts'
import { db } from '../src/state/db.ts'
import { addScore } from '../src/state/shelf.ts'
import { today, type Student } from '../src/state/studio.ts'
import { bringStages } from '../src/texts/i18n.ts'
import { stubBrowser } from './browserStubs.ts'
import { inPage } from './inPage.tsx'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|"C"c4|]')
const TODAY = today()
const WREN: Student = {
  hand: { ...DEFAULT_PLAYER, id: 'wren', name: 'Wren' },
  record: {
    id: 'wren',
    since: TODAY,
    instrument: 'guitar',
    level: 1,
    minutesADay: 10,
    goals: '',
    notes: '',
  },
}
const entry = (ago: number, piece: number, bpm: number, note = ''): LogEntry => ({
  day: daysAfter(TODAY, -ago),
  piece,
  bpm,
  clean: 3,
  minutes: 6,
  note,
})
const lesson = (
  ago: number,
  state: LessonRecord['state'],
  words: Partial<LessonRecord> = {},
): LessonRecord => ({
  ...{ id: `l${ago}`, studentId: 'wren', day: daysAfter(TODAY, -ago), time: '16:00', minutes: 45, state },
  ...{ done: '', next: '', notes: '' },
  ...words,
})

beforeEach(async () => {
  stubBrowser()
  await bringStages()
  await Promise.all(db.tables.map((t) => t.clear()))
  await addScore({ tune, arrangement: arrangementFor(tune) })
  await db.players.put(WREN.hand)
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

describe('practice files that come back', () => {
  // A file as far as it is read: the page of a test has no `File.text`.
  const fileOf = (name: string, content: unknown) => {
    const text = typeof content === 'string' ? content : JSON.stringify(content)
    return { name, text: () => Promise.resolve(text) } as File
  }
  const logOf = (entries: readonly LogEntry[], student?: string) => ({
    format: 'velvet-porch-practice-log',
    version: 1,
    tune: tune.id,
    title: 'Gate Latch',
    unit: 'phrase',
    ...(student ? { student } : {}),
    entries,
  })
  /** The hook that reads, with what it shows. */
  function Reading({ files, student }: { files: readonly File[]; student?: string }) {
    const logs = useReturnedLogs(student)
    return (
      <>
        <button onClick={() => void logs.read(files)}>read</button>
        <ReturnedFiles logs={logs} />
      </>
    )
  }
  const read = async (files: readonly File[], student?: string) => {
    inPage(<Reading files={files} {...(student === undefined ? {} : { student })} />)
    fireEvent.click(screen.getByText('read'))
    return within(await screen.findByTestId('returned'))
  }
  const kept = async (student: string) => (await db.logs.get(`${tune.id} ${student}`))?.entries

  it('are kept at once where all is clear, two files of one student one into the other', async () => {
    const first = logOf([entry(3, 1, 60)], 'wren')
    const second = logOf([entry(3, 1, 60), entry(1, 2, 70)], 'wren')
    const shown = await read([fileOf('a.json', first), fileOf('b.json', second)])
    await waitFor(() => expect(shown.getAllByText(/one new entry/)).toHaveLength(2))
    expect(await kept('wren')).toEqual([entry(3, 1, 60), entry(1, 2, 70)])
  })

  it('have each its own answer: a damaged one does not stop the next', async () => {
    const shown = await read([
      fileOf('half.json', '{ "format": '),
      fileOf('other.json', { ...logOf([]), tune: 'elsewhere' }),
      fileOf('good.json', logOf([entry(1, 1, 60)], 'wren')),
    ])
    expect(await shown.findByText(/not a practice log/)).toBeTruthy()
    expect(shown.getByText(/not on this shelf/)).toBeTruthy()
    expect(shown.getByText(/Wren, “Gate Latch”: one new entry/)).toBeTruthy()
  })

  it('that tell a day differently are asked about and change nothing until then', async () => {
    await db.logs.put({
      id: `${tune.id} wren`,
      tuneId: tune.id,
      readAt: 1,
      unit: 'phrase',
      entries: [entry(2, 1, 60)],
    })
    const shown = await read([fileOf('a.json', logOf([entry(2, 1, 90)], 'wren'))])
    const choice = await shown.findByRole('button', { name: 'Both' })
    expect(await kept('wren')).toEqual([entry(2, 1, 60)])
    fireEvent.click(choice)
    await shown.findByText(/Wren, “Gate Latch”/)
    expect((await kept('wren'))!.map((e) => e.bpm)).toEqual([60, 90])
  })

  it('of somebody who was erased meanwhile wait for a name', async () => {
    const shown = await read([fileOf('a.json', logOf([entry(1, 1, 60)], 'gone'))])
    expect(await shown.findByText('Whose log of “Gate Latch” is a.json?')).toBeTruthy()
    expect(await db.logs.count()).toBe(0)
  })
})

describe('a lesson', () => {
  it('that is planned for today is the one that is written down', async () => {
    const planned = lesson(0, 'planned')
    await db.lessons.put(planned)
    inPage(<LessonLog student={WREN} lessons={[planned]} today={TODAY} />)
    fireEvent.change(screen.getByLabelText('What was done'), { target: { value: 'The first phrase.' } })
    fireEvent.click(screen.getByText('held', { selector: '.mantine-SegmentedControl-innerLabel' }))
    fireEvent.click(screen.getByRole('button', { name: 'Keep this lesson' }))
    await waitFor(async () =>
      expect(await db.lessons.toArray()).toEqual([{ ...planned, done: 'The first phrase.', state: 'held' }]),
    )
  })

  it('that is new comes a week after the last, at its hour, never before today', () => {
    const last = { ...lesson(30, 'held'), time: '18:15', minutes: 30 }
    inPage(<LessonLog student={WREN} lessons={[last]} today={TODAY} />)
    expect(screen.getByLabelText<HTMLInputElement>('At').value).toBe('18:15')
    fireEvent.click(screen.getByRole('button', { name: 'Keep this lesson' }))
    return waitFor(async () =>
      expect(await db.lessons.toArray()).toMatchObject([{ day: TODAY, minutes: 30 }]),
    )
  })

  it('with an hour that is none is refused, and nothing is kept', async () => {
    inPage(<LessonLog student={WREN} lessons={[]} today={TODAY} />)
    fireEvent.change(screen.getByLabelText('At'), { target: { value: '' } })
    fireEvent.click(screen.getByRole('button', { name: 'Keep this lesson' }))
    expect(await screen.findByText(/cannot be kept/)).toBeTruthy()
    expect(await db.lessons.count()).toBe(0)
  })
})

describe('the page before a lesson', () => {
  const studied = (study: Partial<Study>): StudiedTune => ({
    assignment: { id: 'a', studentId: 'wren', tuneId: tune.id, given: TODAY },
    title: 'Gate Latch',
    study: {
      ...{ tuneId: tune.id, goalBpm: 120, pieces: [], toPractise: [], stuck: [], mastered: 0, tempos: [] },
      ...{ measures: [], effort: 0, effortMastered: [] },
      ...study,
    },
    pieceName: (piece) => `piece ${piece}`,
  })
  const before = (
    study: Partial<Study>,
    entries: readonly LogEntry[] = [],
    lessons: readonly LessonRecord[] = [],
  ) => {
    const log = { id: `${tune.id} wren`, tuneId: tune.id, readAt: 1, entries }
    inPage(
      <TodayWith student={WREN} lessons={lessons} studies={[studied(study)]} logs={[log]} today={TODAY} />,
    )
    return within(screen.getByTestId('today'))
  }

  it('says what was, what is to come, and what came back since then alone', () => {
    const page = before(
      {},
      [entry(9, 1, 60, 'long ago'), entry(2, 1, 66, 'the change hurts')],
      [lesson(7, 'held', { done: 'Phrase one.', next: 'Phrase two.' }), lesson(0, 'planned')],
    )
    expect(page.getByText('Lesson today at 16:00')).toBeTruthy()
    expect(page.getByText('To come: Phrase two.')).toBeTruthy()
    expect(page.getByText('6 minutes on one day')).toBeTruthy()
    expect(page.getByText(/the change hurts/)).toBeTruthy()
    expect(page.queryByText(/long ago/)).toBeNull()
  })

  it('says where it is stuck, clean or never clean', () => {
    const page = before({
      stuck: [
        { piece: 2, bpm: 72, sessions: 4, since: TODAY },
        { piece: 3, bpm: 0, sessions: 3, since: TODAY },
      ],
    })
    expect(page.getByText(/piece 2: ♩ = 72 for 4 days of practice without a rise/)).toBeTruthy()
    expect(page.getByText(/piece 3: not clean yet after 3 days/)).toBeTruthy()
  })

  it('lists what is to be practised within the minutes of the student', () => {
    const page = before({
      toPractise: [1, 2, 3].map((piece) => ({ tuneId: tune.id, piece, minutes: 7, stuck: false })),
    })
    const items = within(page.getByTestId('practice-list')).getAllByRole('listitem')
    expect(items.map((li) => li.textContent)).toEqual([
      'newGate Latch, piece 1 7 min',
      'newGate Latch, piece 2 3 min',
    ])
  })
})

it('a map of measures says in words what its colours show', () => {
  inPage(<MeasureMap measures={['mastered', 'mastered', 'stuck', 'begun', 'new']} />)
  expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
    'Measures: 2 at tempo, 1 begun, 1 stuck, 1 not practised',
  )
})

it('a day of another year has its year', () => {
  const { dayText } = renderHook(() => useDayWords()).result.current
  expect(dayText('1999-03-04')).toContain('1999')
  expect(dayText(TODAY)).not.toContain(TODAY.slice(0, 4))
})

describe('the page of all students', () => {
  it('says who learns what, counts the minutes of seven days, and takes a new name', async () => {
    await db.assignments.put({ id: 'a', studentId: 'wren', tuneId: tune.id, given: daysAfter(TODAY, -20) })
    await db.logs.put({
      ...{ id: `${tune.id} wren`, tuneId: tune.id, readAt: 1, unit: 'phrase' },
      entries: [entry(20, 1, 60), entry(6, 1, 60), entry(0, 1, 60)],
    })
    inPage(<StudentsPage />, { path: '/students' })
    const row = await screen.findByRole('row', { name: /Wren/ })
    await waitFor(() => expect(row.textContent).toContain('Gate Latch'))
    await waitFor(() => expect(row.textContent).toContain('12 of 105'))
    fireEvent.change(screen.getByLabelText('Name or nickname'), { target: { value: '  Lio ' } })
    fireEvent.click(screen.getByRole('button', { name: 'Add a student' }))
    expect(await screen.findByTestId('elsewhere')).toBeTruthy()
    expect((await db.players.toArray()).map((p) => p.name).sort()).toEqual(['Lio', 'Wren'])
  })

  it('says that nobody is there yet', async () => {
    await act(() => db.players.clear())
    inPage(<StudentsPage />)
    expect(await screen.findByText(/Nobody is on record yet/)).toBeTruthy()
  })
})
