import { fretFromNut } from '../neck/geometry.ts'
import type { Setup } from '../neck/setup.ts'
import { fingerCodes, type FingerCode, type Pressed } from '../grip/pressed.ts'

/**
 * A sounding note inside a grip: fret, string and finger in one number; 0 where the voice is silent.
 * A held note must keep all three.
 */
export type VoiceKey = number

export function voiceKey(string: number, fret: number, finger: number): VoiceKey {
  return fret | (string << 5) | (finger << 9)
}
export const keyFret = (key: VoiceKey): number => key & 31
export const keyString = (key: VoiceKey): number => (key >> 5) & 15
export const keyFinger = (key: VoiceKey): number => key >> 9

/** One way to hold a slice. */
export interface Candidate {
  readonly pressed: readonly Pressed[]
  readonly position: number
  readonly melody: VoiceKey
  readonly bass: VoiceKey
  /** Index into the wish's frames; −1 where no chord shape is held. */
  readonly frame: number
  /** Price paid once, and price for each beat that the grip is held. */
  readonly fixed: number
  readonly perBeat: number
}

/** The candidates of one slice, laid out for the solver's inner loop. */
export interface CandidateSet {
  readonly list: readonly Candidate[]
  readonly fingers: readonly [Int16Array, Int16Array, Int16Array, Int16Array]
  /** Index-finger position in mm from the nut. */
  readonly positionMm: Float64Array
  readonly melody: Int16Array
  readonly bass: Int16Array
  readonly fixed: Float64Array
  readonly perBeat: Float64Array
  /** 1 where everything that sounds is open, so that the hand may travel. */
  readonly openOnly: Uint8Array
}

export function packCandidates(setup: Setup, list: readonly Candidate[]): CandidateSet {
  const n = list.length
  const fingers: [Int16Array, Int16Array, Int16Array, Int16Array] = [
    new Int16Array(n),
    new Int16Array(n),
    new Int16Array(n),
    new Int16Array(n),
  ]
  const set = {
    list,
    fingers,
    positionMm: new Float64Array(n),
    melody: new Int16Array(n),
    bass: new Int16Array(n),
    fixed: new Float64Array(n),
    perBeat: new Float64Array(n),
    openOnly: new Uint8Array(n),
  }
  list.forEach((c, i) => {
    const codes: readonly FingerCode[] = fingerCodes(c.pressed)
    for (let f = 0; f < 4; f++) fingers[f]![i] = codes[f]!
    set.positionMm[i] = fretFromNut(setup.instrument.scaleLength, c.position + setup.capo[0]!)
    set.melody[i] = c.melody
    set.bass[i] = c.bass
    set.fixed[i] = c.fixed
    set.perBeat[i] = c.perBeat
    set.openOnly[i] = keyFret(c.melody) === 0 && keyFret(c.bass) === 0 ? 1 : 0
  })
  return set
}
