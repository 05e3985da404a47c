import {
  timelineOf,
  variantsOf,
  withVariant,
  type ArrangementDoc,
  type TuneDoc,
  type Variant,
} from '@velvet-porch/core/document'
import { withoutOptional } from '@velvet-porch/core/arrange'
import { useMemo } from 'react'
import { setPrefs, usePrefs } from '../../state/prefs.ts'

/** Whether the hand in use leaves out what may be left out, and the switch for it. */
export function useLeavingOut(): readonly [boolean, (on: boolean) => void] {
  const { player = '', leaveOut } = usePrefs()
  const others = leaveOut.filter((id) => id !== player)
  return [
    leaveOut.includes(player),
    (on) => setPrefs({ leaveOut: on ? [...others, player] : others }),
  ] as const
}

/** An arrangement as it is written, and as the hand in use plays it. */
export interface AsPlayed<D> {
  readonly played: D
  /** Other versions of measures that this hand plays throughout. */
  readonly own: readonly Variant[]
}

const NONE: readonly Variant[] = []

/**
 * An arrangement as the hand in use plays it: with its own versions of measures, and without what may be left out.
 * @param asWritten true where the hand's own versions are put aside
 */
export function useAsPlayed<D extends ArrangementDoc | null | undefined>(
  tune: TuneDoc | undefined,
  doc: D,
  asWritten: boolean,
): AsPlayed<D> {
  const [leaves] = useLeavingOut()
  const { player } = usePrefs()
  const own = useMemo(
    () => (tune && doc && doc.variants.length > 0 ? variantsOf(tune, doc, player) : NONE),
    [tune, doc, player],
  )
  const played = useMemo(() => {
    if (!tune || !doc || (!leaves && (own.length === 0 || asWritten))) return doc
    const base = asWritten ? doc.base : own.reduce((layer, v) => withVariant(layer, v), doc.base)
    return { ...doc, base: leaves ? withoutOptional(base, timelineOf(tune.measures)) : base }
  }, [leaves, own, asWritten, tune, doc])
  return { played, own }
}
