import { knownIn } from '../../invariant.ts'
import { timelineOf, type Timeline } from '../../document/form/timeline.ts'
import { BACKING_VOICE, type TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { Measure, TuneDoc, TuneEvent } from '../../document/tune.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { signatureAlter, spellInKey, transposeKey, type Key } from '../../music/pitch/key.ts'
import { midiOf, type Pitch } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { plainValues } from './plainValues.ts'

/** One sign on the staff: a note, a rest, or an invisible filler that keeps a second voice in step. */
export interface StaffSign {
  readonly kind: 'note' | 'rest' | 'filler'
  readonly tick: Ticks
  readonly ticks: Ticks
  readonly base: number
  readonly dots: number
  /** As written: for guitar an octave above sounding. */
  readonly pitch?: Pitch
  /** Accidental sign to print, if any. */
  readonly accidental?: number
  readonly tupletId?: Id
  /** Tied to the next sign of its voice. */
  readonly tied: boolean
  /** The tab note or tune event that it shows. */
  readonly shows?: Id
}

export interface StaffMeasure {
  readonly key: Key
  readonly upper: readonly StaffSign[]
  readonly lower: readonly StaffSign[]
}

/** What stands in one measure of the staff, before it is written as signs. */
export interface StaffContent {
  readonly measure: Measure
  /** The melody. */
  readonly events: readonly TuneEvent[]
  /** Notes of the tab below it. */
  readonly lower: readonly TabNote[]
  /** Notes that sound on from earlier measures. */
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
  const { starts } = timeline
  for (const e of tune.events)
    if (e.voice === 0) contents[knownIn(timeline.indexOf, e.pos.measure)]!.events.push(e)
  for (const note of notes) {
    if (note.role === 'melody' || isBacking(note)) continue
    const from = knownIn(timeline.indexOf, note.pos.measure)
    contents[from]!.lower.push(note)
    const end = starts[from]! + note.pos.tick + note.dur.ticks
    for (let m = from + 1; m < starts.length && starts[m]! < end; m++)
      contents[m]!.carried.push({ note, until: end - starts[m]! })
  }
  return contents
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
    tied: e.tieTo !== undefined,
    shows: e.id,
    ...(e.pitch ? { pitch: written(e.pitch, transposed + above, key) } : {}),
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
      signs.push({ kind: plain ? 'rest' : 'filler', tick: at, ...v, tied: false })
      at += v.ticks
    }
  }
  const sound = (note: TabNote, ticks: Ticks, goesOn: boolean) => {
    const pitch = spellInKey(pitchAt(setup, note.place) + writtenAbove(setup), key)
    const values = plain ? plainValues(ticks).slice(0, 1) : plainValues(ticks)
    values.forEach((v, i) => {
      signs.push({
        kind: 'note',
        tick: at,
        ...v,
        pitch,
        tied: !plain && (goesOn || i < values.length - 1),
        shows: note.id,
      })
      at += v.ticks
    })
  }
  const held = carried[0]
  const sorted = [...notes].sort((a, b) => a.pos.tick - b.pos.tick)
  if (held) {
    const until = Math.min(held.until, measure.length, sorted[0]?.pos.tick ?? measure.length)
    sound(held.note, until, held.until > measure.length)
  }
  sorted.forEach((note, i) => {
    if (note.pos.tick < at) return
    fill(note.pos.tick)
    const room = Math.min(sorted[i + 1]?.pos.tick ?? measure.length, measure.length) - note.pos.tick
    sound(note, Math.min(note.dur.ticks, room), note.dur.ticks > room && i === sorted.length - 1)
  })
  if (signs.length > 0) fill(measure.length)
  return signs
}

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
    if (!s.pitch) continue
    const before = out[v as 0 | 1][i - 1]
    const slot = s.pitch.step + String(s.pitch.octave)
    const current = memory.get(slot) ?? signatureAlter(key.fifths, s.pitch.step)
    if (before?.tied && before.pitch?.alter === s.pitch.alter) continue
    if (s.pitch.alter !== current) {
      memory.set(slot, s.pitch.alter)
      out[v as 0 | 1][i] = { ...s, accidental: s.pitch.alter }
    }
  }
  return { upper: out[0], lower: out[1] }
}

/** Semitones between what is written and what sounds: guitars are written an octave up, mandolins as they sound. */
export function writtenAbove({ instrument }: Pick<Setup, 'instrument'>): number {
  return instrument.kind === 'mandolin' ? 0 : 12
}
