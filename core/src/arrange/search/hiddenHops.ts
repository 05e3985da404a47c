import { codeFret, codeLow, codeTop, fingerCode } from '../../hand/grip/pressed.ts'
import { codeAt, keyFinger, keyFret, keyString, type CandidateSet, type VoiceKey } from './candidate.ts'
import { HOP_LIMIT_S } from '../../instrument/handLimits.ts'

/** A finger that must jump although the search over neighbouring slices does not see it. */
export interface HiddenHop {
  /** Slice at which it lands. */
  readonly slice: number
  /** 0 for the index finger. */
  readonly finger: number
  /** Where it was. */
  readonly from: number
  /** True where two notes under one barre follow each other across a string between them: a page reads as a jump. */
  readonly inBarre: boolean
}

/** The notes that a candidate strikes in its slice. */
export type StruckVoices = (slice: number, candidate: number) => readonly VoiceKey[]

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
        const to = codeAt(sets[t]!, choice[t]!, finger)
        const from = codeAt(sets[back]!, choice[back]!, finger)
        if (to === 0 || from === 0 || !restsBetween(sets, choice, finger, back, t)) continue
        if (jumps(from, to)) hops.push({ slice: t, finger, from, inBarre: false })
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
  for (let t = from + 1; t < to; t++) if (codeAt(sets[t]!, choice[t]!, finger) !== 0) return false
  return true
}

/** Quick successions of notes under one finger on strings that are not neighbours: a barre can, a reader will not. */
export function barreHops(choice: Int32Array, seconds: readonly number[], struck: StruckVoices): HiddenHop[] {
  const hops: HiddenHop[] = []
  const last: ({ code: number; at: number } | undefined)[] = []
  let now = 0
  for (let t = 0; t < choice.length; t++) {
    now += seconds[t]!
    const notes = struck(t, choice[t]!).filter((key) => keyFret(key) > 0 && keyFinger(key) > 0)
    for (const key of notes) {
      const finger = keyFinger(key) - 1
      const before = last[finger]
      if (before && now - before.at < HOP_LIMIT_S - 1e-9 && jumps(before.code, noteCode(key)))
        hops.push({ slice: t, finger, from: before.code, inBarre: true })
    }
    for (const key of notes) last[keyFinger(key) - 1] = { code: noteCode(key), at: now }
  }
  return hops
}

/** True where a candidate takes a forbidden jump. */
export function takesHop(
  { slice, finger, from, inBarre }: HiddenHop,
  set: CandidateSet,
  candidate: number,
  struck: StruckVoices,
): boolean {
  if (inBarre)
    return struck(slice, candidate).some(
      (key) => keyFret(key) > 0 && keyFinger(key) === finger + 1 && jumps(from, noteCode(key)),
    )
  const code = codeAt(set, candidate, finger)
  return code !== 0 && jumps(from, code)
}

const noteCode = (key: VoiceKey): number => fingerCode(keyString(key), keyString(key), keyFret(key))
