import { present } from '../../invariant.ts'
import { pickingStrain, type PickingStrain } from '../../hand/picking/pickingPrice.ts'
import { hasBassStrings } from '../plan/styleRules.ts'
import type { OrnamentRoom } from '../plan/plan.ts'
import { pitchAt, placesOf, type Place, type Setup } from '../../instrument/setup.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import type { Draft } from './draft.ts'
import type { AddTerm } from './addTerm.ts'
import { LEVEL_RULES, WEIGHTS } from './weights.ts'
import type { Requirement } from './requirement.ts'
import { struckStrings } from './struckStrings.ts'

/** A melody over chords or figures is heard on these. */
const TOP_STRINGS = 2
const isOnTop = ({ string }: Place) => string <= TOP_STRINGS

/** Fret to which a hand in the first three positions stretches, though an open string has the note. */
const STRETCHED_FROM = 4
const LOW_POSITION = 3
const reachesUp = ({ fret }: Place, { position }: Draft) => fret >= STRETCHED_FROM && position <= LOW_POSITION

/** The lowest string that is not a bass string. */
const FIRST_TREBLE = 3
const isOnBassString = ({ string }: Place) => string > FIRST_TREBLE

/** True where a melody is to lie above the bass strings: over shapes, and over chords where they leave it the choice. */
const isHigherUp = ({ holdsShapes, melodyOnTop, melody }: Requirement) =>
  holdsShapes || (melodyOnTop && melody?.places.some((p) => !isOnBassString(p)) === true)

/** Where the melody lies, and whether the note before rings on. */
export function melodyTerms(setup: Setup, requirement: Requirement, draft: Draft, add: AddTerm): void {
  const { melody } = draft
  if (!melody) return
  if (isOnBassString(melody) && isHigherUp(requirement) && hasBassStrings(setup.instrument))
    add('melodyOnBassString', WEIGHTS.melodyOnBassString * (melody.string - FIRST_TREBLE), false)
  else if (requirement.melodyOnTop && melody.string > TOP_STRINGS && requirement.melody?.places.some(isOnTop))
    add('melodyInside', WEIGHTS.melodyInside, false)
  const { lastEasyFret: easy } = LEVEL_RULES[requirement.level]
  const midi = requirement.melody?.midi
  // A slur of the source may take its note further up.
  const isFree = midi !== undefined && !requirement.melody?.slurred
  if (melody.fret > easy && isFree && placesOf(setup, midi).some((p) => p.fret <= easy))
    add('beyondFrets', WEIGHTS.beyondFrets, false)
  if (draft.bass && requirement.bass?.kind !== 'part' && melody.string > draft.bass.place.string)
    add('crossedVoices', WEIGHTS.crossedVoices, false)
  if (!requirement.melody?.onset) return
  if (requirement.melody.before.length > 0 && !draft.planted) add('notRinging', WEIGHTS.notRinging, false)
  if (requirement.melody.room && !hasRoom(draft, requirement.melody.room))
    add('ornamentLost', WEIGHTS.ornamentLost, false)
  if (melody.harmonic) add('harmonic', WEIGHTS.harmonic, false)
  if (requirement.hand === 'position' && melody.fret === 0) add('openAvoided', WEIGHTS.openAvoided, false)
  if (melody.fret > 0 && requirement.melody.places.some((p) => p.fret === 0)) {
    if (requirement.hand === 'open') add('openMissed', WEIGHTS.openMissed, false)
    else if (requirement.hand !== 'position' && requirement.melodyOnTop && reachesUp(melody, draft))
      add('openMissed', WEIGHTS.openPassedOver, false)
  }
}

/** True where the string goes on far enough beside a note, with a finger left for each side, for its ornament. */
function hasRoom({ melody, melodyFinger }: Draft, { low, high }: OrnamentRoom): boolean {
  const lowest = present(melody).fret + low
  if (lowest < 0 || present(melody).harmonic) return false
  return !(high > 0 && melodyFinger === 4) && !(low < 0 && lowest > 0 && melodyFinger === 1)
}

/** A bass left out, or the choice of its place. */
export function bassTerms(requirement: Requirement, draft: Draft, add: AddTerm): void {
  if (!requirement.bass?.onset) return
  if (draft.bass) {
    if (draft.bass.price > 0) add(draft.bass.nonRoot ? 'nonRoot' : 'bassChoice', draft.bass.price, false)
    return
  }
  const { kind, change, firm, inherited, isMelody } = requirement.bass
  if (isMelody) return
  if (kind === 'said') add('noBass', WEIGHTS.noSaid + (change ? WEIGHTS.noRootAtChange : 0), false)
  else if (kind === 'part') add('noPart', WEIGHTS.noPart, false)
  else if (inherited && !(kind === 'root' && (change || !firm))) add('noBass', WEIGHTS.noInherited, false)
  else if (kind === 'pedal') add('noBass', WEIGHTS.noPedal, false)
  else if (kind !== 'root') add('noBass', WEIGHTS.noAlternate, false)
  else if (!firm) add('noBass', WEIGHTS.noRootSometimes, false)
  else if (!change) add('noBass', WEIGHTS.noRoot, false)
  // Dearer where the level below has a bass there, even one that is not the root.
  else add('noBass', WEIGHTS.noRootAtChange + (inherited ? WEIGHTS.noInherited : 0), false)
}

/** A voice that lies on a string over the melody's and sounds under it. */
const isCrossed = (setup: Setup, melody: Place, other: Place) =>
  other.string < melody.string && pitchAt(setup, other) < pitchAt(setup, melody)

/** Fills and second voices: what is left out, and where they lie. */
export function innerTerms(setup: Setup, requirement: Requirement, draft: Draft, add: AddTerm): void {
  if (!requirement.inner?.onset) return
  const { kind } = requirement.inner
  if (kind === 'chord') {
    const { rests, change } = requirement.inner
    const price = rests ? WEIGHTS.noEnding : change ? WEIGHTS.noVoicingAtChange : WEIGHTS.noVoicing
    if (!draft.strikes) add('noVoicing', price, false)
  } else if (!draft.inner) {
    // With a bass under it the tune is two notes already.
    const two = requirement.bass?.onset && draft.bass
    if (kind === 'double') add('noSecond', two ? WEIGHTS.noSecondOverBass : WEIGHTS.noSecond, false)
    else add('noFill', requirement.inner.inherited ? WEIGHTS.noInheritedFill : WEIGHTS.noFill, false)
  } else {
    if (draft.inner.price > 0)
      add(kind === 'double' ? 'secondChoice' : 'fillChoice', draft.inner.price, false)
    const bare = barePrice(setup, requirement, draft)
    if (bare > 0) add('bareOctaves', bare, false)
    if (draft.melody && isCrossed(setup, draft.melody, draft.inner.place))
      add('crossedInner', WEIGHTS.crossedInner, false)
    const apart = draft.melody ? Math.abs(draft.inner.place.string - draft.melody.string) - 1 : 0
    if (kind === 'double' && apart > 0)
      add('secondApart', WEIGHTS.secondApart * apart, false, apart, 'strings')
  }
}

/** What it costs that bass, melody and the tone between them, struck together, are one tone in octaves. A drone may be. */
export function barePrice(setup: Setup, { melody, bass, inner }: Requirement, draft: Draft): number {
  if (!melody?.onset || !bass?.onset || bass.kind === 'pedal' || inner?.kind !== 'fill') return 0
  if (!draft.melody || !draft.bass || !draft.inner) return 0
  const struck = [draft.melody, draft.bass.place, draft.inner.place]
  return new Set(struck.map((p) => mod12(pitchAt(setup, p)))).size === 1 ? WEIGHTS.bareOctaves : 0
}

/** What goes beyond the picking hand's school. */
export function pickingTerms(requirement: Requirement, draft: Draft, add: AddTerm): void {
  const { gaps, tooMany } = strainOf(requirement, draft)
  if (gaps > 0) add('strokeGap', WEIGHTS.strokeGap * gaps, false, gaps, 'strings')
  if (tooMany > 0) add('tooManyPicked', WEIGHTS.tooManyPicked * tooMany, false)
}

/** The price of the same. */
export function strainPrice(requirement: Requirement, draft: Draft): number {
  const { gaps, tooMany } = strainOf(requirement, draft)
  return WEIGHTS.strokeGap * gaps + WEIGHTS.tooManyPicked * tooMany
}

function strainOf(requirement: Requirement, draft: Draft): PickingStrain {
  const strings: number[] = []
  const strike = (string: number) => {
    if (!strings.includes(string)) strings.push(string)
  }
  if (requirement.melody?.onset && draft.melody) strike(draft.melody.string)
  if (requirement.bass?.onset && draft.bass) strike(draft.bass.place.string)
  if (requirement.inner?.onset && draft.inner) strike(draft.inner.place.string)
  if (draft.strikes) for (const string of struckStrings(requirement, draft)) strike(string)
  return strings.length < 2 ? NO_STRAIN : pickingStrain(requirement.picking, strings)
}

const NO_STRAIN: PickingStrain = { gaps: 0, tooMany: 0 }
