import type { ArrangementDoc } from '@velvet-porch/core/document'
import { arrangementOf } from '@velvet-porch/core/arrange'
import { useEffect, useMemo, useRef } from 'react'
import { player } from '../../../score/playback/player.ts'
import { openScoreOf } from '../../../state/openScore.ts'
import { useCurrentPlayer } from '../../../state/players.ts'
import type { ArrangeRun } from '../../../workers/arrangeRun.ts'
import { previewInWorker } from '../../../workers/previewWorker.ts'
import { setupFor, type SettingsChange } from '../arranger.ts'
import { settingsOf } from '../settings.ts'
import type { BenchStore } from './benchStore.ts'

/** Shows what a choice would make of the tab, or a version as it is kept; undefined puts it away. */
export type Look = (at: SettingsChange | ArrangementDoc | undefined) => void

/**
 * Looks at choices before they are taken: the sheet shows each as it would be, and leaves no trace of it.
 * @param doc what stands: once that is another, what was looked at is taken or out of date
 */
export function usePreview(id: string, store: BenchStore, doc: ArrangementDoc | null | undefined): Look {
  const hand = useCurrentPlayer()
  const handNow = useRef(hand)
  useEffect(() => {
    handNow.current = hand
  })
  const run = useRef<ArrangeRun>(undefined)
  const look = useMemo<Look>(
    () => (at) => {
      const put = (preview: ArrangementDoc | undefined) => {
        if (store.getState().preview !== preview) store.setState({ preview })
      }
      run.current?.cancel()
      run.current = undefined
      const { tune, arrangement: stands } = openScoreOf(id).score() ?? {}
      // What is heard is not changed under the ear.
      if (!at || !tune || !stands || player.snapshot().playing) return put(undefined)
      if (typeof at !== 'function') return put(at)
      const now = settingsOf(tune, stands)
      const settings = { ...now, ...at(now) }
      const setup = setupFor(settings, handNow.current)
      const { regions, locks } = settings
      const own = previewInWorker({ tune, setup, regions, locks })
      run.current = own
      void own.reply.then((reply) => {
        if (run.current !== own) return
        const made =
          reply.kind === 'done'
            ? arrangementOf(stands.id, stands.name, tune, setup, regions, reply)
            : undefined
        put(made)
      })
    },
    [id, store],
  )
  useEffect(() => () => look(undefined), [doc, look])
  return look
}
