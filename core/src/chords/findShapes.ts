import { knownIn } from '../invariant.ts'
import { fingeringsOf, type Fingering } from '../hand/grip/fingering.ts'
import { spellInChord } from '../music/harmony/chordTones.ts'
import { pitchClass } from '../music/pitch/pitch.ts'
import { bassPitchClass, type ChordReading } from '../music/harmony/chordSymbol.ts'
import type { LeftFinger, Player } from '../instrument/hand.ts'
import { fretOnNeck, type Setup } from '../instrument/setup.ts'
import { reachAt, reachTable } from '../instrument/reachTable.ts'
import { enumerateShapes } from './enumerateShapes.ts'
import { familyOf, type Family } from './family.ts'
import { foldShapes, type Folded } from './foldShapes.ts'
import { fingeringFeature, SHAPE_AT, SHAPE_FEATURES, shapeFeatures } from './shapeFeatures.ts'
import { shapeGoal, shapeQuery, type ShapeFilters } from './shapeQuery.ts'
import { SHAPE_WEIGHTS } from './shapeWeights.ts'
import { ZONES, zoneOf, type Zone } from './zone.ts'

/** A shape that a hand can hold. Arrays are by string, string 1 first; frets count from the capo. */
export interface Shape {
  readonly frets: readonly (number | null)[]
  readonly fingers: readonly LeftFinger[]
  /** Widest reach between two fingers in mm. */
  readonly stretchMm: number
  readonly zone: Zone
  readonly family: Family
  /** Rank price: lower comes first. */
  readonly cost: number
  /** Price of the fingering alone: how much the hand has to pay. */
  readonly strain: number
}

/** Rows of one part of the neck, best first. */
export interface ZoneRows {
  readonly zone: Zone
  readonly rows: readonly Folded<Shape>[]
}

export interface FoundShapes {
  /** Zones, the one with the best shape first. */
  readonly zones: readonly ZoneRows[]
  /** Shapes of the chord before the hand was asked. */
  readonly considered: number
}

/** How many rows of a zone are shown, and how many candidates of a zone are given to the hand to find them. */
export const ROWS_A_ZONE = 10
const CANDIDATES_A_ZONE = 56

const WEIGHTS = Float64Array.from(SHAPE_FEATURES, (f) => SHAPE_WEIGHTS[f])

interface Candidate {
  readonly frets: readonly (number | null)[]
  readonly cost: number
}

/**
 * All the shapes of a chord that this hand can hold under the filters, ranked, by neck zone, near-variants folded.
 * @param chord as it sounds; with a capo the shape's own name is lower
 * @param everything true lists every shape instead of the first rows of each zone
 * @example findShapes(guitarSetup(), c).zones[0].rows[0].head.frets // [0, 1, 0, 2, 3, null]
 */
export function findShapes(
  setup: Setup,
  chord: ChordReading,
  filters: ShapeFilters = {},
  everything = false,
): FoundShapes {
  const player = handFor(setup.player, filters)
  const named = withAskedBass(chord, filters)
  const goal = shapeGoal(chord, filters)
  const features = new Float64Array(SHAPE_FEATURES.length)
  const byZone = new Map<Zone, Candidate[]>(ZONES.map((z) => [z, []]))
  let considered = 0
  enumerateShapes(setup, shapeQuery(chord, filters), player, (onNeck) => {
    considered++
    shapeFeatures(setup, onNeck, goal, features)
    let cost = 0
    for (let i = 0; i < features.length; i++) cost += features[i]! * WEIGHTS[i]!
    const frets = onNeck.map((f, i) => (f ? f - setup.capo[i]! : f))
    knownIn(byZone, zoneOf(frets)).push({ frets, cost })
  })
  const zones = ZONES.map((zone) => {
    const shapes = holdable({ ...setup, player }, named, filters, knownIn(byZone, zone), everything)
    const rows = foldShapes(shapes)
    return { zone, rows: everything ? rows : rows.slice(0, ROWS_A_ZONE) }
  })
  return {
    zones: zones.filter((z) => z.rows.length > 0).sort((a, b) => a.rows[0]!.head.cost - b.rows[0]!.head.cost),
    considered,
  }
}

/** The chord as it will be heard: over the bass that is asked for. */
export function withAskedBass(chord: ChordReading, { bass }: ShapeFilters): ChordReading {
  if (bass === undefined || bass === bassPitchClass(chord)) return chord
  const { bass: _, ...plain } = chord
  return bass === pitchClass(chord.root) ? plain : { ...plain, bass: spellInChord(plain, bass) }
}

/** The player, asked for no barres where the filters say so. */
export function handFor(player: Player, filters: ShapeFilters): Player {
  return filters.noBarre ? { ...player, techniques: { ...player.techniques, barre: false } } : player
}

function holdable(
  setup: Setup,
  chord: ChordReading,
  filters: ShapeFilters,
  candidates: Candidate[],
  everything: boolean,
): Shape[] {
  candidates.sort((a, b) => a.cost - b.cost)
  const asked = everything ? candidates : candidates.slice(0, CANDIDATES_A_ZONE)
  const shapes: Shape[] = []
  const selective = isSelective(filters)
  for (const { frets, cost } of asked) {
    const fingering = fingeringsOf(setup, frets, setup.player, selective ? 8 : 1).find((f) =>
      meets(setup, frets, f, filters),
    )
    if (!fingering) continue
    const price = cost + fingeringFeature(fingering.cost) * WEIGHTS[SHAPE_AT.fingering]!
    shapes.push(fingeredShape(setup, chord, frets, fingering, price))
  }
  return shapes.sort((a, b) => a.cost - b.cost)
}

/**
 * A shape from its frets and one way to hold them.
 * @param chord what it is heard as; undefined where it has no name
 * @param cost its rank price; the fingering's own unless said
 */
export function fingeredShape(
  setup: Setup,
  chord: ChordReading | undefined,
  frets: readonly (number | null)[],
  fingering: Fingering,
  cost = fingering.cost,
): Shape {
  const { fingers } = fingering
  return {
    frets,
    fingers,
    stretchMm: stretchOf(setup, frets, fingers),
    zone: zoneOf(frets),
    family: chord ? familyOf(setup, chord, frets, fingers) : { kind: 'own' },
    cost,
    strain: fingering.cost,
  }
}

/** True for filters that ask something of the hand: more than the best fingering of a shape is looked at. */
export const isSelective = ({ maxStretch, freeFingers, indexBarre }: ShapeFilters): boolean =>
  maxStretch !== undefined || freeFingers !== undefined || indexBarre === true

function meets(
  setup: Setup,
  frets: readonly (number | null)[],
  fingering: Fingering,
  { maxStretch, freeFingers, indexBarre }: ShapeFilters,
): boolean {
  if (indexBarre && !indexLies(frets, fingering.fingers)) return false
  if (maxStretch !== undefined && stretchOf(setup, frets, fingering.fingers) > maxStretch) return false
  return freeFingers === undefined || freeFingersOf(fingering.fingers) >= freeFingers
}

/** True where the index finger lies across strings, and every string beneath it sounds. */
function indexLies(frets: readonly (number | null)[], fingers: readonly LeftFinger[]): boolean {
  const [first, last] = [fingers.indexOf(1), fingers.lastIndexOf(1)]
  return last > first && frets.slice(first, last + 1).every((fret) => fret !== null)
}

/** How many of fingers 1–4 press nothing. */
export function freeFingersOf(fingers: readonly LeftFinger[]): number {
  return 4 - new Set(fingers.filter((f) => f !== 0 && f !== 'T')).size
}

/**
 * Widest reach of a shape in mm between two of the fingers 1–4, along and across the neck, from the nearest string of
 * a barre; 0 with fewer than two fingers.
 */
export function stretchOf(
  setup: Setup,
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
): number {
  const table = reachTable(setup.instrument)
  const places: { finger: number; fret: number; top: number; low: number }[] = []
  frets.forEach((fret, i) => {
    const finger = fingers[i]
    if (!fret || !finger || finger === 'T') return
    const known = places.find((p) => p.finger === finger)
    if (known) known.low = i + 1
    else places.push({ finger, fret: fretOnNeck(setup, { string: i + 1, fret }), top: i + 1, low: i + 1 })
  })
  let widest = 0
  for (const a of places)
    for (const b of places)
      if (a.finger < b.finger)
        widest = Math.max(widest, reachAt(table, Math.max(0, a.top - b.low, b.top - a.low), a.fret, b.fret))
  return widest
}

/** Every row in the order in which it is shown: zone by zone. */
export function shownOrder(found: FoundShapes): Folded<Shape>[] {
  return found.zones.flatMap((z) => z.rows)
}
