import { ARRANGEMENT_SCHEMA, type ArrangementDoc } from '../document/arrangement.ts'
import { timelineOf } from '../document/form/timeline.ts'
import { hashing } from '../document/freshness/inputHash.ts'
import { lockId, lockOf, type Lock } from '../document/locks.ts'
import type { School } from '../document/school.ts'
import type { Score } from '../document/score.ts'
import type { TabNote } from '../document/tab.ts'
import type { TuneDoc } from '../document/tune.ts'
import type { Setup } from '../instrument/setup.ts'
import { findingHands } from '../arrange/manual/findHands.ts'
import { joinedUp } from '../arrange/manual/placed.ts'
import type { Turns } from '../turns.ts'

/** Notes whose places are given, and what they are played on. */
export interface GivenNotes {
  readonly tune: TuneDoc
  readonly setup: Setup
  /** Fingers that are not given are 0 or `none`. */
  readonly notes: readonly TabNote[]
  /** Semitones by which the tab sounds above what the tune writes. */
  readonly transposed: number
  readonly school?: School | undefined
  /** True where the notes accompany a melody that is sung. */
  readonly isBacking?: boolean
}

/** A score of given notes: what is given is locked as typed, both hands are found around it. */
export function* givenScore({
  tune,
  setup,
  notes,
  transposed,
  school,
  isBacking = false,
}: GivenNotes): Turns<Required<Score>> {
  const regions = [
    {
      from: tune.measures[0]!.id,
      to: tune.measures.at(-1)!.id,
      style: isBacking ? ('picking' as const) : ('melody-bass' as const),
      level: 3 as const,
      given: true as const,
      ...(school ? { school } : {}),
    },
  ]
  yield
  const timeline = timelineOf(tune.measures)
  yield
  const joined = joinedUp({ notes, spans: [], grips: [], locks: [] }, timeline)
  const every = new Set(tune.measures.map((m) => m.id))
  const fingers = joined.notes.flatMap(fingerLocks)
  yield
  const context = { tune, setup, regions, transposed }
  const base = yield* findingHands({ ...joined, locks: fingers }, context, every, false)
  yield
  const locks = [...base.notes.map((n) => lockOf('typed', lockId('typed', n.id), n.id, n)), ...fingers]
  yield
  const arrangement: ArrangementDoc = {
    schema: ARRANGEMENT_SCHEMA,
    id: `${tune.id}.a`,
    rev: 1,
    name: tune.title,
    tuneId: tune.id,
    tuneRev: tune.rev,
    inputHash: yield* hashing(tune, setup, regions, locks),
    setup,
    regions,
    transposed,
    base: { ...base, locks },
    variants: [],
  }
  return { tune, arrangement }
}

/** The fingers that are given, as settled. */
const fingerLocks = ({ id, left, right }: TabNote): Lock[] => [
  ...(left === 0 ? [] : [lockOf('left', lockId('left', id), id, left)]),
  ...(right === 'none' ? [] : [lockOf('right', lockId('right', id), id, right)]),
]
