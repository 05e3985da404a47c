import { Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { lessonOf } from '@velvet-porch/core/lesson'
import { handoutPieces, type HandoutDoc } from '@velvet-porch/core/output/handout'
import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { keepHandout } from '../../state/handouts.ts'
import { useLog } from '../../state/logs.ts'
import { usePieceNotes } from '../../state/teaching.ts'
import { StudentMenu } from '../lesson/StudentMenu.tsx'
import { useTaught } from '../lesson/useTaught.ts'
import { BlockList } from './BlockList.tsx'
import { LessonFileButton } from './LessonFileButton.tsx'
import { PaperButtons } from './PaperButtons.tsx'
import { PaperOptionsForm } from './PaperOptionsForm.tsx'
import { PaperPages } from './PaperPages.tsx'
import { useDrawStaff } from './useDrawStaff.ts'
import { errorWords } from '../../workers/errorWords.ts'
import css from './Handout.module.css'

/** The blocks of a handout on the left, its pages as they will be printed on the right. */
export function Handout({
  tune,
  written,
  kept,
}: {
  tune: TuneDoc
  written: ArrangementDoc
  kept: HandoutDoc
}) {
  const { t } = useTranslation()
  const [handout, setHandout] = useState(kept)
  const notes = usePieceNotes(tune.id)
  const { doc, student, own } = useTaught(tune, written)
  const log = useLog(tune.id, student?.id ?? '')
  const pages = useRef<readonly string[]>([])
  const takePages = useCallback((made: readonly string[]) => void (pages.current = made), [])
  const change = useCallback(
    (part: Partial<HandoutDoc>) =>
      setHandout((before) => {
        const next = { ...before, ...part }
        keepHandout(next).catch((e: unknown) =>
          notifications.show({ color: 'red', message: errorWords(t, e) }),
        )
        return next
      }),
    [t],
  )
  // The pages follow a moment after the form.
  const shown = useDeferredValue(handout)
  const lesson = useMemo(() => lessonOf(tune, doc, shown.settings, log), [tune, doc, shown.settings, log])
  const drawStaff = useDrawStaff(shown.layers.staff ?? false)
  const pieces = useMemo(
    () => handoutPieces(shown, lesson, notes, drawStaff),
    [shown, lesson, notes, drawStaff],
  )
  return (
    <div className={css.handout}>
      <header className="bench-title no-print">
        <h1>{tune.title}</h1>
        <span className="setup">{t('handout.subtitle')}</span>
        <Group gap={6} ml="auto">
          <StudentMenu student={student} own={own} />
          <LessonFileButton tune={tune} doc={doc} settings={handout.settings} student={student?.id} />
          <PaperButtons title={tune.title} handout={handout} pages={pages} />
        </Group>
      </header>
      <aside className={`${css['handout-side']} no-print`}>
        <BlockList
          blocks={handout.blocks}
          measures={tune.measures.length}
          numbers={lesson.phrasing.numbers}
          onChange={(blocks) => change({ blocks })}
        />
        <PaperOptionsForm handout={handout} onChange={change} />
      </aside>
      <PaperPages
        handout={shown}
        pieces={pieces}
        words={lesson.phrasing.paper}
        title={tune.title}
        onPages={takePages}
      />
    </div>
  )
}
