import {
  arrangementOf,
  isFresh,
  locksAround,
  madeFresh,
  sameContent,
  setupOf,
  STANDARD_TUNING,
  tidyRegions,
  wholeTune,
  withSelection,
  withShift,
  type ArrangementDoc,
  type Id,
  type InstrumentKind,
  type Lock,
  type Region,
  type TuneDoc,
  type Tuning,
} from '@velvet-porch/core'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { editScore } from '../store/openScore.ts'
import { useCurrentPlayer, usePlayersReady } from '../store/players.ts'
import { arrangementId } from '../store/shelf.ts'
import type { ArrangeOrder } from '../worker/bench.worker.ts'
import { arrangeInWorker, type ArrangeRun } from '../worker/benchWorker.ts'

/** All that is chosen on the bench: what is arranged where, for which instrument, and what is to stay as it is. */
export interface Settings {
  readonly regions: readonly Region[]
  readonly instrument: InstrumentKind
  readonly tuning: Tuning
  readonly capo: number
  /** Semitones from the tune's own key; absent: none. */
  readonly shift?: number
  /** The octave that is asked for; absent: the arranger's choice. */
  readonly octave?: number
  readonly locks: readonly Lock[]
}

const firstSettings = (tune: TuneDoc): Settings => ({
  // Chords without a melody can only be accompanied.
  regions: wholeTune(
    tune,
    tune.events.some((e) => e.pitch) || tune.chords.length === 0 ? 'melody-bass' : 'strum',
    1,
  ),
  instrument: 'guitar',
  tuning: STANDARD_TUNING,
  capo: 0,
  locks: [],
})

export const settingsOf = (tune: TuneDoc, doc: ArrangementDoc): Settings => ({
  regions: tidyRegions(tune, doc.regions),
  instrument: doc.setup.instrument.kind,
  tuning: doc.setup.tuning,
  capo: doc.setup.capo[0]!,
  ...(doc.setup.shift ? { shift: doc.setup.shift } : {}),
  ...(doc.setup.octave === undefined ? {} : { octave: doc.setup.octave }),
  locks: doc.base.locks,
})

/** Why an order could not be carried out. */
export interface Failure {
  readonly message: string
  /** Locks that contradict. */
  readonly locks: readonly Id[]
  readonly settings: Settings
  readonly label: string
}

interface Work {
  readonly progress?: number
  readonly failed?: Failure
  /** Settings that are being worked on. */
  readonly wanted?: Settings
}

export type Arranger = ReturnType<typeof useArranger>

/** Arranges in the worker; the result enters the document as one command. */
export function useArranger(tune: TuneDoc | undefined, doc: ArrangementDoc | null | undefined) {
  const { t } = useTranslation()
  const player = useCurrentPlayer()
  const ready = usePlayersReady()
  const [work, setWork] = useState<Work>({})
  const running = useRef<ArrangeRun | undefined>(undefined)
  const cancel = useCallback(() => running.current?.cancel(), [])
  /** Has the worker solve an order; undefined where it failed, was stopped, or another order took its place. */
  const solve = useCallback(async (order: ArrangeOrder, wanted: Settings, label: string) => {
    running.current?.cancel()
    setWork({ progress: 0, wanted })
    const run = arrangeInWorker(order, (progress) => {
      if (running.current === run) setWork((w) => ({ ...w, progress }))
    })
    running.current = run
    const reply = await run.reply
    if (running.current !== run) return undefined
    running.current = undefined
    if (reply.kind === 'cancelled') setWork({})
    else if (reply.kind === 'failed') {
      setWork({ failed: { message: reply.message, locks: reply.locks, settings: wanted, label } })
    }
    return reply.kind === 'done' ? reply : undefined
  }, [])
  /**
   * Ends the work on some settings once the document has them: until then whatever else is chosen goes on from them, not
   * from what stood before.
   */
  const settle = useCallback((wanted: Settings) => {
    setWork((w) => (w.wanted === wanted ? {} : w))
  }, [])
  const arrange = useCallback(
    async (settings: Settings, label: string) => {
      if (!tune) return
      const { regions, instrument, tuning, capo, shift, octave, locks } = settings
      const setup = withShift(setupOf(instrument, tuning, { fret: capo }, player), shift, octave)
      const reply = await solve({ tune, setup, regions, locks }, settings, label)
      if (!reply) return
      const id = arrangementId(tune.id)
      const made = arrangementOf(id, tune.title, tune, setup, regions, reply)
      const { setup: s, regions: r, inputHash, transposed, base, tuneRev } = made
      await editScore(tune.id, label, (score) => ({
        tune: score.tune,
        arrangement: score.arrangement
          ? { ...score.arrangement, setup: s, regions: r, inputHash, transposed, base, tuneRev }
          : made,
      }))
      settle(settings)
    },
    [tune, player, solve, settle],
  )
  useEffect(() => {
    if (ready && tune && doc === null && !running.current)
      void arrange(firstSettings(tune), t('arrange.command.first'))
  }, [ready, tune, doc, arrange, t])
  useEffect(() => () => running.current?.cancel(), [])
  const stale = useMemo(() => Boolean(tune && doc && !isFresh(tune, doc)), [tune, doc])
  const current = useMemo(
    () => (tune ? (doc ? settingsOf(tune, doc) : firstSettings(tune)) : undefined),
    [tune, doc],
  )
  const again = useCallback(
    async () => (current ? arrange(current, t('arrange.command.again')) : undefined),
    [arrange, current, t],
  )
  /** Arranges some measures alone; the others stay note for note. */
  const rearrange = useCallback(
    async (from: number, to: number) => {
      if (!tune || !doc || !current) return
      const selected = new Set(tune.measures.slice(from, to + 1).map((m) => m.id))
      const label = t('arrange.command.selection', { count: selected.size })
      const { setup, regions } = doc
      const reply = await solve(
        { tune, setup, regions, locks: locksAround(tune, doc, selected) },
        current,
        label,
      )
      if (!reply) return
      await editScore(tune.id, label, (score) => {
        if (!score.arrangement) return undefined
        const fresh = isFresh(score.tune, score.arrangement)
        const next = withSelection(score.tune, score.arrangement, reply.layer, selected)
        return { tune: score.tune, arrangement: fresh ? madeFresh(score.tune, next) : next }
      })
      settle(current)
    },
    [tune, doc, current, solve, settle, t],
  )
  /** Declares the tab as it stands an answer to the tune. */
  const accept = useCallback(
    async () =>
      tune &&
      void (await editScore(tune.id, t('arrange.command.accept'), (score) =>
        score.arrangement
          ? { tune: score.tune, arrangement: madeFresh(score.tune, score.arrangement) }
          : undefined,
      )),
    [tune, t],
  )
  const forget = useCallback(() => setWork(({ failed: _, ...rest }) => rest), [])
  /** Set where the arrangement was made for another hand than the one in use. */
  const otherHand = ready && doc && !sameContent(doc.setup.player, player) ? player : undefined
  return useMemo(
    () => ({
      ...work,
      /** What stands on the bench, or is being worked on. */
      settings: work.wanted ?? current,
      arrange,
      cancel,
      again,
      rearrange,
      accept,
      forget,
      stale,
      otherHand,
    }),
    [work, current, arrange, cancel, again, rearrange, accept, forget, stale, otherHand],
  )
}
