import { lessonsAround, practiceList, type LessonRecord } from '@velvet-porch/core/studio'
import { notesOf } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import type { LogRow } from '../../state/db.ts'
import type { Student } from '../../state/studio.ts'
import { useDayWords } from './useDayWords.ts'
import { useStuckText } from './useStuckText.ts'
import type { StudiedTune } from './useStudies.ts'
import css from './students.module.css'

interface Props {
  readonly student: Student
  readonly lessons: readonly LessonRecord[]
  readonly studies: readonly StudiedTune[] | undefined
  readonly logs: readonly LogRow[]
  readonly today: string
}

/** Before the lesson: what was, what came back, where it is stuck, what to play again and what is new. */
export function TodayWith({ student, lessons, studies = [], logs, today }: Props) {
  const { t } = useTranslation()
  const { dayText } = useDayWords()
  const stuckText = useStuckText()
  const { last, coming } = lessonsAround(lessons, today)
  const learning = studies.filter((s) => s.assignment.learnt === undefined)
  const list = practiceList(
    learning.flatMap((s) => s.study?.toPractise ?? []),
    today,
    student.record.minutesADay,
  )
  const studied = (tuneId: string) => learning.find((s) => s.assignment.tuneId === tuneId)
  const entries = logs.flatMap((row) => row.entries).filter((e) => !last || e.day >= last.day)
  const written = notesOf(entries).slice(0, 4)
  const minutes = entries.reduce((sum, e) => sum + e.minutes, 0)
  const stuck = learning.flatMap((s) => (s.study?.stuck ?? []).map((piece) => ({ s, piece })))
  return (
    <section className={css['studio-today']} aria-labelledby="student-today" data-testid="today">
      <h2 id="student-today">
        {coming
          ? t(coming.day === today ? 'studio.lessonToday' : 'studio.lessonOn', {
              day: dayText(coming.day),
              time: coming.time,
            })
          : t('studio.noneComing')}
      </h2>
      <dl>
        {last ? (
          <>
            <dt>{t('studio.lastTime', { day: dayText(last.day) })}</dt>
            <dd>
              {last.done || '–'}
              {last.next ? (
                <div className={css['studio-next']}>{t('studio.thenCame', { text: last.next })}</div>
              ) : null}
            </dd>
          </>
        ) : null}
        <dt>{t('studio.since')}</dt>
        <dd>
          {entries.length === 0
            ? t('studio.nothingBack')
            : t('studio.backWith', { minutes, count: new Set(entries.map((e) => e.day)).size })}
          {written.map((e, i) => (
            <div key={i} className="soft">
              {dayText(e.day)}: “{e.note}”
            </div>
          ))}
        </dd>
        {stuck.length > 0 ? (
          <>
            <dt>{t('studio.workOn')}</dt>
            <dd>
              {stuck.map(({ s, piece }) => (
                <div key={`${s.assignment.id} ${piece.piece}`}>{stuckText(s, piece)}</div>
              ))}
            </dd>
          </>
        ) : null}
        <dt>{t('studio.practiceOf', { minutes: student.record.minutesADay })}</dt>
        <dd>
          {list.length === 0 ? t('studio.nothingDue') : null}
          <ol className={css['studio-list']} data-testid="practice-list">
            {list.map((item) => (
              <li key={`${item.tuneId} ${item.piece}`}>
                <span className={css['studio-why']}>{t(`studio.why.${item.why}`)}</span>
                {studied(item.tuneId)?.title}, {studied(item.tuneId)?.pieceName(item.piece)}{' '}
                <span className="soft">{t('studio.min', { minutes: item.minutes })}</span>
              </li>
            ))}
          </ol>
        </dd>
      </dl>
    </section>
  )
}
