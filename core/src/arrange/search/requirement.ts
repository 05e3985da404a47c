import { bassPitchClass, chordPitchClasses, chordText } from '../../music/harmony/chordSymbol.ts'
import type { PickingSchool } from '../../instrument/hand.ts'
import type { Level } from '../../document/style.ts'
import type { Role } from '../../document/tab.ts'
import type { TasteInForce } from '../../document/taste.ts'
import type { HandRule } from '../../document/school.ts'
import { byFinger, type Pressed } from '../../hand/grip/pressed.ts'
import { pitchAt, placesOf, type Place, type Setup } from '../../instrument/setup.ts'
import { mod12, pitchClass, type Midi, type PitchClass } from '../../music/pitch/pitch.ts'
import type { PlannedBass } from '../plan/bassLine.ts'
import type { PlannedInner } from '../plan/innerLine.ts'
import { pickingOf } from '../plan/pickingOf.ts'
import { hasBassStrings, MELODY_ON_TOP } from '../plan/styleRules.ts'
import type { OrnamentRoom, Plan, Slice } from '../plan/plan.ts'
import type { HeldShape } from '../../chords/textbook.ts'
import { QUARTER } from '../../music/time/ticks.ts'
import { bassOptions, type BassOption } from './bassOptions.ts'
import { isSlurTime } from '../ornament/usualTimes.ts'
import { melodyPlaces } from './melodyPlaces.ts'
import type { SliceLock } from './sliceLock.ts'
import { heldShapesOf, heldVoicings, highTriadsOf, tonesOf, topOf } from './plannedVoicings.ts'
import type { RequirementCache } from './requirementCache.ts'
import { tasteAt } from './tasteAt.ts'
import { barreStrings } from './barreStrings.ts'
import { LEVEL_RULES, WEIGHTS } from './weights.ts'

export type { BassOption } from './bassOptions.ts'

/** A place for a fill or a second voice. */
export interface InnerOption {
  readonly place: Place
  readonly price: number
}

/** What one slice asks of the hand. Slices with equal signatures share their candidates. */
export interface Requirement {
  readonly signature: string
  readonly level: Level
  readonly hand: HandRule
  readonly picking: PickingSchool
  readonly melody:
    | {
        readonly midi: Midi
        readonly onset: boolean
        /** The source slurs it to the note before. */
        readonly slurred: boolean
        readonly places: readonly Place[]
        /** What an ornament of the source needs beside the note. */
        readonly room: OrnamentRoom | undefined
        /** Places of the note before, where it is to ring on. */
        readonly before: readonly Place[]
      }
    | undefined
  readonly bass:
    | {
        readonly onset: boolean
        readonly change: boolean
        readonly firm: boolean
        readonly inherited: boolean
        readonly kind: PlannedBass['kind']
        /** True where the melody is the root itself, and none lies below it. */
        readonly isMelody: boolean
        readonly options: readonly BassOption[]
      }
    | undefined
  readonly inner:
    | {
        readonly kind: PlannedInner['kind']
        readonly role: Exclude<Role, 'melody'>
        readonly onset: boolean
        readonly change: boolean
        /** True for the chord on which the music comes to rest. */
        readonly rests: boolean
        readonly answers: boolean
        /** True where a voicing is wanted with its root below at a change. */
        readonly firm: boolean
        readonly turn: number
        /** True for a fill of a figure: strings on both sides of the melody are free to it. */
        readonly figure: boolean
        readonly inherited: boolean
        readonly voices: number
        /** Places of a second voice. */
        readonly options: readonly InnerOption[]
        /** Pitch classes that a fill may take on open strings. */
        readonly tones: readonly PitchClass[]
      }
    | undefined
  readonly heldShapes: readonly HeldShape[]
  /** Strings that a finger may lie across: 1 for none. */
  readonly barreStrings: number
  /** False where no grip may come near the end of the hand's reach. */
  readonly stretches: boolean
  /** True where holding the chord's shape has a worth of its own. */
  readonly holdsShapes: boolean
  /** True where the melody belongs on the two highest strings. */
  readonly melodyOnTop: boolean
  /** Somebody's taste, where it has prices. */
  readonly taste: TasteInForce | undefined
  readonly lock: SliceLock | undefined
}

/** Turns a slice of the plan into a requirement: every place that each voice could take, with the held shapes of its chord. */
export function requirementOf(
  plan: Plan,
  t: number,
  setup: Setup,
  cache: RequirementCache,
  lock?: SliceLock,
): Requirement {
  const slice = plan.slices[t]!
  const rules = LEVEL_RULES[slice.level]
  const last = slice.bass >= 0 ? rules.lastFretOverBass : rules.lastFret
  const segment = plan.harmony[slice.segment]
  const midi = slice.melody >= 0 ? plan.melodyMidi[slice.melody]! : undefined
  // Where the harmony changes the hand stays with the chord, for its root.
  const changes = slice.melodyOnset && segment?.start === slice.start && !slice.rules.ring
  const beats = slice.melody >= 0 && !changes ? beatsOf(plan, slice.melody) : 0
  const chord = segment?.shape ? chordText(segment.shape) : '-'
  const before = ringingBefore(plan, t)
  const melody =
    midi === undefined
      ? undefined
      : {
          midi,
          onset: slice.melodyOnset,
          slurred: plan.melody[slice.melody]?.slurred ?? false,
          room: slice.melodyOnset ? plan.ornamentRoom[slice.melody] : undefined,
          places: melodyPlaces(setup, midi, last, slice, beats, lock),
          before: before ? melodyPlaces(setup, before.midi, last, slice, before.beats, undefined) : [],
        }
  const bass = bassOf(plan, slice, setup, midi, melody?.places ?? [], rules.lastFretOverBass, lock)
  const { inner, heldShapes, strike } = innerOf(plan, slice, setup, cache, midi, lock)
  const bassSegment = slice.bass >= 0 ? plan.harmony[plan.bass[slice.bass]!.segment] : undefined
  const bassChord = bass && bassSegment?.shape ? chordText(bassSegment.shape) : '-'
  const { school } = slice
  const picking = pickingOf(slice.style, school, setup)
  const taste = tasteAt(plan, slice)
  const signature = [
    slice.level,
    slice.style,
    slice.barres,
    slice.stretches,
    school.hand,
    picking,
    midi ?? '-',
    melody?.onset,
    melody?.slurred,
    melody?.room ? `${melody.room.low}${melody.room.high}` : '-',
    before?.midi ?? '-',
    melody?.places.some((p) => p.harmonic),
    melody?.before.some((p) => p.harmonic),
    chord,
    bassChord,
    bass?.kind,
    bass?.onset,
    bass?.change,
    bass?.firm,
    bass?.inherited,
    slice.bass >= 0 ? (plan.bass[slice.bass]!.part?.midi ?? '-') : '-',
    bass?.kind === 'pedal' ? tonicAt(plan, slice) : '-',
    slice.bass >= 0 ? (plan.bass[slice.bass]!.passing ?? '-') : '-',
    slice.bass >= 0 ? (plan.bass[slice.bass]!.string ?? '-') : '-',
    inner
      ? [
          inner.kind,
          inner.role,
          inner.onset,
          inner.turn,
          inner.figure,
          inner.inherited,
          inner.rests,
          inner.firm,
          inner.tones,
          inner.voices,
        ].join()
      : '-',
    inner?.options.map((o) => `${o.place.string}.${o.place.fret}.${o.price}`).join() ?? '-',
    strike,
    taste ? JSON.stringify(taste.prices) : '',
    lock ? JSON.stringify(lock) : '',
  ].join('|')
  return {
    signature,
    level: slice.level,
    hand: school.hand,
    picking,
    melody,
    bass,
    inner,
    heldShapes,
    barreStrings: barreStrings(slice, setup),
    stretches: slice.stretches,
    holdsShapes: HOLDS_SHAPES.has(slice.style),
    melodyOnTop: MELODY_ON_TOP.has(slice.style),
    taste,
    lock,
  }
}

/** Styles in which the hand holds chord shapes while the voices move inside them. */
const HOLDS_SHAPES: ReadonlySet<string> = new Set(['melody-bass', 'alternating-bass', 'arpeggio'])

const tonicAt = (plan: Plan, slice: Slice) => pitchClass(plan.keys[slice.measure]!.tonic)

/** The melody note that should ring on into this slice's new one. */
function ringingBefore(plan: Plan, t: number): { readonly midi: Midi; readonly beats: number } | undefined {
  const slice = plan.slices[t]!
  const last = plan.slices[t - 1]
  if (!slice.rules.ring || !slice.melodyOnset || slice.melody === 0) return undefined
  if (last?.melody !== slice.melody - 1) return undefined
  if (last.measure !== slice.measure && !plan.follows[slice.measure]) return undefined
  if (maySlur(plan, slice)) return undefined
  const midi = plan.melodyMidi[last.melody]!
  return midi === plan.melodyMidi[slice.melody] ? undefined : { midi, beats: beatsOf(plan, last.melody) }
}

/**
 * From this level on a quick step off the beat may be slurred on its string instead of ringing on another: semitones of a step. Common
 * practice, no source.
 */
const SLURRED = { from: 4, semitones: 3 } as const

function maySlur(
  { melody: notes, melodyMidi, onBeat, secondsBetween }: Plan,
  { level, melody }: Slice,
): boolean {
  if (level < SLURRED.from || onBeat[melody]) return false
  const step = Math.abs(melodyMidi[melody - 1]! - melodyMidi[melody]!)
  const seconds = secondsBetween(notes[melody - 1]!.start, notes[melody]!.start)
  return step <= SLURRED.semitones && isSlurTime(seconds)
}

const beatsOf = ({ melody }: Plan, note: number): number => melody[note]!.duration / QUARTER

function bassOf(
  plan: Plan,
  slice: Slice,
  setup: Setup,
  melody: Midi | undefined,
  melodyPlaces: readonly Place[],
  last: number,
  lock: SliceLock | undefined,
): Requirement['bass'] {
  const planned = plan.bass[slice.bass]
  if (!planned) return undefined
  const sounding = plan.harmony[planned.segment]?.sounding
  if (!sounding && planned.kind !== 'pedal' && planned.kind !== 'part') return undefined
  const easyFret = LEVEL_RULES[slice.level].lastEasyFret
  const easyStrings = new Set(melodyPlaces.filter((p) => p.fret <= easyFret).map((p) => p.string))
  const options = bassOptions(
    setup,
    planned,
    {
      chord: sounding ? chordPitchClasses(sounding) : [],
      bass: sounding ? bassPitchClass(sounding) : -1,
      root: sounding ? pitchClass(sounding.root) : -1,
      tonic: tonicAt(plan, slice),
      passing: planned.passing,
    },
    melody,
    Math.max(last, ...melodyPlaces.map((p) => p.fret)),
    easyFret,
    easyStrings.size === 1 ? [...easyStrings][0] : undefined,
  )
  // Another tone under it would turn the chord over.
  const isMelody =
    planned.kind === 'root' &&
    melody !== undefined &&
    sounding !== undefined &&
    mod12(melody) === bassPitchClass(sounding) &&
    options.every((o) => o.nonRoot)
  const place = lock?.bass?.place
  const known = place && options.find((o) => o.place.string === place.string && o.place.fret === place.fret)
  return {
    onset: slice.bassOnset,
    change: planned.change,
    firm: planned.firm,
    inherited: planned.inherited,
    kind: planned.kind,
    isMelody,
    options: place ? lockedBass(setup, place, known, melody) : isMelody ? [] : options,
  }
}

/** A locked bass is taken whatever tone it is, but not over the melody. */
function lockedBass(
  setup: Setup,
  place: Place,
  known: BassOption | undefined,
  melody: Midi | undefined,
): readonly BassOption[] {
  if (known) return [known]
  const below = melody === undefined || pitchAt(setup, place) < melody
  return below ? [{ place, price: 0, nonRoot: false }] : []
}

/** The shapes of its level, and where the hand moves with the melody the triads up the neck that have it on top. */
function shapesUnder(
  plan: Plan,
  slice: Slice,
  setup: Setup,
  cache: RequirementCache,
  melody: Midi | undefined,
): readonly HeldShape[] {
  const { heldShapes } = LEVEL_RULES[slice.level]
  const known = heldShapesOf(plan, slice, setup, cache)
  const own = known.slice(0, heldShapes)
  if (heldShapes === 1 || melody === undefined || known[0]?.pinned || !HOLDS_SHAPES.has(slice.style))
    return own
  const high = highTriadsOf(plan, slice, setup, cache)
  return [...own, ...high.filter((h) => pitchAt(setup, { string: 1, fret: h.frets[0]! }) === melody)]
}

function innerOf(
  plan: Plan,
  slice: Slice,
  setup: Setup,
  cache: RequirementCache,
  melody: Midi | undefined,
  lock: SliceLock | undefined,
): { inner: Requirement['inner']; heldShapes: readonly HeldShape[]; strike: string } {
  const planned = plan.inner[slice.inner]
  const rules = LEVEL_RULES[slice.level]
  const ownShapes = () => shapesUnder(plan, slice, setup, cache, melody)
  if (!planned) {
    const heldShapes = HOLDS_SHAPES.has(slice.style) ? ownShapes() : []
    return { inner: undefined, heldShapes, strike: '' }
  }
  const inner = {
    kind: planned.kind,
    role: planned.role,
    onset: slice.innerOnset,
    change: planned.change,
    rests: planned.rests,
    answers: planned.answers,
    firm: planned.change && slice.school.root === 'always',
    turn: planned.turn,
    figure: planned.figure,
    inherited: planned.inherited,
    voices: planned.voices,
    options: planned.kind === 'double' ? secondOptions(setup, planned, rules.lastFret, lock) : [],
    tones: planned.tones ?? tonesOf(plan, planned),
  }
  if (planned.kind !== 'chord')
    return { inner, heldShapes: planned.kind === 'fill' ? ownShapes() : [], strike: '' }
  const top = topOf(plan, planned)
  const { heldShapes: known, key } = heldVoicings(plan, planned, slice, setup, cache, top)
  const kept = slice.innerOnset && lock ? lockedVoicing(setup, lock) : undefined
  const heldShapes = kept ? [...known, kept] : known
  return { inner, heldShapes, strike: `${key}:${melody === top ? 'top' : ''}` }
}

/** A chord of which every note is fixed, as a voicing of its own: it may be one that is not offered here. */
function lockedVoicing({ instrument }: Setup, { melody, chord = {} }: SliceLock): HeldShape | undefined {
  const frets: (number | null)[] = Array.from({ length: instrument.strings }, () => null)
  const pressed: Pressed[] = []
  for (const { place, finger } of [melody ?? {}, ...Object.values(chord)]) {
    if (!place || place.harmonic || finger === undefined) return undefined
    frets[place.string - 1] = place.fret
    if (finger > 0) pressed.push({ string: place.string, fret: place.fret, finger })
  }
  return { name: '', frets, pressed, fingers: byFinger(pressed), textbook: false }
}

/** Places of the second voices of a double stop. */
function secondOptions(
  setup: Setup,
  planned: PlannedInner,
  last: number,
  lock: SliceLock | undefined,
): InnerOption[] {
  const place = lock?.inner?.place
  // Without bass strings double stops move about in position: closed, as they are learned.
  const closed = !hasBassStrings(setup.instrument)
  const all = planned.second.flatMap(({ midi, price }) =>
    placesOf(setup, midi)
      .filter((p) => p.fret <= last)
      .map((p) => ({ place: p, price: price + (closed && p.fret === 0 ? WEIGHTS.secondOpen : 0) })),
  )
  if (!place) return all
  return [
    all.find((o) => o.place.string === place.string && o.place.fret === place.fret) ?? { place, price: 0 },
  ]
}
