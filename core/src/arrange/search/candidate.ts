import { positionMm } from '../../hand/moves/handPosition.ts'
import type { Place, Setup } from '../../instrument/setup.ts'
import { fingerCodes, THUMB, type FingerCode, type Pressed } from '../../hand/grip/pressed.ts'
import type { Draft } from './draft.ts'

/**
 * A sounding note inside a grip: fret, string, finger, and the parts of a harmonic in one number; 0 where the voice is
 * silent. A held note must keep them all.
 */
export type VoiceKey = number

export function voiceKey(string: number, fret: number, finger: number, touch = 0): VoiceKey {
  return fret | (string << 5) | (finger << 9) | (touch << 12)
}

/** Stands in a key for an artificial harmonic, where a natural one has its parts (2 to 6). */
const ARTIFICIAL = 7

/** The key of a place under a finger. */
export const placeKey = ({ string, fret, harmonic = 0, artificial }: Place, finger: number): VoiceKey =>
  voiceKey(string, fret, finger, artificial ? ARTIFICIAL : harmonic)

export const keyFret = (key: VoiceKey): number => key & 31
export const keyString = (key: VoiceKey): number => (key >> 5) & 15
export const keyFinger = (key: VoiceKey): number => (key >> 9) & 7
export const keyPlace = (key: VoiceKey): Place => ({
  string: keyString(key),
  fret: keyFret(key),
  ...touchOf(key >> 12),
})
const touchOf = (touch: number): Pick<Place, 'harmonic' | 'artificial'> =>
  touch === ARTIFICIAL ? { artificial: true } : touch ? { harmonic: touch } : {}
/** True where two keys are one place, whatever the finger. */
export const samePlace = (a: VoiceKey, b: VoiceKey): boolean => (a & ~(7 << 9)) === (b & ~(7 << 9))

/** One way to hold a slice. */
export interface Candidate {
  readonly draft: Draft
  readonly pressed: readonly Pressed[]
  readonly position: number
  readonly melody: VoiceKey
  readonly bass: VoiceKey
  /** A fill or second voice. */
  readonly inner: VoiceKey
  /** The melody note before, ringing on beside a new one. */
  readonly planted: VoiceKey
  /** The further notes of a voicing that is struck here, from the lowest string. */
  readonly chord: readonly VoiceKey[]
  /** Index into the requirement's held shapes; −1 where no chord shape is held. */
  readonly heldShape: number
  /** The places of a voicing under the melody, five bits a string (fret + 1, 0 for none); 0 where no voicing sounds. */
  readonly lower: number
  /** Price paid once, and price for each beat that the grip is held. */
  readonly fixed: number
  readonly perBeat: number
}

/** Candidates of a set in groups of equals. */
export interface CandidateClasses {
  /** Group of each candidate. */
  readonly of: Int32Array
  /** A candidate of each group. */
  readonly member: Int32Array
}

/** The candidates of one slice, laid out for the solver's inner loop. */
export interface CandidateSet {
  readonly list: readonly Candidate[]
  /** Fingers of this hand: four, and the thumb where it is used. */
  readonly fingers: number
  /** Where each finger stands: `fingers` codes a candidate, index finger first, one candidate after the other. */
  readonly codes: Int16Array
  /** Index-finger position in mm from the nut. */
  readonly positionMm: Float64Array
  readonly melody: Int16Array
  readonly bass: Int16Array
  readonly inner: Int16Array
  readonly planted: Int16Array
  readonly heldShape: Int16Array
  readonly lower: Int32Array
  readonly fixed: Float64Array
  readonly perBeat: Float64Array
  /** 1 where everything that sounds is open, so that the hand may travel. */
  readonly openOnly: Uint8Array
  /** Groups of candidates that a join cannot tell apart, by what the join looks at; filled as they are asked for. */
  readonly classes: Map<number, CandidateClasses>
}

export function packCandidates(setup: Setup, list: readonly Candidate[]): CandidateSet {
  const n = list.length
  const fingers = setup.player.techniques.thumbOver ? THUMB : 4
  const set = {
    list,
    fingers,
    codes: new Int16Array(n * fingers),
    positionMm: new Float64Array(n),
    melody: new Int16Array(n),
    bass: new Int16Array(n),
    inner: new Int16Array(n),
    planted: new Int16Array(n),
    heldShape: new Int16Array(n),
    lower: new Int32Array(n),
    fixed: new Float64Array(n),
    perBeat: new Float64Array(n),
    openOnly: new Uint8Array(n),
    classes: new Map<number, CandidateClasses>(),
  }
  list.forEach((c, i) => {
    const codes: readonly FingerCode[] = fingerCodes(c.pressed)
    for (let f = 0; f < fingers; f++) set.codes[i * fingers + f] = codes[f]!
    set.positionMm[i] = positionMm(setup, c.position)
    set.melody[i] = c.melody
    set.bass[i] = c.bass
    set.inner[i] = c.inner
    set.planted[i] = c.planted
    set.heldShape[i] = c.heldShape
    set.lower[i] = c.lower
    set.fixed[i] = c.fixed
    set.perBeat[i] = c.perBeat
    set.openOnly[i] = soundsOpenOnly(c) ? 1 : 0
  })
  return set
}

/** Where a finger of a candidate stands; 0 for the index finger. */
export const codeAt = (set: CandidateSet, candidate: number, finger: number): FingerCode =>
  set.codes[candidate * set.fingers + finger]!

/** True where nothing that sounds needs a finger. */
export function soundsOpenOnly(c: Candidate): boolean {
  const open = (key: VoiceKey) => keyFret(key) === 0
  return open(c.melody) && open(c.bass) && open(c.inner) && open(c.planted) && c.chord.every(open)
}
