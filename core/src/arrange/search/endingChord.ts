import { heldShapesFor, type HeldShape } from '../../chords/textbook.ts'
import { durationOf } from '../../document/durationOf.ts'
import type { Id } from '../../document/ids.ts'
import type { Level } from '../../document/style.ts'
import type { Grip, PressedPlace } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { hasFinger, leftFinger } from '../../hand/grip/pressed.ts'
import { pitchAt, placesOf, type Place, type Setup } from '../../instrument/setup.ts'
import { knownIn, present } from '../../invariant.ts'
import { bassPitchClass, chordText } from '../../music/harmony/chordSymbol.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import type { Unpicked } from '../ornament/ornamentPage.ts'
import type { Ending } from '../plan/endings.ts'
import { pickingOf } from '../plan/pickingOf.ts'
import type { HarmonySegment } from '../plan/harmonyLine.ts'
import type { Plan, Slice } from '../plan/plan.ts'
import { barreStrings } from './barreStrings.ts'
import { chordNoteId } from '../../document/noteIds.ts'

/** Notes that an ending has at least, by level. Common practice, no source. */
const NOTES_AT_END: Readonly<Record<Level, number>> = { 1: 0, 2: 0, 3: 3, 4: 3, 5: 4 }

/** Highest fret of the root of an ending that lies as players take it, low on the neck. Common practice, no source. */
const LAST_LOW_ROOT = 4

/** Strings that thumb and three fingers pluck at once. */
const PLUCKED = 4

/** Notes struck at one slice. */
interface Onset {
  readonly t: number
  readonly notes: readonly Unpicked[]
}

interface Written {
  readonly onsets: readonly Onset[]
  readonly grips: readonly Grip[]
}

/**
 * The end of a tune, and of sections that end on the same note over the same chord, where the melody lies too low to have a chord beneath it, or only a thick one high up the low
 * strings: the chord is struck above it, the melody note its root or a low tone of it, as a player ends a tune on the low strings. What was
 * found stays where that is enough, or where no whole shape has the melody's place.
 * @param locked notes, grips and measures that stay as they are
 */
export function withEndingChords(
  written: Written,
  plan: Plan,
  tune: TuneDoc,
  setup: Setup,
  locked: ReadonlySet<Id>,
): Written {
  const last = plan.endings.find((e) => e.until === plan.timeline.length)
  if (!last) return written
  const sound = soundOf(last, plan)
  return plan.endings
    .filter((e) => soundOf(e, plan) === sound)
    .reduce((found, ending) => withEndingChord(found, ending, plan, tune, setup, locked), written)
}

/** The melody note and the chord of an ending. */
function soundOf({ at, segment }: Ending, { melodyMidi, slices, sliceAt, harmony }: Plan): string {
  const t = sliceAt.get(at)
  const { melody = -1 } = t === undefined ? {} : slices[t]!
  return `${String(melodyMidi[melody])} ${chordText(present(harmony[segment]!.shape))}`
}

function withEndingChord(
  written: Written,
  ending: Ending,
  plan: Plan,
  tune: TuneDoc,
  setup: Setup,
  locked: ReadonlySet<Id>,
): Written {
  const t = plan.sliceAt.get(ending.at)
  const onset = written.onsets.find((o) => o.t === t)
  const grip = written.grips.find((g) => sameTime(g, onset?.notes[0]))
  if (!onset || !grip || locked.has(grip.id) || locked.has(grip.pos.measure)) return written
  const slice = plan.slices[onset.t]!
  const region = plan.regions[slice.measure]
  // Nothing is added to what was given, nor to a version that does without.
  if (region?.given || region?.without?.length) return written
  const least = Math.min(NOTES_AT_END[slice.level], setup.instrument.strings - 1)
  if (onset.notes.some((n) => locked.has(n.id))) return written
  const isWhole = onset.notes.length >= least
  const isLow = !isOverHighRoot(onset, plan.harmony[ending.segment]!, setup)
  if (isWhole && (least === 0 || isLow)) return written
  const made = chordOver(onset, ending, slice, plan, tune, setup, isWhole ? 'lower' : 'kept', least)
  if (!made) return written
  const { notes, ...held } = made
  return {
    onsets: written.onsets.map((o) => (o === onset ? { t: o.t, notes } : o)),
    grips: written.grips.map((g) => (g === grip ? { ...g, ...held } : g)),
  }
}

/** True where what is struck lies over its root, and that far up the neck. */
function isOverHighRoot({ notes }: Onset, { sounding }: HarmonySegment, setup: Setup): boolean {
  const low = notes.reduce((a, b) => (pitchAt(setup, b.place) < pitchAt(setup, a.place) ? b : a)).place
  return (
    low.fret > LAST_LOW_ROOT &&
    sounding !== undefined &&
    mod12(pitchAt(setup, low)) === bassPitchClass(sounding)
  )
}

const sameTime = ({ pos }: Grip, note: Unpicked | undefined): boolean =>
  note !== undefined && note.pos.measure === pos.measure && note.pos.tick === pos.tick

/**
 * The notes of an ending with the rest of a shape that has its melody; undefined where there is none.
 * @param root whether the bass that was found stays, or is to lie lower on the neck
 */
function chordOver(
  { notes }: Onset,
  ending: Ending,
  slice: Slice,
  plan: Plan,
  tune: TuneDoc,
  setup: Setup,
  root: 'kept' | 'lower',
  least: number,
):
  | { readonly notes: readonly Unpicked[]; readonly pressed: readonly PressedPlace[]; readonly shape: string }
  | undefined {
  const { shape: chord } = plan.harmony[ending.segment]!
  const melody = notes.find((n) => n.role === 'melody')
  const hand = pickingOf(slice.style, slice.school, setup)
  if (!chord || !melody || melody.place.harmonic || hand === 'thumbAndIndex') return undefined
  const strokes = hand === 'flatPick'
  const bass = mod12(bassPitchClass(chord) + setup.capo[0]!)
  const found = root === 'kept' ? notes.find((n) => n.role === 'bass') : undefined
  // A hand that goes elsewhere anyway takes the note where its shape has it.
  const isFree = root === 'lower' && melody.attack === 'pluck'
  const places: readonly Place[] = isFree ? placesOf(setup, pitchAt(setup, melody.place)) : [melody.place]
  const melodyIn = ({ frets }: HeldShape) => places.find((p) => frets[p.string - 1] === p.fret)
  const fits = (shape: HeldShape) => {
    const { frets, pressed, fingers } = shape
    const low = frets.findLastIndex((f) => f !== null) + 1
    const sounding = frets.filter((f) => f !== null).length
    return (
      sounding >= least &&
      melodyIn(shape) !== undefined &&
      mod12(pitchAt(setup, { string: low, fret: frets[low - 1]! })) === bass &&
      (!found || found.place.string <= low) &&
      (root === 'kept' || frets[low - 1]! <= LAST_LOW_ROOT) &&
      handFault(setup, setup.player.spans, pressed) === undefined &&
      pressed.every((p) => hasFinger(setup.player.techniques, p.finger)) &&
      fingers.every((places) => stringsUnder(places) <= barreStrings(slice, setup))
    )
  }
  const held = heldShapesFor(chord, setup, tune.pins).find(fits)
  const place = held && melodyIn(held)
  if (!place) return undefined
  const sounding = held.frets.flatMap((fret, i) => (fret === null ? [] : [{ string: i + 1, fret }])).reverse()
  const struck = strokes ? neighbours(sounding) : plucked(sounding, place.string)
  if (struck.length < least || !struck.some((s) => s.string === place.string)) return undefined
  const dur = durationOf(ending.until - ending.at)
  const fingers = new Map(held.pressed.map((p) => [p.string, leftFinger(p.finger)]))
  const chordNotes = struck
    .filter((s) => s.string !== place.string)
    .map((own, nth): Unpicked => ({
      id: chordNoteId(melody.pos, nth),
      pos: melody.pos,
      dur,
      role: own === sounding[0] ? 'bass' : 'harmony',
      notationVoice: 2,
      place: own,
      left: fingers.get(own.string) ?? 0,
      attack: 'pluck',
      optional: false,
    }))
  return {
    notes: [{ ...melody, place, left: fingers.get(place.string) ?? 0 }, ...chordNotes],
    pressed: held.pressed.map(({ string, fret }) => ({
      string,
      fret,
      finger: knownIn(fingers, string) as PressedPlace['finger'],
    })),
    shape: held.name,
  }
}

/** Strings that one finger lies across. */
const stringsUnder = (places: readonly { readonly string: number }[]): number =>
  Math.max(...places.map((p) => p.string)) - Math.min(...places.map((p) => p.string)) + 1

type Sounding = readonly { readonly string: number; readonly fret: number }[]

/** The strings from the lowest up to the first that does not sound: what one stroke passes over. */
function neighbours(sounding: Sounding): Sounding {
  const gap = sounding.findIndex((s, i) => i > 0 && sounding[i - 1]!.string - s.string > 1)
  return gap < 0 ? sounding : sounding.slice(0, gap)
}

/** The lowest string, the melody's, and those next above it, as many as the fingers pluck. */
function plucked(sounding: Sounding, melody: number): Sounding {
  const [low] = sounding
  const above = sounding.filter((s) => s.string < melody)
  const between = sounding.filter((s) => s.string > melody && s !== low)
  const own = sounding.filter((s) => s === low || s.string === melody)
  const room = PLUCKED - own.length
  const chosen = new Set([...own, ...[...above, ...between.reverse()].slice(0, room)])
  return sounding.filter((s) => chosen.has(s))
}
