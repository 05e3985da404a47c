import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { lessonOf, pieceText, stretchOf, type Piece } from '@velvet-porch/core/lesson'
import { practiceList, studyOf } from '@velvet-porch/core/studio'
import { useMemo, useState } from 'react'
import { usePlaying } from '../../score/playback/usePlaying.ts'
import { sheetModel } from '../../score/sheet/sheetModel.ts'
import { useLog } from '../../state/logs.ts'
import { usePrefs } from '../../state/prefs.ts'
import { today as todayIs, useAssignments, useStudents } from '../../state/studio.ts'
import { useTaught } from '../lesson/useTaught.ts'

/** What is practised of a tune today, by whom, and the piece that is at hand. */
export function usePractice(tune: TuneDoc, written: ArrangementDoc) {
  const { lesson: settings } = usePrefs()
  const { doc, student, own } = useTaught(tune, written)
  const record = useStudents().find((s) => s.hand.id === student?.id)?.record
  const given = useAssignments().find((a) => a.studentId === student?.id && a.tuneId === tune.id)?.given
  const log = useLog(tune.id, student?.id ?? '')
  const today = todayIs()
  // Pieces are those of the log, so that what was practised goes on.
  const unit = log?.unit ?? settings.unit
  const lesson = useMemo(
    () => lessonOf(tune, doc, { ...settings, unit }, log),
    [tune, doc, settings, unit, log],
  )
  const study = useMemo(
    () =>
      studyOf({ tune, doc, unit, entries: log?.entries ?? [], given: given ?? today }, today, settings.way),
    [tune, doc, unit, log, given, today, settings.way],
  )
  const list = useMemo(
    () => practiceList(study.toPractise, today, record?.minutesADay ?? settings.minutes),
    [study, today, record, settings.minutes],
  )
  const model = useMemo(() => sheetModel(tune, doc), [tune, doc])
  const [chosen, setChosen] = useState<number>()
  const { pieces } = lesson
  const piece: Piece | undefined = pieces[(chosen ?? list[0]?.piece ?? 1) - 1] ?? pieces[0]
  const looped = useMemo(() => piece && stretchOf(tune, piece), [tune, piece])
  const { toggle, cursor } = usePlaying(model, looped?.from, looped)
  const nameOf = (number: number) => {
    const one = pieces[number - 1]
    return one ? pieceText(one, lesson.phrasing) : lesson.phrasing.paper.learn.whole
  }
  return {
    ...{ lesson, study, list, model, student, own, unit, today, way: settings.way },
    ...{ piece, pieces, looped, toggle, cursor, nameOf, choose: setChosen },
  }
}

export type Practice = ReturnType<typeof usePractice>
