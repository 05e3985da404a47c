import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { piecesOf, pieceText, paperWordsFor, wordsFor, type LessonSettings } from '@velvet-porch/core/lesson'
import { measureNumbers } from '@velvet-porch/core/document'
import { studyOf, type Assignment, type Day, type Study } from '@velvet-porch/core/studio'
import { useCallback } from 'react'
import { db, type LogRow } from '../../state/db.ts'
import { useLogs, studentOfLog } from '../../state/logs.ts'
import { usePrefs } from '../../state/prefs.ts'
import { arrangementId } from '../../state/shelf.ts'
import { useAssignments } from '../../state/studio.ts'
import { useStored } from '../../state/useStored.ts'
import { useOneByOne } from '../../ui/useOneByOne.ts'

/** How a student stands with a tune that was given to them. */
export interface StudiedTune {
  readonly assignment: Assignment
  readonly title: string
  /** Absent where the tune has no tab, or is not on the shelf any more. */
  readonly study?: Study
  /** A piece as the lesson calls it. */
  readonly pieceName: (piece: number) => string
}

/**
 * How students stand with what they learn.
 * @param student the one who is asked about; all where nobody is named
 * @returns undefined until it is known
 */
export function useStudies(today: Day, student?: string): readonly StudiedTune[] | undefined {
  const assignments = useAssignments()
  const logs = useLogs()
  const { lesson } = usePrefs()
  const sources = useStored(
    () => sourcesOf(assignments.filter((a) => student === undefined || a.studentId === student)),
    [assignments, student],
  )
  const studied = useCallback(
    (source: Source) => studiedTune(source, logs, lesson, today),
    [logs, lesson, today],
  )
  return useOneByOne(sources, studied)
}

interface Source {
  readonly assignment: Assignment
  readonly title: string
  readonly tune: TuneDoc | undefined
  readonly doc: ArrangementDoc | undefined
}

const sourcesOf = (assignments: readonly Assignment[]): Promise<Source[]> =>
  Promise.all(
    assignments.map(async (assignment): Promise<Source> => {
      const { tuneId, versionId } = assignment
      const row = await db.shelf.get(tuneId)
      const there = row && row.removedAt === undefined
      const tune = there ? await db.tunes.get(tuneId) : undefined
      const bench = arrangementId(tuneId)
      const doc = there
        ? ((await db.arrangements.get(versionId ?? bench)) ?? (await db.arrangements.get(bench)))
        : undefined
      return { assignment, title: row?.title ?? '', tune, doc }
    }),
  )

function studiedTune(
  { assignment, title, tune, doc }: Source,
  logs: readonly LogRow[],
  settings: LessonSettings,
  today: Day,
): StudiedTune {
  const log = logs.find(
    (row) => row.tuneId === assignment.tuneId && studentOfLog(row) === assignment.studentId,
  )
  const unit = log?.unit ?? (log ? 'phrase' : settings.unit)
  if (!tune || !doc) return { assignment, title, pieceName: String }
  const pieces = piecesOf(tune, doc, unit)
  const { language } = settings.speech
  const phrasing = {
    words: wordsFor(settings.speech),
    paper: paperWordsFor(language),
    numbers: measureNumbers(tune.measures),
  }
  return {
    assignment,
    title,
    study: studyOf(
      { tune, doc, unit, entries: log?.entries ?? [], given: assignment.given },
      today,
      settings.way,
    ),
    pieceName: (piece) => {
      const own = pieces[piece - 1]
      return own ? pieceText(own, phrasing) : phrasing.paper.learn.whole
    },
  }
}
