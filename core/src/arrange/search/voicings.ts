import { present } from '../../invariant.ts'
import { bassPitchClass, chordPitchClasses, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { toneNeeds } from '../../music/harmony/chordTones.ts'
import { fingeringsOf } from '../../hand/grip/fingering.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { silentWithin } from '../../hand/picking/pickingPrice.ts'
import { byFinger, fingerNumber, hasFinger, type Pressed } from '../../hand/grip/pressed.ts'
import { lastFret, openPitch, pitchAt, placesOf, type Place, type Setup } from '../../instrument/setup.ts'
import { mod12, pitchClass, type Midi, type PitchClass } from '../../music/pitch/pitch.ts'
import type { HeldShape } from '../../chords/textbook.ts'
import type { TasteInForce } from '../../document/taste.ts'
import { countMoment, noCounts, priceOfCounts } from '../../taste/momentCounts.ts'
import { hasBassStrings } from '../plan/styleRules.ts'
import { WEIGHTS } from './weights.ts'

/** What a voicing under a melody note must be. */
export interface VoicingRequirement {
  /** As it sounds. */
  readonly chord: ChordReading
  readonly top: Midi
  /** Most voices, melody included. */
  readonly voices: number
  readonly lastFret: number
  readonly barreStrings: number
  /** The shape of the chord that a first book prints. */
  readonly book: HeldShape | undefined
  /** Price of each voice less than the most. */
  readonly thin: number
  /** True where the chord comes here: it wants a bass, and to be whole. */
  readonly change: boolean
  /** True where the music comes to rest on it: over its root on a bass string, and no bare interval, where a hand has that. */
  readonly rests: boolean
  /** The tone of the chord to which a melody note outside it goes on by a step; absent where it does not. */
  readonly resolution: PitchClass | undefined
  /** True for a stroke between the tune's notes: over a low note it takes the strings above. */
  readonly answers: boolean
  /** True where one stroke goes across: no string between is left out. */
  readonly strummed: boolean
  /** Somebody's taste: what it likes is among those that are offered. Its price is paid where the voicing is struck. */
  readonly taste: TasteInForce | undefined
}

/** Voicings offered for one melody note: the cheapest of each, in the order of their price. */
const MOST_VOICINGS = 36

/** Fingerings tried for each. */
const FINGERINGS = 2

/** Widest window of frets under a hand. */
const WINDOW = 4

/**
 * Voicings of a chord with the melody on top, each with its fingers: the melody place, and below it two to three more
 * strings of chord tones that this hand reaches. A melody note outside the chord is taken as it is.
 */
export function voicingsFor(setup: Setup, requirement: VoicingRequirement): HeldShape[] {
  let found: { frets: (number | null)[]; price: number }[] = []
  const scorer = voicingPrice(setup, requirement)
  for (const melody of placesOf(setup, requirement.top)) {
    if (melody.fret > requirement.lastFret) continue
    const besides = liesOver(requirement, melody) ? aboveMelody : belowMelody
    for (const frets of besides(setup, requirement, melody)) found.push({ frets, price: scorer(frets) })
  }
  if (requirement.rests) {
    const good = [FULL_RESTING, LEAST_RESTING]
      .map((least) => found.filter(({ frets }) => restsWell(setup, requirement, frets, least)))
      .find((some) => some.length > 0)
    // A melody that is the root itself, with nothing below it, is a better end than a chord turned over.
    const isRoot = mod12(requirement.top) === bassPitchClass(requirement.chord)
    found =
      good ?? (isRoot ? [] : found.filter(({ frets }) => !requirement.strummed || silentWithin(frets) === 0))
  }
  if (requirement.strummed) {
    // One stroke goes over all that lies between.
    const whole = found.filter(({ frets }) => silentWithin(frets) === 0)
    if (whole.length > 0) found = whole
  }
  const { taste } = requirement
  found = inOrder(found, taste ? (frets) => tastePrice(setup, taste, frets) : () => 0)
  const heldShapes: HeldShape[] = []
  for (const { frets, price } of found) {
    if (heldShapes.length >= MOST_VOICINGS) break
    const known = inShape(requirement.book, frets) ? partOfShape(setup, requirement, frets, price) : undefined
    if (
      known?.pressed.every((p) => hasFinger(setup.player.techniques, p.finger)) &&
      canReach(setup, requirement, known.pressed)
    )
      heldShapes.push(known)
    for (const { fingers, cost } of fingeringsOf(setup, frets, setup.player, FINGERINGS)) {
      const pressed = frets.flatMap((fret, i): Pressed[] => {
        const finger = fingers[i]
        return fret && finger ? [{ string: i + 1, fret, finger: fingerNumber(finger) }] : []
      })
      if (!canReach(setup, requirement, pressed)) continue
      heldShapes.push({
        name: '',
        frets,
        pressed,
        fingers: byFinger(pressed),
        textbook: false,
        rooted: lowestPitchClass(setup, frets) === bassPitchClass(requirement.chord),
        price: price + Math.min(10, Math.max(0, cost)) * WEIGHTS.voicingFingers,
      })
    }
  }
  return heldShapes
}

/** What a taste says of a voicing, whatever fingers hold it. */
function tastePrice({ instrument }: Setup, taste: TasteInForce, frets: readonly (number | null)[]): number {
  const counts = noCounts()
  const struck = frets.flatMap((fret, i) =>
    fret === null ? [] : [{ role: 'harmony' as const, string: i + 1, fret, finger: 0, harmonic: false }],
  )
  countMoment(struck, instrument.strings, counts)
  return priceOfCounts(counts, taste.prices)
}

function inOrder<V extends { frets: (number | null)[]; price: number }>(
  voicings: readonly V[],
  taste: (frets: readonly (number | null)[]) => number,
): V[] {
  return voicings
    .map((v) => ({ v, rank: v.price + taste(v.frets) }))
    .sort((a, b) => a.rank - b.rank)
    .map(({ v }) => v)
}

/** Voices of a chord that closes a tune, melody included: where there are hands for them, and at least. */
const FULL_RESTING = 4
const LEAST_RESTING = 3

function restsWell(
  setup: Setup,
  { chord, voices, strummed }: VoicingRequirement,
  frets: readonly (number | null)[],
  least: number,
): boolean {
  const strings = frets.flatMap((fret, i) => (fret === null ? [] : [i + 1]))
  const lowest = Math.max(...strings)
  return (
    (!strummed || silentWithin(frets) === 0) &&
    strings.length >= Math.min(least, voices) &&
    lowest >= (hasBassStrings(setup.instrument) ? FIRST_BASS_STRING : setup.instrument.strings) &&
    lowestPitchClass(setup, frets) === bassPitchClass(chord)
  )
}

const FIRST_BASS_STRING = 4

/** Frets above the fourth beyond which a bass is just high. */
const MOST_HIGH = 3

/** True where every string that sounds is as the shape has it. */
const inShape = (shape: HeldShape | undefined, frets: readonly (number | null)[]): shape is HeldShape =>
  shape !== undefined && frets.every((fret, i) => fret === null || shape.frets[i] === fret)

/** Some strings of the book's shape, with its fingers: a hand that knows the chord has them. */
function partOfShape(
  setup: Setup,
  { book, chord }: VoicingRequirement,
  frets: readonly (number | null)[],
  price: number,
): HeldShape {
  const pressed = present(book).pressed.filter((p) => frets[p.string - 1] === p.fret)
  return {
    name: present(book).name,
    frets,
    pressed,
    fingers: byFinger(pressed),
    textbook: false,
    rooted: lowestPitchClass(setup, frets) === bassPitchClass(chord),
    price: Math.max(0, price - WEIGHTS.voicingBook),
  }
}

/** True where this hand reaches what is pressed, with barres as wide as the level lets them be. */
const canReach = (setup: Setup, { barreStrings }: VoicingRequirement, pressed: readonly Pressed[]): boolean =>
  widestBarre(pressed) <= barreStrings && !handFault(setup, setup.player.spans, pressed)

function widestBarre(pressed: readonly Pressed[]): number {
  let widest = 1
  for (const p of pressed)
    for (const q of pressed) if (p.finger === q.finger) widest = Math.max(widest, q.string - p.string + 1)
  return widest
}

/** The open string, and the frets of it that a hand reaches which holds others from `low` to `high`. */
function* reachedFrets(
  setup: Setup,
  requirement: VoicingRequirement,
  string: number,
  low: number,
  high: number,
): Generator<number> {
  yield 0
  const to = Math.min(requirement.lastFret, lastFret(setup, string), low + WINDOW)
  for (let fret = Math.max(1, high - WINDOW); fret <= to; fret++) yield fret
}

/** Every choice of strings below the melody's, frets within a hand's window, at least one voice besides the melody. */
function belowMelody(setup: Setup, requirement: VoicingRequirement, melody: Place): (number | null)[][] {
  const { strings } = setup.instrument
  const tones = chordPitchClasses(requirement.chord)
  const result: (number | null)[][] = []
  const frets: (number | null)[] = Array.from({ length: strings }, () => null)
  frets[melody.string - 1] = melody.fret
  const go = (string: number, voices: number, low: number, high: number) => {
    if (string > strings) {
      if (voices > 1) result.push([...frets])
      return
    }
    frets[string - 1] = null
    go(string + 1, voices, low, high)
    if (voices >= requirement.voices) return
    const above = pitchAbove(setup, frets, string)
    const open = openPitch(setup, string)
    for (const fret of reachedFrets(setup, requirement, string, low, high)) {
      if (open + fret >= above) break
      if (!tones.includes(mod12(open + fret))) continue
      frets[string - 1] = fret
      if (fret === 0) go(string + 1, voices + 1, low, high)
      else go(string + 1, voices + 1, Math.min(low, fret), Math.max(high, fret))
    }
    frets[string - 1] = null
  }
  const fretted = melody.fret > 0
  go(melody.string + 1, 1, fretted ? melody.fret : requirement.lastFret, fretted ? melody.fret : 0)
  return result
}

/**
 * True where an answer is struck over the held note: strings enough for a chord lie above it, and close chords on bass
 * strings would sound like mud. Common practice, no source.
 */
const liesOver = ({ answers }: VoicingRequirement, melody: Place): boolean =>
  answers && melody.string > STRINGS_ABOVE

/** Strings above a melody note that make a chord with it. */
const STRINGS_ABOVE = 2

/** Every chord on the strings next above the melody's, two or more of them, each higher than the one below it. */
function aboveMelody(setup: Setup, requirement: VoicingRequirement, melody: Place): (number | null)[][] {
  const tones = chordPitchClasses(requirement.chord)
  const result: (number | null)[][] = []
  const frets: (number | null)[] = Array.from({ length: setup.instrument.strings }, () => null)
  frets[melody.string - 1] = melody.fret
  const go = (string: number, voices: number, below: Midi, low: number, high: number) => {
    if (voices > 2) result.push([...frets])
    if (string < 1 || voices >= requirement.voices) return
    for (const fret of reachedFrets(setup, requirement, string, low, high)) {
      const midi = openPitch(setup, string) + fret
      if (midi <= below || !tones.includes(mod12(midi))) continue
      frets[string - 1] = fret
      if (fret === 0) go(string - 1, voices + 1, midi, low, high)
      else go(string - 1, voices + 1, midi, Math.min(low, fret), Math.max(high, fret))
    }
    frets[string - 1] = null
  }
  const fretted = melody.fret > 0
  go(
    melody.string - 1,
    1,
    pitchAt(setup, melody),
    fretted ? melody.fret : requirement.lastFret,
    fretted ? melody.fret : 0,
  )
  return result
}

function lowestPitchClass(setup: Setup, frets: readonly (number | null)[]): number {
  const sounding = frets.flatMap((fret, i) =>
    fret === null ? [] : [pitchAt(setup, { string: i + 1, fret })],
  )
  return mod12(Math.min(...sounding))
}

/** The lowest pitch among the strings above. */
function pitchAbove(setup: Setup, frets: readonly (number | null)[], string: number): Midi {
  for (let s = string - 1; s >= 1; s--) {
    const fret = frets[s - 1]
    if (fret !== null && fret !== undefined) return pitchAt(setup, { string: s, fret })
  }
  return Infinity
}

/** What speaks against a voicing as sound: missing tones, an inversion, doubled notes, gaps, mud in the bass. */
function voicingPrice(
  setup: Setup,
  requirement: VoicingRequirement,
): (frets: readonly (number | null)[]) => number {
  const root = pitchClass(requirement.chord.root)
  const bass = bassPitchClass(requirement.chord)
  const hasBass = hasBassStrings(setup.instrument)
  const needs = toneNeeds(requirement.chord).essential.map((group) => group.map((i) => mod12(root + i)))
  return (frets) => {
    const midis = frets.flatMap((fret, i) => (fret === null ? [] : [pitchAt(setup, { string: i + 1, fret })]))
    const pcs = midis.map(mod12)
    let price = 0
    for (const group of needs) {
      if (group.some((pc) => pcs.includes(pc))) continue
      const above = mod12(group[0]! - root)
      price +=
        above === 7 ? WEIGHTS.voicingNoFifth : above === 0 ? WEIGHTS.voicingNoRoot : WEIGHTS.voicingNoTone
    }
    const lowest = Math.min(...midis)
    if (mod12(lowest) !== bass) price += inversionPrice(mod12(lowest - root)) * (hasBass ? 1 : TURNED_OVER)
    price += (requirement.voices - midis.length) * requirement.thin
    if (requirement.change) {
      const low = frets.findLastIndex((fret) => fret !== null)
      if (hasBass && low + 1 < FIRST_BASS_STRING) price += WEIGHTS.voicingNoBass
      if (hasBass) price += WEIGHTS.voicingHighBass * Math.min(MOST_HIGH, Math.max(0, frets[low]! - 4))
      if (midis.length === 2) price += WEIGHTS.voicingBare
    }
    const different = new Set(pcs).size
    price += (midis.length - different) * WEIGHTS.voicingDoubled
    // One tone in octaves is no chord.
    if (different < 2) price += WEIGHTS.voicingBare
    // The bass may have it: a ninth goes down to its octave.
    if (pcs.some((pc, k) => pc === requirement.resolution && midis[k] !== lowest))
      price += WEIGHTS.voicingResolved
    const strings = frets.flatMap((fret, i) => (fret === null ? [] : [i]))
    for (let k = 1; k < strings.length; k++) price += (strings[k]! - strings[k - 1]! - 1) * WEIGHTS.voicingGap
    for (let k = 1; k < midis.length; k++) price += WEIGHTS.voicingMud * mudOf(midis[k]!, midis[k - 1]!)
    return price
  }
}

/**
 * How muddy two neighbouring notes sound: thirds below C3, and twice as much seconds below E♭3, where their beats are slow and rough. Low
 * limits of arrangers, from memory; the factor has no source.
 */
function mudOf(lower: Midi, upper: Midi): number {
  const semitones = upper - lower
  if (semitones <= 2) return lower < 51 ? 2 : 0
  return semitones < 5 && lower < 48 ? 1 : 0
}

/** Share of the price of an inversion where there are no bass strings: chords are turned over freely. Common practice, no source. */
const TURNED_OVER = 0.3

function inversionPrice(interval: number): number {
  if (interval === 7) return WEIGHTS.inversionFifth
  return interval === 3 || interval === 4 ? WEIGHTS.inversionThird : WEIGHTS.inversionOther
}
