import type { ArrangementDoc, TuneDoc, Variant } from '@velvet-porch/core/document'
import { useMemo } from 'react'
import { useAsPlayed } from '../arrange/useAsPlayed.ts'
import type { PlayerRow } from '../../state/db.ts'
import { playerOf, usePlayers } from '../../state/players.ts'
import { usePrefs } from '../../state/prefs.ts'

/** An arrangement as it is taught to a student. */
export interface Taught {
  /** With the student's own versions of measures, measured for the student's hand. */
  readonly doc: ArrangementDoc
  /** The student; absent where the tab is taught to nobody in particular, for the hand of its setup. */
  readonly student: PlayerRow | undefined
  /** Other versions of measures that this student plays. */
  readonly own: readonly Variant[]
}

/** The arrangement for the hand in use. */
export function useTaught(tune: TuneDoc, doc: ArrangementDoc): Taught {
  const { player } = usePrefs()
  const student = usePlayers().find((p) => p.id === player)
  const { played, own } = useAsPlayed(tune, doc, false)
  const taught = useMemo(
    () => (student ? { ...played, setup: { ...played.setup, player: playerOf(student) } } : played),
    [played, student],
  )
  return { doc: taught, student, own }
}
