import { Anchor, Badge, Button, Group, Table, Text, TextInput } from '@mantine/core'
import { Calendar } from '@mantine/dates'
import '@mantine/dates/styles.css'
import { IconUserPlus } from '@tabler/icons-react'
import { daysAfter, lessonsAround, weekOf, type LessonRecord } from '@velvet-porch/core/studio'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { addStudent, today as todayIs, useLessons, useStudents, type Student } from '../../state/studio.ts'
import { useLogs, isLogOf } from '../../state/logs.ts'
import { errorWords } from '../../workers/errorWords.ts'
import { ReadLogsButton, ReturnedFiles } from '../lesson/ReturnedFiles.tsx'
import { useReturnedLogs } from '../lesson/useReturnedLogs.ts'
import { useFileDrop } from '../shelf/useFileDrop.ts'
import { useDayWords } from './useDayWords.ts'
import { useStuckText } from './useStuckText.ts'
import { useStudies, type StudiedTune } from './useStudies.ts'
import css from './students.module.css'

/** The studio: who comes this week, who is stuck, what came back, and the roster. */
export function StudentsPage() {
  const { t } = useTranslation()
  const today = todayIs()
  const students = useStudents()
  const lessons = useLessons()
  const studies = useStudies(today)
  const returned = useReturnedLogs()
  const dropping = useFileDrop((files) => void returned.read(files))
  return (
    <div className="reference">
      {dropping ? <div className={css['studio-veil']}>{t('studio.drop')}</div> : null}
      <div className="reference-title">
        <h1>{t('studio.title')}</h1>
        <NewStudent />
        <ReadLogsButton logs={returned} />
      </div>
      <ReturnedFiles logs={returned} />
      {students.length === 0 ? (
        <p className="soft">{t('studio.nobody')}</p>
      ) : (
        <>
          <Week students={students} lessons={lessons} today={today} />
          <Roster students={students} lessons={lessons} studies={studies} today={today} />
          <Stuck students={students} studies={studies ?? []} />
          <Together students={students} studies={studies ?? []} />
        </>
      )}
      <Text size="sm" c="dimmed" mt="xl">
        {t('studio.private')}
      </Text>
    </div>
  )
}

function NewStudent() {
  const { t } = useTranslation()
  const go = useNavigate()
  const [name, setName] = useState('')
  const [wrong, setWrong] = useState<string>()
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        if (name.trim() === '') return
        addStudent(name.trim()).then(
          (id) => void go(`/students/${id}`),
          (error: unknown) => setWrong(errorWords(t, error)),
        )
      }}
    >
      <Group gap="xs">
        <TextInput
          aria-label={t('studio.name')}
          placeholder={t('studio.name')}
          value={name}
          error={wrong}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" variant="default" leftSection={<IconUserPlus size={17} />}>
          {t('studio.add')}
        </Button>
      </Group>
    </form>
  )
}

interface Shown {
  readonly students: readonly Student[]
  readonly lessons: readonly LessonRecord[]
  readonly today: string
}

/** The month with its lessons, and those of the week of the day that is chosen. */
function Week({ students, lessons, today }: Shown) {
  const { t } = useTranslation()
  const { dayText } = useDayWords()
  const [chosen, setChosen] = useState(today)
  const monday = weekOf(chosen)
  const own = lessons.filter((l) => l.day >= monday && l.day <= daysAfter(monday, 6))
  const nameOf = (id: string) => students.find((s) => s.hand.id === id)?.hand.name ?? ''
  const busy = new Set(lessons.map((l) => l.day))
  return (
    <section className={css['studio-week']} aria-labelledby="studio-week">
      <Calendar
        firstDayOfWeek={1}
        weekendDays={[]}
        hideOutsideDates
        getDayProps={(day) => ({
          selected: day >= monday && day <= daysAfter(monday, 6),
          onClick: () => setChosen(day),
        })}
        renderDay={(day) => (
          <span className={busy.has(day) ? css['studio-busy'] : undefined}>{Number(day.slice(8))}</span>
        )}
        ariaLabels={{ previousMonth: t('studio.monthBefore'), nextMonth: t('studio.monthAfter') }}
      />
      <div>
        <h2 id="studio-week">
          {t(monday === weekOf(today) ? 'studio.thisWeek' : 'studio.weekOf', { day: dayText(monday) })}
        </h2>
        {own.length === 0 ? <p className="soft">{t('studio.noLessons')}</p> : null}
        <ul className={css['studio-lessons']}>
          {own.map((l) => (
            <li key={l.id}>
              <span className={css['studio-when']}>
                {dayText(l.day)}, {l.time}
              </span>
              <Anchor component={Link} to={`/students/${l.studentId}`}>
                {nameOf(l.studentId)}
              </Anchor>
              {l.day === today && l.state === 'planned' ? (
                <Badge color="lamp.7">{t('studio.today')}</Badge>
              ) : null}
              {l.state === 'planned' ? null : <span className="soft">{t(`studio.state.${l.state}`)}</span>}
            </li>
          ))}
        </ul>
      </div>
    </section>
  )
}

function Roster({
  students,
  lessons,
  studies,
  today,
}: Shown & { studies: readonly StudiedTune[] | undefined }) {
  const { t } = useTranslation()
  const { dayText } = useDayWords()
  const logs = useLogs()
  const since = daysAfter(today, -6)
  return (
    <section aria-labelledby="studio-roster">
      <h2 id="studio-roster">{t('studio.roster')}</h2>
      <Table.ScrollContainer minWidth={700}>
        <Table data-testid="roster">
          <Table.Thead>
            <Table.Tr>
              {(['student', 'learns', 'last', 'next', 'minutes', 'due'] as const).map((c) => (
                <Table.Th key={c}>{t(`studio.column.${c}`)}</Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {students.map(({ hand, record }) => {
              const { last, coming } = lessonsAround(
                lessons.filter((l) => l.studentId === hand.id),
                today,
              )
              const own = studies?.filter((s) => s.assignment.studentId === hand.id) ?? []
              const learning = own.filter((s) => s.assignment.learnt === undefined)
              const minutes = logs
                .filter((row) => isLogOf(row, hand.id))
                .flatMap((row) => row.entries)
                .filter((e) => e.day >= since && e.day <= today)
                .reduce((sum, e) => sum + e.minutes, 0)
              const due = learning
                .flatMap((s) => s.study?.toPractise ?? [])
                .filter((p) => p.review && p.review.due <= today).length
              return (
                <Table.Tr key={hand.id}>
                  <Table.Td>
                    <Anchor component={Link} to={`/students/${hand.id}`} fw={600}>
                      {hand.name}
                    </Anchor>{' '}
                    <span className="soft">
                      {t(`instrument.kinds.${record.instrument}`)},{' '}
                      {t('studio.level', { level: record.level })}
                    </span>
                  </Table.Td>
                  <Table.Td>{learning.map((s) => s.title).join('; ')}</Table.Td>
                  <Table.Td>{last ? dayText(last.day) : '–'}</Table.Td>
                  <Table.Td>{coming ? `${dayText(coming.day)}, ${coming.time}` : '–'}</Table.Td>
                  <Table.Td>{t('studio.minutesOf', { minutes, wanted: record.minutesADay * 7 })}</Table.Td>
                  <Table.Td>{studies ? due : ''}</Table.Td>
                </Table.Tr>
              )
            })}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
    </section>
  )
}

interface Compared {
  readonly students: readonly Student[]
  readonly studies: readonly StudiedTune[]
}

/** Who does not get on, and where. */
function Stuck({ students, studies }: Compared) {
  const { t } = useTranslation()
  const stuckText = useStuckText()
  const rows = students.flatMap(({ hand }) =>
    studies
      .filter((s) => s.assignment.studentId === hand.id && s.assignment.learnt === undefined)
      .flatMap((s) => (s.study?.stuck ?? []).map((stuck) => ({ hand, s, stuck }))),
  )
  if (rows.length === 0) return null
  return (
    <section aria-labelledby="studio-stuck" data-testid="stuck">
      <h2 id="studio-stuck">{t('studio.stuck')}</h2>
      <ul className={css['studio-plain']}>
        {rows.map(({ hand, s, stuck }) => (
          <li key={`${s.assignment.id} ${stuck.piece}`}>
            <Anchor component={Link} to={`/students/${hand.id}`}>
              {hand.name}
            </Anchor>
            : {stuckText(s, stuck)}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Tunes that several students learn or have learnt: they can play them together. */
function Together({ students, studies }: Compared) {
  const { t } = useTranslation()
  const titles = [...new Set(studies.map((s) => s.title))].sort()
  const shared = titles.flatMap((title) => {
    const own = studies.filter((s) => s.title === title)
    const names = students.flatMap(({ hand }) => {
      const theirs = own.find((s) => s.assignment.studentId === hand.id)
      if (!theirs) return []
      return [theirs.assignment.learnt === undefined ? hand.name : t('studio.hasIt', { name: hand.name })]
    })
    return names.length > 1 ? [{ title, names }] : []
  })
  if (shared.length === 0) return null
  return (
    <section aria-labelledby="studio-together">
      <h2 id="studio-together">{t('studio.together')}</h2>
      <ul className={css['studio-plain']}>
        {shared.map(({ title, names }) => (
          <li key={title}>
            {title}: {names.join(', ')}
          </li>
        ))}
      </ul>
    </section>
  )
}
