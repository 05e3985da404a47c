import { knownIn } from '../../invariant.ts'
import { timelineOf, type Timeline } from '../../document/form/timeline.ts'
import { BACKING_VOICE, type TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { Measure, TuneDoc, TuneEvent } from '../../document/tune.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { signatureAlter, spellInKey, transposeKey, type Key } from '../../music/pitch/key.ts'
import { midiOf, STEPS, type Pitch } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { plainValues } from './plainValues.ts'

/** One head of a note on the staff. */
export interface StaffHead {
  /** As written: for guitar an octave above sounding. */
  readonly pitch: Pitch
  /** Accidental sign to print, if any. */
  readonly accidental?: number
  /** Tied to the head of its pitch in the next sign of its voice. */
  readonly tied: boolean
  /** A stroke that sounds no pitch: its head is a cross. */
  readonly muted?: true
  /** The tab note or tune event that it shows. */
  readonly shows: Id
}

/** One sign on the staff: a note or chord, a rest, or an invisible filler that keeps a second voice in step. */
export interface StaffSign {
  readonly kind: 'note' | 'rest' | 'filler'
  readonly tick: Ticks
  readonly ticks: Ticks
  readonly base: number
  readonly dots: number
  /** From the lowest; a rest or filler has none. */
  readonly heads: readonly StaffHead[]
  readonly tupletId?: Id
}

export interface StaffMeasure {
  readonly key: Key
  readonly upper: readonly StaffSign[]
  readonly lower: readonly StaffSign[]
}

/** Lines and spaces of a staff upward from C of octave 0, whatever the accidental: two of one number share a line. */
export const staffLine = ({ step, octave }: Pitch): number => octave * 7 + STEPS.indexOf(step)

/** What stands in one measure of the staff, before it is written as signs. */
export interface StaffContent {
  readonly measure: Measure
  /** The melody. */
  readonly events: readonly TuneEvent[]
  /** Notes of the tab below it. */
  readonly lower: readonly TabNote[]
  /** Notes of the moment before it that sound on, where nothing below the melody was struck since. */
  readonly carried: readonly Carried[]
}

/** How a staff is written: where its pitches stand, and on what the lower voice is played. */
export interface StaffWriting {
  /** Semitones from the tune's own pitch. */
  readonly transposed: number
  readonly setup: Setup | undefined
  /** Semitones between what sounds and what is written. */
  readonly above: number
  /** True where the lower voice is written plainly, in single values and rests, however long it rings. */
  readonly plain: boolean
}

/**
 * What the staff shows of a tune and, where given, of its arrangement: the melody as the source writes it (stems up),
 * the other voices below it (stems down). With a setup, guitar pitch is written an octave above sounding, under a
 * clef with 8; a tune alone, or one that is only sung, stands at its own pitch.
 */
export function staffOf(
  tune: TuneDoc,
  transposed: number,
  setup?: Setup,
  notes: readonly TabNote[] = [],
  plain = false,
): StaffMeasure[] {
  const writing = staffWriting(transposed, setup, notes, plain)
  return staffContents(tune, timelineOf(tune.measures), notes).map((c) => staffMeasure(c, writing))
}

/** How the staff of a tune and its tab is written. */
export const staffWriting = (
  transposed: number,
  setup: Setup | undefined,
  notes: readonly TabNote[],
  plain: boolean,
): StaffWriting => ({ transposed, setup, above: setup ? octaveAbove(setup, notes) : 0, plain })

/** What stands in each measure of the staff. */
export function staffContents(tune: TuneDoc, timeline: Timeline, notes: readonly TabNote[]): StaffContent[] {
  const contents = tune.measures.map((measure) => ({
    measure,
    events: [] as TuneEvent[],
    lower: [] as TabNote[],
    carried: [] as Carried[],
  }))
  for (const e of tune.events)
    if (e.voice === 0) contents[knownIn(timeline.indexOf, e.pos.measure)]!.events.push(e)
  for (const note of notes) {
    if (note.role === 'melody' || isBacking(note)) continue
    contents[knownIn(timeline.indexOf, note.pos.measure)]!.lower.push(note)
  }
  let last: readonly Carried[] = []
  contents.forEach(({ measure, lower, carried }) => {
    carried.push(...last)
    last = ringingOut(lower, last)
      .map(({ note, until }) => ({ note, until: until - measure.length }))
      .filter((c) => c.until > 0)
  })
  return contents
}

/** The notes that are struck last in a measure, or those carried into it, and until which of its ticks they sound. */
function ringingOut(notes: readonly TabNote[], carried: readonly Carried[]): readonly Carried[] {
  if (notes.length === 0) return carried
  const last = Math.max(...notes.map((n) => n.pos.tick))
  return notes.filter((n) => n.pos.tick === last).map((note) => ({ note, until: last + note.dur.ticks }))
}

/** The signs of one measure. */
export function staffMeasure(
  { measure, events, lower, carried }: StaffContent,
  { transposed, setup, above, plain }: StaffWriting,
): StaffMeasure {
  const key = transposeKey(measure.key, transposed)
  const upper = events.map((e): StaffSign => ({
    kind: e.pitch ? 'note' : 'rest',
    tick: e.pos.tick,
    ticks: e.dur.ticks,
    base: e.dur.base,
    dots: e.dur.dots,
    heads: e.pitch
      ? [{ pitch: written(e.pitch, transposed + above, key), tied: e.tieTo !== undefined, shows: e.id }]
      : [],
    ...(e.dur.tupletId ? { tupletId: e.dur.tupletId } : {}),
  }))
  const below = setup ? lowerVoice(measure, lower, plain ? [] : carried, setup, key, plain) : []
  return { key, ...withAccidentals(key, upper, below) }
}

function written(source: Pitch, moved: number, key: Key): Pitch {
  if (moved % 12 === 0) return { ...source, octave: source.octave + moved / 12 }
  return spellInKey(midiOf(source) + moved, key)
}

/** True unless the notes only accompany: a tune that is sung alone stands at its own pitch. */
const isPlayed = (notes: readonly TabNote[]): boolean =>
  notes.length === 0 || notes.some((n) => !isBacking(n))

/** Semitones between what is written and what sounds of a tab: a tune that is only sung stands at its own pitch. */
export const octaveAbove = (setup: Setup, notes: readonly TabNote[]): number =>
  isPlayed(notes) ? writtenAbove(setup) : 0

/** What accompanies a singer stands in the tab alone; the staff is the singer's. */
const isBacking = (note: TabNote) => note.notationVoice === BACKING_VOICE

/** A note that sounds on, and until which tick of the measure. */
export interface Carried {
  readonly note: TabNote
  readonly until: Ticks
}

function lowerVoice(
  measure: Measure,
  notes: readonly TabNote[],
  carried: readonly Carried[],
  setup: Setup,
  key: Key,
  plain: boolean,
): StaffSign[] {
  const signs: StaffSign[] = []
  let at: Ticks = 0
  const fill = (until: Ticks) => {
    for (const v of plainValues(until - at)) {
      signs.push({ kind: plain ? 'rest' : 'filler', tick: at, ...v, heads: [] })
      at += v.ticks
    }
  }
  /** Notes that sound together stand under one stem, as long as the longest of them, until the next are struck. */
  const sound = (sounding: readonly Carried[], next: Ticks) => {
    const until = Math.min(next, Math.max(...sounding.map((s) => s.until)))
    const values = plain ? plainValues(until - at).slice(0, 1) : plainValues(until - at)
    const struck = sounding
      .map((sounds) => ({ sounds, head: headOf(sounds.note, setup, key) }))
      .sort(({ head: a }, { head: b }) => byLine(a.pitch, b.pitch))
    values.forEach((v, i) => {
      const goesOn = (s: Carried) =>
        !plain && (i < values.length - 1 || (next === measure.length && s.until > next))
      const heads = struck.map(({ head, sounds }) => ({ ...head, tied: goesOn(sounds) }))
      signs.push({ kind: 'note', tick: at, ...v, heads })
      at += v.ticks
    })
  }
  const onsets = [...new Set(notes.map((n) => n.pos.tick))].sort((a, b) => a - b)
  const first = onsets[0] ?? measure.length
  if (carried.length > 0 && first > 0) sound(carried, first)
  onsets.forEach((tick, i) => {
    fill(tick)
    const struck = notes.filter((n) => n.pos.tick === tick)
    sound(
      struck.map((note) => ({ note, until: tick + note.dur.ticks })),
      onsets[i + 1] ?? measure.length,
    )
  })
  if (signs.length > 0) fill(measure.length)
  return signs
}

const headOf = (note: TabNote, setup: Setup, key: Key) => ({
  pitch: spellInKey(pitchAt(setup, note.place) + (note.bend ?? 0) + writtenAbove(setup), key),
  shows: note.id,
  ...(note.attack === 'muted' ? { muted: true as const } : {}),
})

/** Prints an accidental where the key or an earlier sign in the measure says otherwise; both voices share memory. */
function withAccidentals(
  key: Key,
  upper: readonly StaffSign[],
  lower: readonly StaffSign[],
): { upper: StaffSign[]; lower: StaffSign[] } {
  const memory = new Map<string, number>()
  const all = [...upper.map((s, i) => ({ s, v: 0, i })), ...lower.map((s, i) => ({ s, v: 1, i }))]
  const out: [StaffSign[], StaffSign[]] = [[...upper], [...lower]]
  for (const { s, v, i } of all.sort((a, b) => a.s.tick - b.s.tick || a.v - b.v)) {
    const before = out[v as 0 | 1][i - 1]
    const heads = s.heads.map((head): StaffHead => {
      const { step, octave, alter } = head.pitch
      const slot = step + String(octave)
      const current = memory.get(slot) ?? signatureAlter(key.fifths, step)
      if (before?.heads.some((h) => h.tied && samePitch(h.pitch, head.pitch))) return head
      // Two of one line that sound together say both what they are.
      const clash = s.heads.some((h) => onLineOf(h.pitch, head.pitch) && h.pitch.alter !== alter)
      if (alter === current && !clash) return head
      memory.set(slot, alter)
      return { ...head, accidental: alter }
    })
    out[v as 0 | 1][i] = { ...s, heads }
  }
  return { upper: out[0], lower: out[1] }
}

const byLine = (a: Pitch, b: Pitch) => staffLine(a) - staffLine(b) || a.alter - b.alter
const onLineOf = (a: Pitch, b: Pitch) => staffLine(a) === staffLine(b)
const samePitch = (a: Pitch, b: Pitch) => onLineOf(a, b) && a.alter === b.alter

/** Semitones between what is written and what sounds: guitars are written an octave up, mandolins as they sound. */
export function writtenAbove({ instrument }: Pick<Setup, 'instrument'>): number {
  return instrument.kind === 'mandolin' ? 0 : 12
}
