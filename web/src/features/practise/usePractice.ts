import type { ArrangementDoc, TuneDoc, Variant } from '@velvet-porch/core/document'
import {
  pieceText,
  stretchOf,
  teaching,
  type Lesson,
  type LogOf,
  type Piece,
} from '@velvet-porch/core/lesson'
import { practiceList, studyIn } from '@velvet-porch/core/studio'
import type { Turns } from '@velvet-porch/core/turns'
import { useMemo, useState } from 'react'
import { usePlaying } from '../../score/playback/usePlaying.ts'
import { sheetModel } from '../../score/sheet/sheetModel.ts'
import type { PlayerRow } from '../../state/db.ts'
import { useLogOnceRead } from '../../state/logs.ts'
import { usePrefs } from '../../state/prefs.ts'
import { today as todayIs, useAssignments, useStudents } from '../../state/studio.ts'
import { useLongWork } from '../../ui/useLongWork.ts'
import { useTaught } from '../lesson/useTaught.ts'

/** Who practises, what was written down so far, and the lesson that was made from it. */
export interface Practised {
  readonly student: PlayerRow | undefined
  readonly own: readonly Variant[]
  readonly log: LogOf | undefined
  readonly lesson: Lesson
}

/** A tune for whoever practises it; undefined until the log was read and the lesson made. */
export function usePractised(tune: TuneDoc, written: ArrangementDoc): Practised | undefined {
  const { lesson: settings } = usePrefs()
  const { doc, student, own } = useTaught(tune, written)
  const read = useLogOnceRead(tune.id, student?.id ?? '')
  const begin = useMemo(() => {
    if (!read) return undefined
    const { log } = read
    // Pieces are those of the log, so that what was practised goes on.
    const unit = log?.unit ?? settings.unit
    return function* (): Turns<Practised> {
      const lesson = yield* teaching(tune, doc, { ...settings, unit }, log)
      // Together: a lesson never stands beside another log than its own.
      return { student, own, log, lesson }
    }
  }, [tune, doc, settings, read, student, own])
  return useLongWork(begin)
}

/** What is practised of a tune today, by whom, and the piece that is at hand. */
export function usePractice({ student, own, log, lesson }: Practised) {
  const { tune, doc, settings } = lesson
  const { unit } = settings
  const record = useStudents().find((s) => s.hand.id === student?.id)?.record
  const given = useAssignments().find((a) => a.studentId === student?.id && a.tuneId === tune.id)?.given
  const today = todayIs()
  const study = useMemo(
    () => studyIn(lesson, { entries: log?.entries ?? [], given: given ?? today }, today, settings.way),
    [lesson, log, given, today, settings.way],
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
