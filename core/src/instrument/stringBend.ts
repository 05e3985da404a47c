import { fretFromNut, stringSpacingAt } from './geometry.ts'
import { ADULT_SPANS, type HandSpans } from './hand.ts'
import type { Instrument } from './instrument.ts'
import { fretOnNeck, type Setup } from './setup.ts'

/** How a string pulls and stretches: its tension at its usual pitch, and its stiffness along its length, both in N. */
interface StringBuild {
  readonly tension: number
  readonly stiffness: number
  /** The pitch at which it has that tension. */
  readonly midi: number
}

/** Stiffness of the steel that carries a string: E·A with 200 GPa, for a diameter in mm. */
const steel = (mm: number): number => 200_000 * Math.PI * (mm / 2) ** 2

/**
 * Strings of a light set, string 1 first: tensions as makers print them, diameters of plain strings and of the cores of
 * wound ones. From memory.
 */
const BUILDS: Readonly<Record<'guitar' | 'mandolin', readonly StringBuild[]>> = {
  guitar: [
    { tension: 104, stiffness: steel(0.305), midi: 64 },
    { tension: 103, stiffness: steel(0.406), midi: 59 },
    { tension: 134, stiffness: steel(0.343), midi: 55 },
    { tension: 135, stiffness: steel(0.368), midi: 50 },
    { tension: 130, stiffness: steel(0.406), midi: 45 },
    { tension: 116, stiffness: steel(0.457), midi: 40 },
  ],
  mandolin: [
    { tension: 75, stiffness: steel(0.279), midi: 76 },
    { tension: 77, stiffness: steel(0.381), midi: 69 },
    { tension: 84, stiffness: steel(0.305), midi: 62 },
    { tension: 90, stiffness: steel(0.406), midi: 55 },
  ],
}

/** Force across the string, in N, that an adult's hand has at hand, and the most that it finds. Common practice, no source. */
const EASY_N = 24
const MOST_N = 40

/** Room between the outermost string and the edge of the neck, in mm. */
const EDGE_MM = 3

/** Nobody is asked for more than this. */
const MOST_SEMITONES = 4

/** What it takes to push a string up: force across it in N, and the way in mm that it goes. */
export interface BendEffort {
  readonly force: number
  readonly way: number
}

/**
 * What it takes to raise a place by pushing its string across the neck. The pitch goes with the root of the tension, the
 * tension with the stretch (Hooke), the stretch with the square of the way (a string held at both ends and pushed between
 * them).
 * @param place fret from the capo, 1 or higher
 */
export function bendEffort(
  setup: Setup,
  place: { readonly string: number; readonly fret: number },
  semitones: number,
): BendEffort {
  const { instrument, tuning } = setup
  const build = buildOf(instrument, place.string)
  const { scaleLength, doubling } = instrument
  const tension = build.tension * 2 ** ((tuning[place.string - 1]! - build.midi) / 6)
  const from = fretFromNut(scaleLength, setup.capo[place.string - 1] ?? 0)
  const length = scaleLength - from
  const behind = fretFromNut(scaleLength, fretOnNeck(setup, place)) - from
  const bend = 1 / behind + 1 / (length - behind)
  const tighter = tension * (2 ** (semitones / 6) - 1)
  const stretch = (length * tighter) / build.stiffness
  const way = Math.sqrt((2 * stretch) / bend)
  return { way, force: doubling * (tension + tighter) * way * bend }
}

/** How far a place can be pushed up, in semitones: by this hand with ease, and at all. */
export function bendRange(
  setup: Setup,
  place: { readonly string: number; readonly fret: number },
): { readonly easy: number; readonly most: number } {
  if (place.fret < 1) return { easy: 0, most: 0 }
  const { instrument, player } = setup
  const strength = handSize(player.spans) ** 2
  const across = Math.max(place.string - 1, instrument.strings - place.string)
  const room =
    EDGE_MM +
    across * stringSpacingAt(instrument, fretFromNut(instrument.scaleLength, fretOnNeck(setup, place)))
  let [easy, most] = [0, 0]
  for (let n = 1; n <= MOST_SEMITONES; n++) {
    const { force, way } = bendEffort(setup, place, n)
    if (way > room || force > MOST_N * strength) break
    most = n
    if (force <= EASY_N * strength) easy = n
  }
  return { easy, most }
}

function buildOf({ kind }: Instrument, string: number): StringBuild {
  const builds = BUILDS[kind === 'mandolin' ? 'mandolin' : 'guitar']
  return builds[string - 1] ?? builds.at(-1)!
}

/** Size of a hand beside an adult's; a larger one is no stronger for that. */
function handSize(spans: HandSpans): number {
  const sum = (s: HandSpans) => Object.values(s).reduce((a, b) => a + b, 0)
  return Math.min(1, sum(spans) / sum(ADULT_SPANS))
}
