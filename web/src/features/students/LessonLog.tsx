import { ActionIcon, Button, Group, NumberInput, SegmentedControl, Table, Textarea } from '@mantine/core'
import { DatePickerInput, TimeInput } from '@mantine/dates'
import { IconPencil, IconTrash } from '@tabler/icons-react'
import { daysAfter, type LessonRecord } from '@velvet-porch/core/studio'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { newId } from '../../newId.ts'
import { dropLesson, keepLesson, type Student } from '../../state/studio.ts'
import { errorWords } from '../../workers/errorWords.ts'
import { useDayWords } from './useDayWords.ts'
import css from './students.module.css'

interface Props {
  readonly student: Student
  readonly lessons: readonly LessonRecord[]
  readonly today: string
}

/** The lesson of today or another day, and all that were. */
export function LessonLog({ student, lessons, today }: Props) {
  const { t } = useTranslation()
  const { dayText } = useDayWords()
  const fresh = (): LessonRecord => freshLesson(student.hand.id, lessons, today)
  const [draft, setDraft] = useState<LessonRecord>()
  const [wrong, setWrong] = useState<string>()
  const lesson = draft ?? lessons.find((l) => l.day === today) ?? fresh()
  const change = (part: Partial<LessonRecord>) => setDraft({ ...lesson, ...part })
  const keep = async () => {
    try {
      await keepLesson(lesson)
      setDraft(undefined)
      setWrong(undefined)
    } catch (error) {
      setWrong(errorWords(t, error))
    }
  }
  const past = [...lessons].reverse()
  return (
    <section aria-labelledby="student-lessons" data-testid="lesson-log">
      <h2 id="student-lessons">{t('studio.lessonLog')}</h2>
      <Group align="flex-end" gap="xs">
        <DatePickerInput
          w={150}
          label={t('studio.day')}
          valueFormat="ddd, D MMM YYYY"
          value={lesson.day}
          onChange={(day) => {
            if (day) change({ day })
          }}
        />
        <TimeInput
          label={t('studio.time')}
          value={lesson.time}
          onChange={(event) => change({ time: event.currentTarget.value })}
        />
        <NumberInput
          w={90}
          label={t('studio.minutes')}
          min={0}
          max={480}
          value={lesson.minutes}
          onChange={(minutes) => change({ minutes: Math.round(Number(minutes)) })}
        />
        <SegmentedControl
          aria-label={t('studio.lessonState')}
          data={(['planned', 'held', 'missed'] as const).map((value) => ({
            value,
            label: t(`studio.state.${value}`),
          }))}
          value={lesson.state}
          onChange={(state) => change({ state })}
        />
      </Group>
      <div className={css['studio-texts']}>
        {(['done', 'next', 'notes'] as const).map((field) => (
          <Textarea
            key={field}
            autosize
            minRows={2}
            label={t(`studio.lessonText.${field}`)}
            value={lesson[field]}
            onChange={(event) => change({ [field]: event.currentTarget.value })}
          />
        ))}
      </div>
      {wrong ? <p role="alert">{wrong}</p> : null}
      <Group mt="xs" gap="xs">
        <Button onClick={() => void keep()}>{t('studio.keepLesson')}</Button>
        <Button variant="default" onClick={() => setDraft(fresh())}>
          {t('studio.newLesson')}
        </Button>
      </Group>
      {past.length > 0 ? (
        <Table.ScrollContainer minWidth={560} mt="md">
          <Table data-testid="past-lessons">
            <Table.Tbody>
              {past.map((l) => (
                <Table.Tr key={l.id}>
                  <Table.Td style={{ whiteSpace: 'nowrap' }}>
                    {dayText(l.day)}, {l.time}
                  </Table.Td>
                  <Table.Td>{t(`studio.state.${l.state}`)}</Table.Td>
                  <Table.Td>{[l.done, l.next].filter(Boolean).join(' → ')}</Table.Td>
                  <Table.Td ta="right">
                    <Group gap={4} wrap="nowrap" justify="flex-end">
                      <ActionIcon
                        variant="subtle"
                        aria-label={t('studio.editLesson', { day: dayText(l.day) })}
                        onClick={() => setDraft(l)}
                      >
                        <IconPencil size={16} />
                      </ActionIcon>
                      <ActionIcon
                        variant="subtle"
                        color="red"
                        aria-label={t('studio.dropLesson', { day: dayText(l.day) })}
                        onClick={() => void dropLesson(l.id)}
                      >
                        <IconTrash size={16} />
                      </ActionIcon>
                    </Group>
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
      ) : null}
    </section>
  )
}

/** A lesson at the hour of the last one: a week later, or today where there was none. */
function freshLesson(studentId: string, lessons: readonly LessonRecord[], today: string): LessonRecord {
  const last = lessons.at(-1)
  const next = last ? daysAfter(last.day, 7) : today
  return {
    id: newId(),
    studentId,
    day: next < today ? today : next,
    time: last?.time ?? '16:00',
    minutes: last?.minutes ?? 45,
    state: 'planned',
    done: '',
    next: '',
    notes: '',
  }
}
