import type { ArrangementDoc, Id, TuneDoc } from '@velvet-porch/core/document'
import { timelineOf } from '@velvet-porch/core/document'
import { effortOf, tuneEffort } from '@velvet-porch/core/hand'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useBench, useBenchPage } from './BenchContext.ts'
import css from './PreviewNote.module.css'

/** What a choice that is only looked at would change: how many measures, and the effort. */
export function PreviewNote({ changed }: { changed: ReadonlySet<Id> | undefined }) {
  const { t } = useTranslation()
  const { tune, doc } = useBenchPage()
  const preview = useBench((s) => s.preview)
  const words = useMemo(() => {
    if (!preview || !doc || !tune) return undefined
    const notes = [...doc.base.notes, ...preview.base.notes]
    const measures = new Set(notes.filter((n) => changed?.has(n.id)).map((n) => n.pos.measure)).size
    return {
      count: measures,
      before: meanEffort(tune, doc).toFixed(1),
      after: meanEffort(tune, preview).toFixed(1),
    }
  }, [preview, doc, tune, changed])
  return words ? (
    <div className={css['preview-note']} role="status" data-testid="preview">
      {t('arrange.preview', words)}
    </div>
  ) : null
}

const meanEffort = (tune: TuneDoc, { setup, base }: ArrangementDoc): number =>
  tuneEffort(effortOf(tune, setup, base, timelineOf(tune.measures))).mean
