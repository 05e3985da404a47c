import { Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { measureNumbers, type ArrangementDoc, type TuneDoc } from '@velvet-porch/core/document'
import { paperWordsFor, teaching } from '@velvet-porch/core/lesson'
import { composing, type HandoutDoc } from '@velvet-porch/core/output/handout'
import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { keepHandout } from '../../state/handouts.ts'
import { useLog } from '../../state/logs.ts'
import { usePieceNotes } from '../../state/teaching.ts'
import { useLongWork } from '../../ui/useLongWork.ts'
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
  const [ready, setReady] = useState(false)
  const takePages = useCallback((made: readonly string[]) => {
    pages.current = made
    setReady(true)
  }, [])
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
  const { settings } = shown
  const lesson = useLongWork(
    useCallback(() => teaching(tune, doc, settings, log), [tune, doc, settings, log]),
  )
  const drawStaff = useDrawStaff(shown.layers.staff ?? false)
  const pieces = useLongWork(
    useMemo(
      () => lesson && (() => composing(shown, lesson, notes, drawStaff)),
      [shown, lesson, notes, drawStaff],
    ),
  )
  const numbers = useMemo(() => measureNumbers(tune.measures), [tune])
  return (
    <div className={css.handout}>
      <header className="bench-title no-print">
        <h1>{tune.title}</h1>
        <span className="setup">{t('handout.subtitle')}</span>
        <Group gap={6} ml="auto">
          <StudentMenu student={student} own={own} />
          <LessonFileButton tune={tune} doc={doc} settings={handout.settings} student={student?.id} />
          <PaperButtons title={tune.title} handout={handout} pages={pages} disabled={!ready} />
        </Group>
      </header>
      <aside className={`${css['handout-side']} no-print`}>
        <BlockList
          blocks={handout.blocks}
          measures={tune.measures.length}
          numbers={numbers}
          onChange={(blocks) => change({ blocks })}
        />
        <PaperOptionsForm handout={handout} onChange={change} />
      </aside>
      <PaperPages
        handout={shown}
        pieces={pieces}
        words={paperWordsFor(settings.speech.language)}
        title={tune.title}
        onPages={takePages}
      />
    </div>
  )
}
