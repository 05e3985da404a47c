import { Anchor, Button, Group, Modal, Text } from '@mantine/core'
import '@mantine/dates/styles.css'
import { IconArrowLeft, IconDownload, IconTrash } from '@tabler/icons-react'
import { csvOf, type LessonRecord } from '@velvet-porch/core/studio'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useParams } from 'react-router'
import type { LogRow } from '../../state/db.ts'
import { isLogOf, useLogs } from '../../state/logs.ts'
import { remakeBackups } from '../../state/dailyBackups.ts'
import { eraseStudent, today as todayIs, useLessons, useStudents, type Student } from '../../state/studio.ts'
import { useShelf } from '../../state/useShelf.ts'
import { saveAs } from '../../ui/saveAs.ts'
import { ReadLogsButton, ReturnedFiles } from '../lesson/ReturnedFiles.tsx'
import { useReturnedLogs } from '../lesson/useReturnedLogs.ts'
import { GivenTunes } from './GivenTunes.tsx'
import { LessonLog } from './LessonLog.tsx'
import { PracticeCharts } from './PracticeCharts.tsx'
import { StudentRecordForm } from './StudentRecordForm.tsx'
import { TodayWith } from './TodayWith.tsx'
import { useStudies } from './useStudies.ts'
import css from './students.module.css'

/** What do I do today with this student? One page before the lesson, and the records behind it. */
export function StudentPage() {
  const { t } = useTranslation()
  const { student: id } = useParams()
  const student = useStudents().find((s) => s.hand.id === id)
  if (!student)
    return (
      <div className="reference">
        <p>{t('studio.unknown')}</p>
        <BackLink />
      </div>
    )
  return <Known key={student.hand.id} student={student} />
}

const BackLink = () => {
  const { t } = useTranslation()
  return (
    <Anchor component={Link} to="/students" size="sm">
      <IconArrowLeft size={14} style={{ verticalAlign: -2 }} /> {t('studio.back')}
    </Anchor>
  )
}

function Known({ student }: { student: Student }) {
  const { t } = useTranslation()
  const { hand, record } = student
  const today = todayIs()
  const lessons = useLessons().filter((l) => l.studentId === hand.id)
  const studies = useStudies(today, hand.id)
  const logs = useLogs().filter((row) => isLogOf(row, hand.id))
  const returned = useReturnedLogs(hand.id)
  return (
    <div className="reference">
      <BackLink />
      <div className="reference-title">
        <h1>{t('studio.todayWith', { name: hand.name })}</h1>
        <span className="soft">
          {t(`instrument.kinds.${record.instrument}`)}, {t('studio.level', { level: record.level })},{' '}
          {t('studio.aDay', { minutes: record.minutesADay })}
        </span>
        <ReadLogsButton logs={returned} />
      </div>
      <ReturnedFiles logs={returned} />
      <div className={css['studio-student']}>
        <TodayWith student={student} lessons={lessons} studies={studies} logs={logs} today={today} />
        <GivenTunes student={student} studies={studies ?? []} today={today} />
        <LessonLog student={student} lessons={lessons} today={today} />
        <PracticeCharts studies={studies ?? []} logs={logs} today={today} />
        <StudentRecordForm student={student} />
        <Keeping student={student} lessons={lessons} logs={logs} />
      </div>
    </div>
  )
}

/** Records out as a table or as plain data, and erased whole. */
function Keeping({
  student,
  lessons,
  logs,
}: {
  student: Student
  lessons: readonly LessonRecord[]
  logs: readonly LogRow[]
}) {
  const { t } = useTranslation()
  const go = useNavigate()
  const { hand, record } = student
  const [asking, setAsking] = useState(false)
  const shelf = useShelf()
  const titleOf = (tuneId: string) => shelf.find((row) => row.id === tuneId)?.title ?? ''
  const table = () =>
    csvOf(
      ['kind', 'day', 'tune', 'piece', 'bpm', 'clean', 'minutes', 'text'],
      [
        ...lessons.map((l) => ['lesson', l.day, '', '', '', '', l.minutes, [l.done, l.next].join(' / ')]),
        ...logs.flatMap((row) =>
          row.entries.map((e) => [
            'practice',
            e.day,
            titleOf(row.tuneId),
            e.piece,
            e.bpm,
            e.clean,
            e.minutes,
            e.note,
          ]),
        ),
      ],
    )
  return (
    <section aria-labelledby="student-keeping">
      <h2 id="student-keeping">{t('studio.keeping')}</h2>
      <Text size="sm" c="dimmed" mb="xs">
        {t('studio.private')}
      </Text>
      <Group gap="xs">
        <Button
          size="compact-sm"
          variant="default"
          leftSection={<IconDownload size={15} />}
          onClick={() => saveAs(`${hand.name}.csv`, table(), 'text/csv')}
        >
          {t('studio.csv')}
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          leftSection={<IconDownload size={15} />}
          onClick={() =>
            saveAs(
              `${hand.name}.json`,
              JSON.stringify({ name: hand.name, record, lessons, logs }, undefined, 1),
              'application/json',
            )
          }
        >
          {t('studio.json')}
        </Button>
        <Button
          size="compact-sm"
          variant="subtle"
          color="red"
          leftSection={<IconTrash size={15} />}
          onClick={() => setAsking(true)}
        >
          {t('studio.erase', { name: hand.name })}
        </Button>
      </Group>
      <Modal
        opened={asking}
        onClose={() => setAsking(false)}
        title={t('studio.erase', { name: hand.name })}
        closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
      >
        <Text>{t('studio.eraseHint', { name: hand.name })}</Text>
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={() => setAsking(false)}>
            {t('shelf.cancel')}
          </Button>
          <Button
            color="red"
            onClick={() =>
              void eraseStudent(hand.id)
                .then(() => remakeBackups().catch(() => undefined))
                .then(() => go('/students'))
            }
          >
            {t('studio.eraseYes')}
          </Button>
        </Group>
      </Modal>
    </section>
  )
}
