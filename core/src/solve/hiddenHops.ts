import { codeFret, codeLow, codeTop } from '../grip/pressed.ts'
import type { CandidateSet } from './candidate.ts'
import { HOP_LIMIT_S } from './weights.ts'

/** A finger that must jump although the slices in between do not use it. */
export interface HiddenHop {
  /** Slice at which it lands. */
  readonly slice: number
  /** 0 for the index finger. */
  readonly finger: number
  /** Where it was. */
  readonly from: number
}

/**
 * Jumps that the search over neighbouring slices cannot see: a finger rests for a slice or two and is then needed on
 * another string sooner than `HOP_LIMIT_S`.
 */
export function hiddenHops(
  sets: readonly CandidateSet[],
  choice: Int32Array,
  seconds: readonly number[],
): HiddenHop[] {
  const hops: HiddenHop[] = []
  for (let t = 2; t < sets.length; t++) {
    let since = seconds[t]!
    for (let back = t - 2; back >= 0 && since + seconds[back + 1]! < HOP_LIMIT_S - 1e-9; back--) {
      since += seconds[back + 1]!
      for (let finger = 0; finger < 4; finger++) {
        const to = sets[t]!.fingers[finger]![choice[t]!]!
        const from = sets[back]!.fingers[finger]![choice[back]!]!
        if (to === 0 || from === 0 || !restsBetween(sets, choice, finger, back, t)) continue
        if (jumps(from, to)) hops.push({ slice: t, finger, from })
      }
    }
  }
  return hops
}

/** True for a change of string that is not a roll to the neighbouring string at one fret. */
export function jumps(from: number, to: number): boolean {
  const apart = codeTop(from) > codeLow(to) || codeTop(to) > codeLow(from)
  if (!apart) return false
  const roll =
    codeFret(from) === codeFret(to) && codeTop(from) <= codeLow(to) + 1 && codeTop(to) <= codeLow(from) + 1
  return !roll
}

function restsBetween(
  sets: readonly CandidateSet[],
  choice: Int32Array,
  finger: number,
  from: number,
  to: number,
): boolean {
  for (let t = from + 1; t < to; t++) if (sets[t]!.fingers[finger]![choice[t]!] !== 0) return false
  return true
}
