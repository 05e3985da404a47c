import { present } from '../../invariant.ts'
import { fingersOf } from '../../instrument/hand.ts'
import { fingerOffsets } from '../../hand/grip/fingerOffsets.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { positionOf } from '../../hand/grip/position.ts'
import { THUMB, type Pressed } from '../../hand/grip/pressed.ts'
import { pickingStrain } from '../../hand/picking/pickingPrice.ts'
import { openPitch, pitchAt, withKindHand, type Place, type Setup } from '../../instrument/setup.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import type { HeldShape } from '../../chords/textbook.ts'
import { withShape, type BusyFingers } from '../../chords/withShape.ts'
import {
  packCandidates,
  placeKey,
  voiceKey,
  type Candidate,
  type CandidateSet,
  type VoiceKey,
} from './candidate.ts'
import type { Draft } from './draft.ts'
import { lowerVoices } from '../../chords/lowerVoices.ts'
import { keepsLock } from './locks.ts'
import { struckStrings } from './struckStrings.ts'
import { staticCost, weakFingerPrice } from './staticCost.ts'
import { strainPrice } from './voiceCost.ts'
import { WEIGHTS } from './weights.ts'
import type { BassOption, InnerOption, Requirement } from './requirement.ts'

/** Positions at which a hand that presses nothing may wait. */
const HOVER_POSITIONS = [1, 2, 3, 4, 5, 7, 9]

/** The voices' notes before fingers are chosen. */
interface Needed {
  readonly melody: Place | undefined
  readonly bass: BassOption | undefined
  readonly inner: InnerOption | undefined
  readonly planted: Place | undefined
}

/**
 * All grips that meet a requirement: each place of the melody with each place of the bass and of the further voices (and with
 * a voice left out where it is held over and may be cut, or where nothing is found), each legal choice of fingers, with
 * and without the held shapes of the chord. Hard rules only; nothing is dropped for taste. Where the slice is locked, only
 * what keeps the lock.
 * @param everyFill a fill is let go at once, so that of two on one grip the dearer can never win; true keeps both. A taste may see in
 * them what the house does not
 */
export function generate(
  setup: Setup,
  requirement: Requirement,
  everyFill = requirement.lock !== undefined || requirement.taste !== undefined,
): CandidateSet {
  const list: Candidate[] = []
  const hand = requirement.stretches ? setup : withKindHand(setup)
  for (const draft of allDrafts(hand, requirement, everyFill)) {
    const candidate = finish(setup, requirement, draft)
    if (!requirement.lock || keepsLock(candidate, requirement.lock)) list.push(candidate)
  }
  return packCandidates(setup, list)
}

function allDrafts(setup: Setup, requirement: Requirement, everyFill: boolean): Draft[] {
  const found: Draft[] = []
  if (requirement.inner?.kind === 'chord' && requirement.inner.onset) strikes(setup, requirement, found)
  for (const needed of combinations(setup, requirement)) drafts(setup, requirement, needed, everyFill, found)
  return found
}

function combinations(setup: Setup, requirement: Requirement): Needed[] {
  const melodies: (Place | undefined)[] = requirement.melody ? [...requirement.melody.places] : [undefined]
  if (requirement.melody && !requirement.melody.onset) melodies.push(undefined)
  const basses: (BassOption | undefined)[] = requirement.bass
    ? [...requirement.bass.options, undefined]
    : [undefined]
  const seconds: (InnerOption | undefined)[] =
    requirement.inner?.kind === 'double' ? [...requirement.inner.options, undefined] : [undefined]
  const ringing: (Place | undefined)[] = [...(requirement.melody?.before ?? []), undefined]
  const result: Needed[] = []
  for (const melody of melodies)
    for (const bass of basses)
      for (const inner of seconds)
        for (const planted of ringing)
          if (onOwnStrings(melody, bass?.place, inner?.place, planted) && !liesUnder(setup, bass, inner))
            result.push({ melody, bass, inner, planted })
  return result
}

/** True for a second voice that lies under the bass, or rubs against it: the chord would be turned over. */
const liesUnder = (setup: Setup, bass: BassOption | undefined, inner: InnerOption | undefined): boolean =>
  bass !== undefined &&
  inner !== undefined &&
  pitchAt(setup, inner.place) - pitchAt(setup, bass.place) < LEAST_OVER_BASS

function onOwnStrings(...places: readonly (Place | undefined)[]): boolean {
  let used = 0
  for (const p of places) {
    if (!p) continue
    const bit = 1 << p.string
    if (used & bit) return false
    used |= bit
  }
  return true
}

function drafts(
  setup: Setup,
  requirement: Requirement,
  needed: Needed,
  everyFill: boolean,
  found: Draft[],
): void {
  const open = openStrings(needed)
  const { barreStrings } = requirement
  const lines = fingerOffsets(setup.instrument)
  const touched = [needed.melody, needed.planted].find((p) => p?.harmonic)
  const fillsHere = requirement.inner?.kind === 'fill' && requirement.inner.onset
  for (const hand of fingerings(setup, needed, open, barreStrings, requirement.melody?.onset ?? false)) {
    const { pressed } = hand
    const places =
      pressed.length > 0
        ? [positionOf(pressed, lines)]
        : touched && requirement.melody?.onset
          ? [Math.max(1, touched.fret - 2)]
          : HOVER_POSITIONS
    for (const position of places) {
      const bare = draftOf(needed, hand, pressed, position, -1)
      found.push(bare)
      if (fillsHere) filled(setup, requirement, bare, open, everyFill, found)
    }
    for (let heldShape = 0; heldShape < requirement.heldShapes.length; heldShape++) {
      const whole = withShape(setup, requirement.heldShapes[heldShape]!, hand, open, barreStrings)
      if (whole.length <= pressed.length && !holdsByOpenStrings(requirement, heldShape, needed)) continue
      const held = draftOf(needed, hand, whole, positionOf(whole, lines), heldShape)
      found.push(held)
      if (fillsHere) filled(setup, requirement, held, open, everyFill, found)
    }
  }
}

/** Written out field by field: drafts are made by the ten thousand, and spreading is slow. */
function draftOf(
  { melody, bass, inner, planted }: Needed,
  { fingers }: Fingering,
  pressed: readonly Pressed[],
  position: number,
  heldShape: number,
): Draft {
  return {
    melody,
    melodyFinger: fingers[0]!,
    bass,
    bassFinger: fingers[1]!,
    inner,
    innerFinger: fingers[2]!,
    planted,
    plantedFinger: fingers[3]!,
    strikes: false,
    pressed,
    heldShape,
    position,
  }
}

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

/** A voicing of open strings under the melody is held without a finger. */
function holdsByOpenStrings(requirement: Requirement, heldShape: number, needed: Needed): boolean {
  return (
    requirement.inner?.kind === 'chord' &&
    !requirement.inner.onset &&
    requirement.heldShapes[heldShape]!.frets.some((fret, i) => fret === 0 && needed.melody?.string !== i + 1)
  )
}

interface Fingering extends BusyFingers {
  /** Of melody, bass, second voice and ringing note. */
  readonly fingers: readonly number[]
}

/** Every legal choice of fingers for what sounds. */
function fingerings(
  setup: Setup,
  needed: Needed,
  open: readonly number[],
  barreStrings: number,
  struck: boolean,
): Fingering[] {
  const places = [needed.melody, needed.bass?.place, needed.inner?.place, needed.planted]
  const result: Fingering[] = []
  const go = (at: number, fingers: readonly number[], pressed: readonly Pressed[]) => {
    if (at === places.length) {
      result.push({
        fingers,
        pressed: pressed.filter((p) => !places.some((q) => isTouch(q, p))),
        touching: struck ? pressed.filter((p) => isTouch(needed.melody, p)) : NOTHING,
      })
      return
    }
    const place = places[at]
    for (const finger of fingersFor(setup, place)) {
      if (!place || finger === 0) {
        go(at + 1, [...fingers, finger], pressed)
        continue
      }
      // The finger that only touches a string cannot press another.
      if (at > 0 && struck && needed.melody?.harmonic && finger === fingers[0]) continue
      if (tooWideBarre(pressed, place, finger, barreStrings)) continue
      const more = [...pressed, { string: place.string, fret: place.fret, finger }]
      if (more.length < 2 || !handFault(setup, setup.player.spans, more, open))
        go(at + 1, [...fingers, finger], more)
    }
  }
  go(0, [], [])
  return result
}

const NOTHING: readonly Pressed[] = []

/** A harmonic is touched, not pressed. */
const isTouch = (place: Place | undefined, p: Pressed) =>
  Boolean(place?.harmonic) && present(place).string === p.string && present(place).fret === p.fret

function tooWideBarre(pressed: readonly Pressed[], place: Place, finger: number, most: number): boolean {
  return pressed.some((p) => p.finger === finger && Math.abs(p.string - place.string) + 1 > most)
}

/**
 * The fills that a hand could strike: strings of the shape that it holds, or open strings with the chord's tones. Not the
 * bass strings: a fill there would be heard as a bass.
 */
function filled(
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
    const all = price + strain + weakFingerPrice(full)
    if (!best || all < best.price) best = { draft: full, price: all }
  }
  if (best) found.push(best.draft)
}

/** Semitones: closer to the bass a fill rubs against it, as an open string does against a bass that walks by. No source. */
const LEAST_OVER_BASS = 3

/** True where a finger lies higher on the same string. */
const covered = (pressed: readonly Pressed[], p: Pressed) =>
  pressed.some((q) => q.string === p.string && q.fret > p.fret)
const isCovered = (pressed: readonly Pressed[], string: number) => pressed.some((p) => p.string === string)

/** A pattern climbs from the string above the bass towards the melody and comes back; other strings cost a little. */
function fillPrice(setup: Setup, requirement: Requirement, draft: Draft, string: number): number {
  const { turn, role, figure } = present(requirement.inner)
  if (figure) return figurePrice(setup, draft, string, turn)
  const inside = stringsInside(setup, draft)
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

/** Voicings struck with the melody: each held shape whole, all its strings at once. */
function strikes(setup: Setup, requirement: Requirement, found: Draft[]): void {
  const lines = fingerOffsets(setup.instrument)
  for (let heldShape = 0; heldShape < requirement.heldShapes.length; heldShape++) {
    const shape = requirement.heldShapes[heldShape]!
    const top = requirement.melody?.places.find((p) => shape.frets[p.string - 1] === p.fret && !p.harmonic)
    if (requirement.melody && !top) continue
    // What lies over the tune answers it, or was fixed so: a tune that ends low may have its chord above.
    const mayLieOver = requirement.inner?.answers || requirement.lock?.chord
    if (requirement.melody && !mayLieOver && isUnderOther(shape, present(top))) continue
    if (!canBeStruck(requirement, shape)) continue
    if (!requirement.stretches && handFault(setup, setup.player.spans, shape.pressed)) continue
    const finger = top ? (shape.pressed.find((p) => p.string === top.string)?.finger ?? 0) : 0
    found.push({
      melody: top,
      melodyFinger: finger,
      bass: undefined,
      bassFinger: 0,
      inner: undefined,
      innerFinger: 0,
      planted: undefined,
      plantedFinger: 0,
      pressed: shape.pressed,
      position: positionOf(shape.pressed, lines),
      heldShape,
      strikes: true,
    })
  }
}

/** Thumb and index cannot skip a string under the index, nor take more than it brushes. */
function canBeStruck(requirement: Requirement, shape: HeldShape): boolean {
  if (requirement.picking !== 'thumbAndIndex') return true
  const { gaps, tooMany } = pickingStrain(
    requirement.picking,
    shape.frets.flatMap((fret, i) => (fret === null ? [] : [i + 1])),
  )
  return gaps === 0 && tooMany === 0
}

/** True where a shape sounds a string above the melody's. */
const isUnderOther = (shape: HeldShape, melody: Place) =>
  shape.frets.some((fret, i) => fret !== null && i + 1 < melody.string)

/** Strings that must ring open, harmonics among them. */
function openStrings({ melody, bass, inner, planted }: Needed): number[] {
  return [melody, bass?.place, inner?.place, planted].flatMap((p) =>
    p && (p.fret === 0 || p.harmonic) ? [p.string] : [],
  )
}

function fingersFor(setup: Setup, place: Place | undefined): readonly number[] {
  if (!place || place.fret === 0) return [0]
  const { techniques } = setup.player
  const fingers = fingersOf(techniques)
  if (place.harmonic) return fingers.slice(-2)
  const thumb =
    techniques.thumbOver && setup.instrument.strings >= 6 && place.string === setup.instrument.strings
  return thumb ? [...fingers, THUMB] : fingers
}

function finish(setup: Setup, requirement: Requirement, draft: Draft): Candidate {
  let fixed = 0
  let perBeat = 0
  staticCost(setup, requirement, draft, (_, cost, each) => {
    if (each) perBeat += cost
    else fixed += cost
  })
  return {
    draft,
    pressed: draft.pressed,
    position: draft.position,
    melody: keyOf(draft.melody, draft.melodyFinger),
    bass: keyOf(draft.bass?.place, draft.bassFinger),
    inner: keyOf(draft.inner?.place, draft.innerFinger),
    planted: keyOf(draft.planted, draft.plantedFinger),
    chord: draft.strikes ? chordKeys(requirement, draft) : NO_KEYS,
    heldShape: draft.heldShape,
    lower: voicesAround(requirement, draft),
    fixed,
    perBeat,
  }
}

/** The voices of a chord that lie under the melody; where a chord answers it, those over it too. */
function voicesAround({ inner, heldShapes }: Requirement, { heldShape, melody }: Draft): number {
  if (inner?.kind !== 'chord' || heldShape < 0) return 0
  const { frets } = heldShapes[heldShape]!
  const top = melody && !inner.answers ? melody.string : 1
  // What was struck as the tune itself is no lower voice where the tune goes on under it.
  return lowerVoices(top === 1 ? frets : frets.map((fret, i) => (i + 1 < top ? null : fret)), melody)
}

const NO_KEYS: readonly VoiceKey[] = []

function keyOf(place: Place | undefined, finger: number): VoiceKey {
  return place ? placeKey(place, finger) : 0
}

/** The voices of a struck shape besides the melody, from the lowest string. */
function chordKeys(requirement: Requirement, draft: Draft): VoiceKey[] {
  const { frets, pressed } = requirement.heldShapes[draft.heldShape]!
  return struckStrings(requirement, draft)
    .filter((string) => string !== draft.melody?.string)
    .map((string) =>
      voiceKey(string, frets[string - 1]!, pressed.find((p) => p.string === string)?.finger ?? 0),
    )
}
