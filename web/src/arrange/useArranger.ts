import {
  arrangementOf,
  guitarSetup,
  inputHash,
  STANDARD_TUNING,
  wholeTune,
  type ArrangementDoc,
  type Level,
  type Style,
  type TuneDoc,
  type Tuning,
} from '@velvet-porch/core'
import { useCallback, useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { db } from '../store/db.ts'
import { change } from '../store/documents.ts'
import { useCurrentPlayer, usePlayersReady } from '../store/players.ts'
import { arrangementId } from '../store/shelf.ts'
import { arrangeInWorker, type ArrangeRun } from '../worker/benchWorker.ts'

export interface Settings {
  readonly style: Style
  readonly level: Level
  readonly capo: number
  readonly tuning: Tuning
}

export const FIRST_SETTINGS: Settings = {
  style: 'melody-bass',
  level: 1,
  capo: 0,
  tuning: STANDARD_TUNING,
}

export const settingsOf = (doc: ArrangementDoc): Settings => ({
  style: doc.regions[0]!.style,
  level: doc.regions[0]!.level,
  capo: doc.setup.capo[0]!,
  tuning: doc.setup.tuning,
})

interface Work {
  readonly progress?: number
  readonly failed?: string
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
  const arrange = useCallback(
    async (settings: Settings, label: string) => {
      if (!tune) return
      running.current?.cancel()
      const setup = { ...guitarSetup(settings.capo), tuning: settings.tuning, player }
      const regions = wholeTune(tune, settings.style, settings.level)
      setWork({ progress: 0, wanted: settings })
      const run = arrangeInWorker(tune, setup, regions, (progress) => {
        if (running.current === run) setWork((w) => ({ ...w, progress }))
      })
      running.current = run
      const reply = await run.reply
      if (running.current !== run) return
      running.current = undefined
      if (reply.kind === 'failed') return setWork({ failed: reply.message, wanted: settings })
      setWork({})
      if (reply.kind === 'cancelled') return
      const id = arrangementId(tune.id)
      const made = arrangementOf(id, tune.title, tune, setup, regions, reply)
      if (!(await db.arrangements.get(id))) await db.arrangements.put(made)
      else {
        await change('arrangement', id, label, (draft) => {
          const { setup: s, regions: r, inputHash: hash, transposed, base, tuneRev } = structuredClone(made)
          Object.assign(draft, { setup: s, regions: r, inputHash: hash, transposed, base, tuneRev })
        })
      }
    },
    [tune, player],
  )
  useEffect(() => {
    if (ready && tune && doc === null && !running.current)
      void arrange(FIRST_SETTINGS, t('arrange.command.first'))
  }, [ready, tune, doc, arrange, t])
  useEffect(() => () => running.current?.cancel(), [])
  const stale = Boolean(tune && doc && inputHash(tune, doc.setup, doc.regions) !== doc.inputHash)
  const again = useCallback(
    () => arrange(doc ? settingsOf(doc) : FIRST_SETTINGS, t('arrange.command.again')),
    [arrange, doc, t],
  )
  /** Set where the arrangement was made for another hand than the one in use. */
  const otherHand =
    ready && doc && JSON.stringify(doc.setup.player) !== JSON.stringify(player) ? player : undefined
  return { ...work, arrange, cancel, again, stale, otherHand }
}
