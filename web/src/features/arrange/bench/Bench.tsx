import { memo, useCallback, useDeferredValue, useMemo, useState } from 'react'
import type { Score } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { useSearchParams } from 'react-router'
import { useStore } from 'zustand'
import { useWriting } from '../../../score/edit/useWriting.ts'
import { PlayControl } from '../../../score/playback/PlayControl.tsx'
import { usePlaying } from '../../../score/playback/usePlaying.ts'
import { useArrangement, useTune } from '../../../state/useTune.ts'
import { Part } from '../../../ui/Part.tsx'
import { noteEdit } from '../taste/noteTaken.ts'
import { useArrangeActions } from '../useArrangeActions.ts'
import { useArranger } from '../useArranger.ts'
import { useAsPlayed } from '../useAsPlayed.ts'
import { useAudit } from '../useAudit.ts'
import { usePrevious } from '../usePrevious.ts'
import { BenchPageContext, BenchStoreContext, type BenchPage } from './BenchContext.ts'
import { BenchHead } from './BenchHead.tsx'
import { BenchSheet } from './BenchSheet.tsx'
import { BenchSide } from './BenchSide.tsx'
import { createBench, markedIn } from './benchStore.ts'
import { useBesidePage } from './useBesidePage.ts'
import { useLit } from './useLit.ts'
import { PreviewNote } from './PreviewNote.tsx'
import { usePenOnBench } from './usePenOnBench.ts'
import { usePreview } from './usePreview.ts'
import { useShownPage } from './useShownPage.ts'

/**
 * One tune on the bench. What is written is on the sheet at once; what stands around the sheet follows as soon as there is
 * time for it, so that nobody waits for it while typing. `late` is what is shown there.
 */
export function Bench({ id }: { id: string }) {
  const opened = useTune(id)
  const tune = opened.state === 'ready' ? opened.doc : undefined
  const doc = useArrangement(id)
  const [address] = useSearchParams()
  const [store] = useState(() => createBench(markedIn(address, tune)))
  const { comparing, asWritten, position: chosen, marked, heard } = useStore(store)
  const { played, own } = useAsPlayed(tune, doc, asWritten)
  const score = useMemo(() => ({ tune, doc }), [tune, doc])
  const { t } = useTranslation()
  const onEdited = useCallback(
    (before: Score, after: Score) =>
      void noteEdit(before, after, t('taste.firstName')).catch(() => undefined),
    [t],
  )
  const writing = useWriting(id, false, undefined, onEdited)
  // Only who types must not wait for what stands around the sheet; whoever clicks there sees what he clicks.
  const typing = writing.on
  const later = useDeferredValue(score)
  const lateScore = typing ? later : score
  const arranger = useArranger(id, lateScore.tune, lateScore.doc)
  const look = usePreview(id, store, doc)
  const previous = usePrevious(lateScore.doc)
  const before = useMemo(() => (comparing ? previous?.doc() : undefined), [comparing, previous])
  const { model, signs, out, fits, changed, mayWrite } = useShownPage(store, tune, doc, played, before)
  const beside = useBesidePage(store, id, tune, doc)
  const position = chosen && model && chosen.measure < model.tune.measures.length ? chosen : undefined
  const { pen, onSheet, hear } = usePenOnBench(store, writing, mayWrite, model)
  const now = useMemo(
    () => ({ ...score, model, signs, out, position, marked, changed, hear, fits, before, mayWrite, writing }),
    [score, model, signs, out, position, marked, changed, hear, fits, before, mayWrite, writing],
  )
  const after = useDeferredValue(now)
  const late = typing ? after : now
  const { toggle, cursor } = usePlaying(
    heard === 'version' && beside ? beside.model : model,
    position,
    marked,
  )
  const compare = useCallback(() => store.setState((s) => ({ comparing: !s.comparing })), [store])
  useArrangeActions(
    id,
    arranger,
    doc,
    toggle,
    previous ? compare : undefined,
    mayWrite ? writing.toggle : undefined,
  )
  const settled = late.fits && !arranger.stale && !arranger.atWork
  // What stands beside the sheet speaks of the finished arrangement alone.
  const speaks = Boolean(late.tune && late.doc && settled && !late.before && !late.out)
  const checked = useMemo(
    () => (speaks && late.tune && late.doc ? { tune: late.tune, doc: late.doc } : undefined),
    [speaks, late.tune, late.doc],
  )
  const { report, faults } = useAudit(checked)
  const lit = useLit(store, tune, doc, changed ?? beside?.changed, faults, pen)
  const page = useMemo((): BenchPage | undefined => {
    const { tune, doc, model, signs, out } = late
    if (!model || !signs || doc === undefined) return undefined
    return {
      ...{ id, tune, doc, model, signs, out: out?.arrangement, hear: late.hear },
      ...{ position: late.position, marked: late.marked, changes: late.changed?.size ?? 0 },
      ...{ arranger, look, previous: previous?.label, own, checked, report },
      writing: late.mayWrite ? late.writing : undefined,
      lockable: late.fits && !late.before && !out,
    }
  }, [id, late, arranger, look, previous, own, checked, report])
  const numberOf = useCallback((m: number) => late.model?.numbers[m] ?? 0, [late.model])
  const onMark = useCallback((next: typeof marked) => store.setState({ marked: next }), [store])
  if (!model || !page) return null
  return (
    <BenchStoreContext value={store}>
      <BenchPageContext value={page}>
        <div className={pen ? 'bench writing' : 'bench'}>
          <Part name="head" of={[page.doc, page.model]}>
            <BenchHead />
          </Part>
          <div className="bench-sheet" aria-busy={arranger.atWork}>
            <PreviewNote changed={changed} />
            <Part name="sheet" of={[model, beside]}>
              <BenchSheet
                model={model}
                position={position}
                cursor={cursor}
                lit={lit}
                writing={onSheet}
                beside={beside}
              />
            </Part>
          </div>
          <Part name="side" of={[page.doc, page.position]}>
            <BenchSide />
          </Part>
          <Part name="player" of={[page.model]}>
            <Player
              name={tune?.title ?? ''}
              onToggle={toggle}
              marked={page.marked}
              numberOf={numberOf}
              measure={page.position?.measure}
              onMark={onMark}
            />
          </Part>
        </div>
      </BenchPageContext>
    </BenchStoreContext>
  )
}

const Player = memo(PlayControl)
