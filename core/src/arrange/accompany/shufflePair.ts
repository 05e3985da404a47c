import { present } from '../../invariant.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { fingersOf } from '../../instrument/hand.ts'
import { lastFret, openPitch, pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { mod12, type PitchClass } from '../../music/pitch/pitch.ts'

/** One note of a shuffle with its finger. */
export interface HeldPlace {
  readonly place: Place
  readonly finger: 0 | 1 | 2 | 3 | 4
}

/** The root on a bass string, and on the string above it the fifth, the sixth and the flat seventh. */
export interface ShufflePair {
  readonly root: HeldPlace
  readonly fifth: HeldPlace
  /** Absent where the hand does not reach it. */
  readonly sixth?: HeldPlace
  /** Absent where the hand does not reach it. */
  readonly seventh?: HeldPlace
}

/** Semitones above the root. */
const FIFTH = 7
const SIXTH = 9
const SEVENTH = 10

/** A shuffle stays low on the neck, and gives up a fret or two of comfort to have its sixth. No source. */
const HIGHEST_ROOT = 7
const WITHOUT_SIXTH = 4

/**
 * Where a hand plays a root with fifth and sixth in turn: low on the bass strings, where it reaches both if it can.
 * Open roots take index and ring finger (with an open fifth, as in open tunings, the index alone); stopped roots the
 * index, ring and little finger. Common practice, no source.
 * @param wantsSixth false where the fifth alone is played: then the root lies as low as it can
 */
export function shufflePair(setup: Setup, root: PitchClass, wantsSixth = true): ShufflePair | undefined {
  const { strings } = setup.instrument
  let best: { pair: ShufflePair; price: number } | undefined
  for (let string = strings; string >= Math.max(2, strings - 2); string--)
    for (let fret = 0; fret <= Math.min(HIGHEST_ROOT, lastFret(setup, string)); fret++) {
      if (mod12(pitchAt(setup, { string, fret })) !== root) continue
      const pair = pairAt(setup, { string, fret })
      if (!pair) continue
      const price = fret + (strings - string) * 0.5 + (pair.sixth || !wantsSixth ? 0 : WITHOUT_SIXTH)
      if (!best || price < best.price) best = { pair, price }
    }
  return best?.pair
}

function pairAt(setup: Setup, root: Place): ShufflePair | undefined {
  const upper = root.string - 1
  const fretOf = (semitones: number) => pitchAt(setup, root) + semitones - openPitch(setup, upper)
  const [fifth, sixth, seventh] = [fretOf(FIFTH), fretOf(SIXTH), fretOf(SEVENTH)]
  if (fifth < 0 || seventh > lastFret(setup, upper)) return undefined
  const lowest = root.fret > 0 ? root.fret : Math.max(1, fifth)
  const fingers = fingersOf(setup.player.techniques)
  const held = (fret: number): HeldPlace | undefined => {
    const place = { string: upper, fret }
    if (fret === 0) return { place, finger: 0 }
    const away = fret - lowest + 1
    const finger = [away, away - 1].find((f) => f >= 1 && f <= 4 && fingers.includes(f))
    return finger === undefined ? undefined : { place, finger: finger as HeldPlace['finger'] }
  }
  const low: HeldPlace = { place: root, finger: root.fret === 0 ? 0 : 1 }
  const [five, six, seven] = [held(fifth), held(sixth), held(seventh)]
  const reaches = (upperNote: HeldPlace | undefined) =>
    upperNote !== undefined &&
    // A stopped root keeps its finger; another one plays above it.
    (low.finger === 0 || upperNote.finger !== low.finger) &&
    !handFault(
      setup,
      setup.player.spans,
      [low, upperNote].flatMap(({ place, finger }) => (finger ? [{ ...place, finger }] : [])),
    )
  if (!reaches(five)) return undefined
  return {
    root: low,
    fifth: present(five),
    ...(reaches(six) ? { sixth: present(six) } : {}),
    ...(reaches(seven) ? { seventh: present(seven) } : {}),
  }
}
