import type { Setup } from '../instrument/setup.ts'
import type { PitchClass } from '../music/pitch/pitch.ts'
import { fretFromNut } from '../instrument/geometry.ts'

/**
 * What makes a shape a worse (or better) first choice for its chord, as counts and lengths. One price a feature
 * (`shapeWeights.ts`, fitted on the first choices of the open chord data set) makes the shape's cost; the features are
 * also the reasons shown.
 */
export const SHAPE_FEATURES = [
  'bassNotRoot',
  'noRoot',
  'innerMute',
  'position',
  'unison',
  'trebleMute',
  'bassMute',
  'openString',
  'noOpenString',
  'openUnderHighFret',
  'omittedTone',
  'spanMm',
  'pressedFinger',
  'sounding',
  'doubledThird',
  'fifthInBass',
  'farUp',
  'fourFretted',
  'doubledRoot',
  'fingering',
] as const

export type ShapeFeature = (typeof SHAPE_FEATURES)[number]

export const SHAPE_AT = Object.fromEntries(SHAPE_FEATURES.map((name, i) => [name, i])) as Record<
  ShapeFeature,
  number
>

/** Dearer fingerings than this are all "hard": what matters then is the shape. */
const DEAREST_FINGERING = 10

/** The fingering's part of the features: cost of the cheapest fingering, capped. */
export const fingeringFeature = (cost: number) => Math.min(DEAREST_FINGERING, cost)

/** What a shape is judged against. */
export interface ShapeGoal {
  readonly root: PitchClass
  /** The pitch class that belongs in the bass. */
  readonly bass: PitchClass
  readonly tones: readonly PitchClass[]
}

/** Pitches heard so far, by MIDI number. */
const heard = new Uint8Array(256)

/**
 * Measures a shape into `out` (length of `SHAPE_FEATURES`), without its fingering.
 * @param onNeck fret by string, string 1 first, counted from the nut where fretted
 */
export function shapeFeatures(
  setup: Setup,
  onNeck: readonly (number | null)[],
  goal: ShapeGoal,
  out: Float64Array,
): void {
  out.fill(0)
  const capo = Math.max(...setup.capo)
  let lowString = 0
  let topString = 0
  let lowest = Infinity
  let highest = 0
  let open = 0
  let sounding = 0
  let classes = 0
  let bass = -1
  let thirds = 0
  let roots = 0
  const third = goal.tones[1]!
  heard.fill(0)
  for (let string = onNeck.length; string >= 1; string--) {
    const fret = onNeck[string - 1]
    if (fret === null || fret === undefined) continue
    if (lowString === 0) lowString = string
    topString = string
    sounding++
    const pitch = setup.tuning[string - 1]! + (fret === 0 ? setup.capo[string - 1]! : fret)
    if (bass < 0) bass = pitch
    bass = Math.min(bass, pitch)
    if (heard[pitch] === 1) out[SHAPE_AT.unison]! += 1
    heard[pitch] = 1
    if (pitch % 12 === third) thirds++
    if (pitch % 12 === goal.root) roots++
    classes |= 1 << (pitch % 12)
    if (fret === 0) open++
    else {
      lowest = Math.min(lowest, fret)
      highest = Math.max(highest, fret)
    }
  }
  if (bass % 12 !== goal.bass) out[SHAPE_AT.bassNotRoot] = 1
  if ((classes & (1 << goal.root)) === 0) out[SHAPE_AT.noRoot] = 1
  out[SHAPE_AT.innerMute] = lowString - topString + 1 - sounding
  out[SHAPE_AT.trebleMute] = topString - 1
  out[SHAPE_AT.bassMute] = onNeck.length - lowString
  out[SHAPE_AT.openString] = open
  out[SHAPE_AT.sounding] = sounding
  out[SHAPE_AT.doubledThird] = Math.max(0, thirds - 1)
  out[SHAPE_AT.doubledRoot] = Math.max(0, roots - 1)
  out[SHAPE_AT.fifthInBass] = (bass - goal.root + 12) % 12 === 7 && goal.bass === goal.root ? 1 : 0
  for (const tone of goal.tones) if ((classes & (1 << tone)) === 0) out[SHAPE_AT.omittedTone]! += 1
  if (highest === 0) return
  out[SHAPE_AT.position] = lowest - capo - 1
  out[SHAPE_AT.farUp] = Math.max(0, lowest - capo - 5)
  out[SHAPE_AT.fourFretted] = open === 0 && sounding === 4 ? 1 : 0
  out[SHAPE_AT.noOpenString] = open === 0 ? 1 : 0
  out[SHAPE_AT.openUnderHighFret] = open > 0 ? Math.max(0, highest - capo - 4) : 0
  const { scaleLength } = setup.instrument
  out[SHAPE_AT.spanMm] = fretFromNut(scaleLength, highest) - fretFromNut(scaleLength, lowest)
  let last = -1
  for (const fret of onNeck)
    if (fret && fret !== last) {
      out[SHAPE_AT.pressedFinger]! += 1
      last = fret === lowest ? fret : -1
    }
}
