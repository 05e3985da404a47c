import { timelineOf, withoutOptional, type ArrangementDoc, type TuneDoc } from '@velvet-porch/core'
import { useMemo } from 'react'
import { setPrefs, usePrefs } from '../store/prefs.ts'

/** Whether the hand in use leaves out what may be left out, and the switch for it. */
export function useLeavingOut(): readonly [boolean, (on: boolean) => void] {
  const { player = '', leaveOut } = usePrefs()
  const others = leaveOut.filter((id) => id !== player)
  return [
    leaveOut.includes(player),
    (on) => setPrefs({ leaveOut: on ? [...others, player] : others }),
  ] as const
}

/** An arrangement as the hand in use plays it: whole, or without what may be left out. */
export function useAsPlayed<D extends ArrangementDoc | null | undefined>(
  tune: TuneDoc | undefined,
  doc: D,
): D {
  const [leaves] = useLeavingOut()
  return useMemo(() => {
    if (!leaves || !tune || !doc) return doc
    return { ...doc, base: withoutOptional(doc.base, timelineOf(tune.measures)) }
  }, [leaves, tune, doc])
}
