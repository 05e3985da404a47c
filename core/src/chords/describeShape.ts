import { nameChord } from '../music/harmony/nameChord.ts'
import type { ChordReading } from '../music/harmony/chordSymbol.ts'
import type { LeftFinger } from '../instrument/hand.ts'
import { pitchAt, type Setup } from '../instrument/setup.ts'
import type { Midi } from '../music/pitch/pitch.ts'
import { soundingPitches } from './nameShape.ts'

/** A finger lying on several strings. Strings from `top` (highest-pitched) to `low`; the fret counts from the capo. */
export interface Barre {
  readonly finger: LeftFinger
  readonly fret: number
  readonly top: number
  readonly low: number
}

/** The barres of a fingered shape. */
export function barresOf(frets: readonly (number | null)[], fingers: readonly LeftFinger[]): Barre[] {
  const barres: Barre[] = []
  for (const finger of [1, 2, 3, 4, 'T'] as const) {
    const strings = fingers.flatMap((f, i) => (f === finger ? [i + 1] : []))
    if (strings.length > 1)
      barres.push({ finger, fret: frets[strings[0]! - 1]!, top: strings[0]!, low: strings.at(-1)! })
  }
  return barres
}

/**
 * A string that does not sound. Outside the sounding strings it is simply not played, so touching it is harmless;
 * between them it must be stopped by a finger.
 */
export interface SilentString {
  readonly string: number
  readonly kind: 'notPlayed' | 'muted'
  /** The finger that stops it: its flat side, its tip, or the barre lying loosely over it. */
  readonly by?: { readonly finger: LeftFinger; readonly how: 'side' | 'tip' | 'barre' }
  /** What it would sound when it is not stopped, and the chord that would be heard. */
  readonly pitch: Midi
  readonly heard?: ChordReading
}

/** The strings of a shape that do not sound, with what stops them. */
export function silentStrings(
  setup: Setup,
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
): SilentString[] {
  const sounding = frets.flatMap((f, i) => (f === null ? [] : [i + 1]))
  const barres = barresOf(frets, fingers)
  return frets.flatMap((fret, i): SilentString[] => {
    if (fret !== null) return []
    const string = i + 1
    const inside = string > sounding[0]! && string < sounding.at(-1)!
    const barre = barres.find((b) => reachesOver(b, string, frets))
    const ringing = frets.map((f, j) => (j === i ? (barre?.fret ?? 0) : f))
    const by = stopperOf(string, frets, fingers, barre)
    const heard = nameChord(soundingPitches(setup, ringing))[0]
    return [
      {
        string,
        kind: inside ? 'muted' : 'notPlayed',
        ...(by ? { by } : {}),
        pitch: pitchAt(setup, { string, fret: barre?.fret ?? 0 }),
        ...(heard ? { heard } : {}),
      },
    ]
  })
}

/**
 * The chord that would be heard if nothing were stopped: every string under the barre sounds its fret, the others ring
 * open.
 * @example heardIfAllRing(setup, b, fingers) // B69 for 7-x-4-4-4-x
 */
export function heardIfAllRing(
  setup: Setup,
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
): ChordReading | undefined {
  const barres = barresOf(frets, fingers)
  const ringing = frets.map((fret, i) => fret ?? barres.find((b) => reachesOver(b, i + 1, frets))?.fret ?? 0)
  return nameChord(soundingPitches(setup, ringing))[0]
}

/** An index barre from string 1 or 2 lies over every string up to its far end, whether it presses or not. */
function reachesOver(barre: Barre, string: number, frets: readonly (number | null)[]): boolean {
  if (string >= barre.top && string <= barre.low) return true
  return barre.finger === 1 &&
    barre.low - barre.top >= 1 &&
    string === barre.top - 1 &&
    frets[string - 1] === null
    ? true
    : barre.finger === 1 && string === barre.low + 1 && barre.low - barre.top >= 2
}

function stopperOf(
  string: number,
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
  barre: Barre | undefined,
): SilentString['by'] {
  const bassSide = fingers[string]
  if (bassSide && frets[string]) return { finger: bassSide, how: 'side' }
  if (barre) return { finger: barre.finger, how: 'barre' }
  const trebleSide = fingers[string - 2]
  if (trebleSide && frets[string - 2]) return { finger: trebleSide, how: 'tip' }
  return undefined
}

/** An open string that rings beside a fingertip: a finger that lies flat would damp it. */
export interface AtRisk {
  readonly string: number
  readonly finger: LeftFinger
}

/** Open strings that a flat finger on the next lower string would damp. */
export function openStringsAtRisk(
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
): AtRisk[] {
  return frets.flatMap((fret, i) => {
    const finger = fingers[i + 1]
    return fret === 0 && finger && finger !== 'T' && frets[i + 1] ? [{ string: i + 1, finger }] : []
  })
}
