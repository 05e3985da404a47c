import { present } from '../../invariant.ts'
import type { Pressed } from '../../hand/grip/pressed.ts'
import { openPitch, pitchAt, type Setup } from '../../instrument/setup.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import type { Draft } from './draft.ts'
import { weakFingerPrice } from './staticCost.ts'
import { barePrice, strainPrice } from './voiceCost.ts'
import { WEIGHTS } from './weights.ts'
import type { InnerOption, Requirement } from './requirement.ts'

/**
 * The fills that a hand could strike: strings of the shape that it holds, or open strings with the chord's tones. Not the
 * bass strings: a fill there would be heard as a bass.
 */
export function filled(
  setup: Setup,
  requirement: Requirement,
  draft: Draft,
  open: readonly number[],
  everyFill: boolean,
  found: Draft[],
): void {
  let best: { draft: Draft; price: number } | undefined
  const heldShape = requirement.heldShapes[draft.heldShape]
  const { figure } = present(requirement.inner)
  // One stroke for both: no string lies between.
  const strummed = requirement.picking === 'flatPick' && requirement.melody?.onset === true
  const melody = draft.melody ? pitchAt(setup, draft.melody) : Infinity
  const lowest = draft.bass ? pitchAt(setup, draft.bass.place) : -Infinity
  // Under a bass as high as this a figure has the fourth string too: it is heard as the thumb's other note.
  const highBass = draft.bass !== undefined && draft.bass.place.string < FIRST_FIGURE_STRING
  // A low note that is held leaves room over it alone: the chord is struck lightly above the tune.
  const isUnderChords =
    requirement.melody?.onset === false && (draft.melody?.string ?? 0) >= FIRST_FIGURE_STRING
  const used = [draft.melody, draft.bass?.place, draft.planted].flatMap((p) => (p ? [p.string] : []))
  for (let string = 1; string <= Math.min(FIRST_FIGURE_STRING, setup.instrument.strings); string++) {
    if (used.includes(string)) continue
    const under = draft.pressed.find((p) => p.string === string && !covered(draft.pressed, p))
    const fret = under ? under.fret : 0
    if (!under && (isCovered(draft.pressed, string) || open.includes(string))) continue
    const midi = openPitch(setup, string) + fret
    if (strummed && draft.melody && Math.abs(string - draft.melody.string) > 1) continue
    if (
      (midi >= melody && !figure && !isUnderChords) ||
      (midi <= lowest && !(figure && highBass)) ||
      !present(requirement.inner).tones.includes(mod12(midi))
    )
      continue
    if (Math.abs(midi - lowest) < LEAST_OVER_BASS) continue
    if (under && heldShape?.frets[string - 1] !== fret) continue
    const price = fillPrice(setup, requirement, draft, string)
    const full = withFill(draft, { place: { string, fret }, price }, under?.finger ?? 0)
    const strain = strainPrice(requirement, full)
    // Thumb and index alone have no finger for a third string apart: without the fill nothing is lost.
    if (requirement.picking === 'thumbAndIndex' && strain > 0) continue
    if (everyFill) {
      found.push(full)
      continue
    }
    const all = price + strain + weakFingerPrice(full) + barePrice(setup, requirement, full)
    if (!best || all < best.price) best = { draft: full, price: all }
  }
  if (best) found.push(best.draft)
}

/** Semitones: closer to the bass a fill rubs against it, as an open string does against a bass that walks by. No source. */
export const LEAST_OVER_BASS = 3

/** True where a finger lies higher on the same string. */
const covered = (pressed: readonly Pressed[], p: Pressed) =>
  pressed.some((q) => q.string === p.string && q.fret > p.fret)
const isCovered = (pressed: readonly Pressed[], string: number) => pressed.some((p) => p.string === string)

/** A pattern climbs from the string above the bass towards the melody and comes back; other strings cost a little. */
function fillPrice(setup: Setup, requirement: Requirement, draft: Draft, string: number): number {
  const { turn, role, figure } = present(requirement.inner)
  if (figure) return figurePrice(setup, draft, string, turn)
  const between = stringsInside(setup, draft)
  const inside = between.length > 0 ? between : stringsOver(draft)
  const wave = WAVES[Math.min(inside.length, WAVES.length) - 1] ?? WAVES[0]
  const step =
    role === 'harmony' ? inside.length - 1 - (turn % Math.max(1, inside.length)) : wave[turn % wave.length]!
  const wanted = inside[Math.max(0, step)] ?? string
  return WEIGHTS.fillTurn * Math.abs(string - wanted) + (draft.heldShape < 0 ? 0.2 : 0)
}

/** The lowest string that is the fingers' alone. Common practice, no source. */
const FIRST_FINGER_STRING = 3

/** The lowest string of a figure: a fill on a lower one would be heard as a bass. */
const FIRST_FIGURE_STRING = 4

/**
 * A figure goes through the strings that melody and bass leave free, from the lowest up and back; what lies over the melody is
 * heard before it.
 */
function figurePrice(setup: Setup, draft: Draft, string: number, turn: number): number {
  const { melody, bass, heldShape } = draft
  const over = bass && bass.place.string > FIRST_FIGURE_STRING ? bass.place.string - 1 : FIRST_FIGURE_STRING
  const lowest = Math.min(over, FIRST_FIGURE_STRING, setup.instrument.strings)
  const free: number[] = []
  for (let s = lowest; s >= 1; s--) if (s !== melody?.string && s !== bass?.place.string) free.push(s)
  const wave = WAVES[Math.min(free.length, WAVES.length) - 1] ?? WAVES[0]
  const wanted = free[wave[turn % wave.length]!] ?? string
  const above = melody && string < melody.string ? WEIGHTS.fillOverMelody : 0
  return WEIGHTS.figureTurn * Math.abs(string - wanted) + above + (heldShape < 0 ? 0.2 : 0)
}

/** Steps of the pattern by how many strings lie between bass and melody, the lowest first. */
const WAVES = [[0], [0, 1], [0, 1, 2, 1], [0, 1, 2, 1]] as const

/** Strings between the bass (or the lower half of the instrument) and the melody, lowest first. */
function stringsInside(setup: Setup, { melody, bass }: Draft): number[] {
  const { strings } = setup.instrument
  const to = melody ? melody.string + 1 : 1
  // The thumb's next note may take the fourth string: fingers leave it where they have another.
  const highest = bass && to <= FIRST_FINGER_STRING ? FIRST_FINGER_STRING : Math.min(strings, 4)
  const from = bass ? Math.min(bass.place.string - 1, highest) : Math.min(strings, 4)
  const inside: number[] = []
  for (let string = from; string >= to; string--) inside.push(string)
  return inside
}

/** Two strings over a low tune, the nearest first: a fill far above it would be heard as the tune. */
const stringsOver = ({ melody }: Draft): number[] =>
  melody ? [melody.string - 1, melody.string - 2].filter((string) => string >= 1) : []

/** The same hand with a fill. */
function withFill(draft: Draft, inner: InnerOption, innerFinger: number): Draft {
  return {
    melody: draft.melody,
    melodyFinger: draft.melodyFinger,
    bass: draft.bass,
    bassFinger: draft.bassFinger,
    inner,
    innerFinger,
    planted: draft.planted,
    plantedFinger: draft.plantedFinger,
    strikes: draft.strikes,
    pressed: draft.pressed,
    heldShape: draft.heldShape,
    position: draft.position,
  }
}
