import {
  isFresh,
  sameContent,
  toTaste,
  withHabits,
  type ArrangementDoc,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { useStore } from 'zustand'
import { hasten, useComesBehind } from '../../state/arrangedBehind.ts'
import { storedScore } from '../../state/documents.ts'
import { editScore, openScoreOf } from '../../state/openScore.ts'
import { useCurrentPlayer, usePlayersReady } from '../../state/players.ts'
import { arrangeInWorker } from '../../workers/benchWorker.ts'
import { Arranger, settingsAfter } from './arranger.ts'
import { tasteFor } from '../../state/tastes.ts'
import { settingsOf } from './settings.ts'

export type BenchArranger = ReturnType<typeof useArranger>

/** Share of what is being arranged that is done; undefined while nothing is. */
export const useProgress = ({ arranger }: BenchArranger): number | undefined =>
  useStore(arranger.store, (s) => s.progress)

/** The arranger of a tune, with what it is at and what stands on the bench. */
export function useArranger(
  tuneId: string,
  tune: TuneDoc | undefined,
  doc: ArrangementDoc | null | undefined,
) {
  const { t } = useTranslation()
  const player = useCurrentPlayer()
  const ready = usePlayersReady()
  const hand = useRef(player)
  useEffect(() => {
    hand.current = player
  })
  const arranger = useMemo(
    () =>
      new Arranger({
        score: () => openScoreOf(tuneId).score(),
        player: () => hand.current,
        solve: arrangeInWorker,
        edit: (label, edit) => editScore(tuneId, label, edit),
      }),
    [tuneId],
  )
  // Its progress is no matter of the whole bench: whoever shows it follows it (`useProgress`).
  const waiting = useStore(arranger.store, (s) => s.waiting)
  const failed = useStore(arranger.store, (s) => s.failed)
  const atWork = waiting.length > 0
  useEffect(() => () => arranger.cancel(), [arranger])
  // A tab that comes without being asked for is waited for; it comes next.
  const behind = useComesBehind(tuneId)
  useEffect(() => {
    if (behind) return hasten(tuneId)
    if (!ready || !tune || doc !== null) return
    let left = false
    // Storage may hold one already that the page has not heard of.
    void storedScore(tuneId).then(async (stored) => {
      if (left || stored?.arrangement || arranger.isAtWork()) return
      const own = await tasteFor(tuneId).catch(() => undefined)
      if (left) return
      void arranger.choose(t('arrange.command.first'), (now) => ({
        regions: toTaste(now.regions, own?.taste).map((r) => withHabits(r, own?.habits ?? [])),
      }))
    })
    return () => {
      left = true
    }
  }, [ready, tune, doc, arranger, behind, tuneId, t])
  const stale = useMemo(() => Boolean(tune && doc && !isFresh(tune, doc)), [tune, doc])
  const settings = useMemo(
    () => (tune ? settingsAfter(settingsOf(tune, doc), waiting) : undefined),
    [tune, doc, waiting],
  )
  const again = useCallback(() => arranger.choose(t('arrange.command.again'), (now) => now), [arranger, t])
  const rearrange = useCallback(
    (from: number, to: number) =>
      arranger.rearrange(t('arrange.command.selection', { count: to - from + 1 }), from, to),
    [arranger, t],
  )
  const accept = useCallback(() => arranger.accept(t('arrange.command.accept')), [arranger, t])
  const choose = useCallback<Arranger['choose']>(
    (label, change) => arranger.choose(label, change),
    [arranger],
  )
  const reshape = useCallback<Arranger['reshape']>(
    (label, change) => arranger.reshape(label, change),
    [arranger],
  )
  const cancel = useCallback(() => arranger.cancel(), [arranger])
  const forget = useCallback(() => arranger.forget(), [arranger])
  /** Set where the arrangement was made for another hand than the one in use. */
  const otherHand = ready && doc && !sameContent(doc.setup.player, player) ? player : undefined
  return useMemo(
    () => ({
      arranger,
      /** True while something is being arranged. */
      atWork,
      failed,
      /** What stands on the bench, or will when all that was chosen is arranged. */
      settings,
      choose,
      reshape,
      cancel,
      again,
      rearrange,
      accept,
      forget,
      stale,
      otherHand,
    }),
    [
      arranger,
      atWork,
      failed,
      settings,
      choose,
      reshape,
      cancel,
      again,
      rearrange,
      accept,
      forget,
      stale,
      otherHand,
    ],
  )
}
