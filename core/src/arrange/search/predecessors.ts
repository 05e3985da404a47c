import type { CandidateSet, VoiceKey } from './candidate.ts'
import type { Transition } from './transition.ts'

/** Candidates whose hand stands at one place of the neck, cheapest first. */
export interface CandidatesAtPosition {
  /** Of the index finger, from the nut. */
  readonly mm: number
  /** True where all that sounds is open, so that the hand may travel. */
  readonly openOnly: boolean
  readonly members: readonly number[]
}

/** The candidates of one slice from which a candidate of the next may come. */
export type Predecessors = (j: number) => readonly CandidatesAtPosition[]

/**
 * Sorts the candidates of a slice by the notes that the next slice holds over, and by where the hand stands. Each
 * combination of voices is sorted when it is first asked for.
 * @param order the candidates of `a` that come into question, cheapest first
 */
export function predecessorsOf(
  a: CandidateSet,
  b: CandidateSet,
  order: ArrayLike<number>,
  step: Transition,
): Predecessors {
  const sorted: (ReadonlyMap<number, readonly CandidatesAtPosition[]> | undefined)[] = []
  const { holdsBass, holdsInner } = step
  const planted = step.holdsMelody ? b.melody : step.ringsOn ? b.planted : undefined
  return (j) => {
    const melody = planted ? planted[j]! : 0
    const bass = holdsBass ? b.bass[j]! : 0
    const inner = holdsInner ? b.inner[j]! : 0
    const voices = (melody === 0 ? 0 : 1) | (bass === 0 ? 0 : 2) | (inner === 0 ? 0 : 4)
    const byNotes = (sorted[voices] ??= byHeldNotes(a, order, voices))
    return byNotes.get(notesKey(melody, bass, inner, voices)) ?? NOBODY
  }
}

const NOBODY: readonly CandidatesAtPosition[] = []

function byHeldNotes(
  set: CandidateSet,
  order: ArrayLike<number>,
  voices: number,
): ReadonlyMap<number, readonly CandidatesAtPosition[]> {
  const found = new Map<number, (CandidatesAtPosition & { readonly members: number[] })[]>()
  for (let k = 0; k < order.length; k++) {
    const i = order[k]!
    const key = notesKey(
      voices & 1 ? set.melody[i]! : 0,
      voices & 2 ? set.bass[i]! : 0,
      voices & 4 ? set.inner[i]! : 0,
      voices,
    )
    let standings = found.get(key)
    if (!standings) found.set(key, (standings = []))
    const mm = set.positionMm[i]!
    const openOnly = set.openOnly[i] === 1
    const own = standings.find((s) => s.mm === mm && s.openOnly === openOnly)
    if (own) own.members.push(i)
    else standings.push({ mm, openOnly, members: [i] })
  }
  return found
}

/** One number for the notes of some voices; of one or two voices a small one, which is looked up faster. */
function notesKey(melody: VoiceKey, bass: VoiceKey, inner: VoiceKey, voices: number): number {
  switch (voices) {
    case 7:
      return (melody * 32768 + bass) * 32768 + inner
    case 3:
      return melody * 32768 + bass
    case 5:
      return melody * 32768 + inner
    case 6:
      return bass * 32768 + inner
    default:
      return melody + bass + inner
  }
}
