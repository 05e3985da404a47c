import { Alert, FileButton, Button, Table } from '@mantine/core'
import { IconFileUpload } from '@tabler/icons-react'
import { notesOf, pieceText, piecesOf, progressOf, type Lesson, type LogOf } from '@velvet-porch/core/lesson'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { PlayerRow } from '../../state/db.ts'
import { usePlayers } from '../../state/players.ts'
import { takeLog } from '../../state/teaching.ts'
import { errorWords } from '../../workers/errorWords.ts'
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
  const players = usePlayers()
  const pieces = useMemo(() => (log ? piecesOf(tune, doc, log.unit) : []), [tune, doc, log])
  const notes = log ? notesOf(log.entries) : []
  const [wrong, setWrong] = useState<string>()
  const [taken, setTaken] = useState<string>()
  const read = async (file: File | null) => {
    if (!file) return
    try {
      setTaken(await takeLog(tune.id, await file.text(), student?.id ?? ''))
      setWrong(undefined)
    } catch (e) {
      setWrong(errorWords(t, e))
    }
  }
  const name = (number: number) => {
    const piece = pieces[number - 1]
    if (number === 0) return phrasing.paper.learn.whole
    return piece ? pieceText(piece, phrasing) : t('teach.pieceNo', { number })
  }
  return (
    <div className={lessonCss['teach-view']} data-testid="log">
      <FileButton
        onChange={(f) => void read(f)}
        accept="application/json,.json"
        inputProps={{ 'aria-label': t('teach.readLog') }}
      >
        {(props) => (
          <Button {...props} size="compact-sm" variant="default" leftSection={<IconFileUpload size={15} />}>
            {t('teach.readLog')}
          </Button>
        )}
      </FileButton>
      {wrong ? (
        <Alert color="red" title={t('teach.logWrong')} mt="sm">
          {wrong} {t('teach.logWayOut')}
        </Alert>
      ) : null}
      {taken !== undefined && taken !== (student?.id ?? '') ? (
        <Alert color="plum" mt="sm">
          {t('teach.logOf', { name: players.find((p) => p.id === taken)?.name ?? '' })}
        </Alert>
      ) : null}
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
