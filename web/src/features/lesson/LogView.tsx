import { Table } from '@mantine/core'
import { notesOf, pieceText, piecesOf, progressOf, type Lesson, type LogOf } from '@velvet-porch/core/lesson'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { PlayerRow } from '../../state/db.ts'
import { ReadLogsButton, ReturnedFiles } from './ReturnedFiles.tsx'
import { useReturnedLogs } from './useReturnedLogs.ts'
import lessonCss from './lesson.module.css'

/** The student's practice log, read back from the file that the lesson file saves. */
export function LogView({
  lesson,
  log,
  student,
}: {
  lesson: Lesson
  log: LogOf | undefined
  student: PlayerRow | undefined
}) {
  const { t } = useTranslation()
  const { tune, doc, phrasing } = lesson
  const pieces = useMemo(() => (log ? piecesOf(tune, doc, log.unit) : []), [tune, doc, log])
  const notes = log ? notesOf(log.entries) : []
  const returned = useReturnedLogs(student?.id ?? '')
  const name = (number: number) => {
    const piece = pieces[number - 1]
    if (number === 0) return phrasing.paper.learn.whole
    return piece ? pieceText(piece, phrasing) : t('teach.pieceNo', { number })
  }
  return (
    <div className={lessonCss['teach-view']} data-testid="log">
      <ReadLogsButton logs={returned} />
      <ReturnedFiles logs={returned} />
      {!log || log.entries.length === 0 ? (
        <p className="soft">{t('teach.noLog')}</p>
      ) : (
        <>
          {notes.length > 0 ? (
            <section aria-labelledby="student-notes" data-testid="student-notes">
              <h3 id="student-notes" className={lessonCss['teach-notes-head']}>
                {student ? t('teach.notesOf', { name: student.name }) : t('teach.notes')}
              </h3>
              <ul className={lessonCss['teach-notes']}>
                {notes.map((e, i) => (
                  <li key={i}>
                    <span className="soft">
                      {e.day} · {name(e.piece)}
                    </span>{' '}
                    {e.note}
                  </li>
                ))}
              </ul>
            </section>
          ) : null}
          <Table mt="sm">
            <Table.Thead>
              <Table.Tr>
                {(['piece', 'days', 'minutes', 'best', 'last'] as const).map((c) => (
                  <Table.Th key={c}>{t(`teach.log.${c}`)}</Table.Th>
                ))}
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {progressOf(log.entries).map((p) => (
                <Table.Tr key={p.piece}>
                  <Table.Td>{name(p.piece)}</Table.Td>
                  <Table.Td>{p.days}</Table.Td>
                  <Table.Td>{p.minutes}</Table.Td>
                  <Table.Td>{p.bestBpm === undefined ? '–' : t('teach.bpm', { bpm: p.bestBpm })}</Table.Td>
                  <Table.Td>{p.lastDay}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </>
      )}
    </div>
  )
}
