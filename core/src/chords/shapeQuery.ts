import { bassPitchClass, chordPitchClasses, type ChordReading } from '../music/harmony/chordSymbol.ts'
import { toneNeeds } from '../music/harmony/chordTones.ts'
import { mod12, pitchClass, type Midi, type PitchClass } from '../music/pitch/pitch.ts'
import type { ShapeQuery } from './enumerateShapes.ts'
import type { ShapeGoal } from './shapeFeatures.ts'

/** What the player wants of a shape besides the chord. Strings count from 1, the highest-pitched. */
export interface ShapeFilters {
  /** The lowest note's pitch class; an inversion or a foreign bass. */
  readonly bass?: PitchClass
  /** The highest note, exactly: the melody. */
  readonly top?: Midi
  /** A place that must be part of the shape; its fret counts from the capo. */
  readonly through?: { readonly string: number; readonly fret: number }
  /** Strings left alone, and strings that must ring. */
  readonly leave?: readonly number[]
  readonly ring?: readonly number[]
  /** Lowest and highest fret for fingers, counted from the capo. */
  readonly zone?: readonly [number, number]
  /** Widest stretch in mm. */
  readonly maxStretch?: number
  readonly noBarre?: boolean
  /** The index finger lies across two strings or more, so that it can stay or slide from chord to chord. */
  readonly indexBarre?: boolean
  /** How many of the four fingers must stay free. */
  readonly freeFingers?: number
}

/** Highest fret that is searched unless the zone asks for more. */
export const USUAL_HIGHEST_FRET = 15

/** The search that a chord with filters asks for. */
export function shapeQuery(chord: ChordReading, filters: ShapeFilters): ShapeQuery {
  const root = pitchClass(chord.root)
  const needs = toneNeeds(chord)
  const allowed = [...chordPitchClasses(chord), ...needs.admitted.map((i) => mod12(root + i))]
  const bass = filters.bass ?? (chord.bass ? bassPitchClass(chord) : undefined)
  if (bass !== undefined) allowed.push(bass)
  const [lowestFret, highestFret] = filters.zone ?? [1, USUAL_HIGHEST_FRET]
  return {
    allowed: [...new Set(allowed)],
    essential: needs.essential.map((group) => group.map((i) => mod12(root + i))),
    ...(bass === undefined ? {} : { bass }),
    ...(filters.top === undefined ? {} : { top: filters.top }),
    ...(filters.through === undefined ? {} : { through: filters.through }),
    leave: filters.leave ?? [],
    ring: filters.ring ?? [],
    lowestFret: Math.max(1, lowestFret),
    highestFret,
    fewestStrings: Math.min(3, new Set(chordPitchClasses(chord)).size),
  }
}

/** What the shapes are ranked against. */
export function shapeGoal(chord: ChordReading, filters: ShapeFilters): ShapeGoal {
  return {
    root: pitchClass(chord.root),
    bass: filters.bass ?? bassPitchClass(chord),
    tones: [...new Set(chordPitchClasses(chord))],
  }
}
