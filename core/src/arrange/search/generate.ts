import { present } from '../../invariant.ts'
import { fingersOf } from '../../instrument/hand.ts'
import { fingerOffsets } from '../../hand/grip/fingerOffsets.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { positionOf } from '../../hand/grip/position.ts'
import { THUMB, type Pressed } from '../../hand/grip/pressed.ts'
import { pickingStrain } from '../../hand/picking/pickingPrice.ts'
import { pitchAt, withKindHand, type Place, type Setup } from '../../instrument/setup.ts'
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
import { filled, LEAST_OVER_BASS } from './fills.ts'
import { keepsLock } from './locks.ts'
import { struckStrings } from './struckStrings.ts'
import { staticCost } from './staticCost.ts'
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
