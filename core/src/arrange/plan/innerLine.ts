import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import { measureAt, type MelodyNote, type Timeline } from '../../document/form/timeline.ts'
import type { Role } from '../../document/tab.ts'
import type { Measure } from '../../document/tune.ts'
import type { Key } from '../../music/pitch/key.ts'
import { mod12, pitchClass, type Midi, type PitchClass } from '../../music/pitch/pitch.ts'
import { beatLength, beatStarts, missingHead } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { inWaltzTime, type PlannedBass } from './bassLine.ts'
import { secondVoices, type SecondVoice } from './doubleStop.ts'
import type { Ending } from './endings.ts'
import { segmentAt, type HarmonySegment } from './harmonyLine.ts'
import type { ChordRule, FillRule, StyleRules, VoiceGrid } from './styleRules.ts'
import { gridTimes, neighbours, rankOf, RANKS, slotOf } from './innerMoments.ts'
import type { Turns } from '../../turns.ts'

/** Further voices at one moment: a fill, a second voice for the melody, or a whole voicing under it. */
export interface PlannedInner {
  readonly start: Ticks
  readonly until: Ticks
  readonly kind: 'fill' | 'double' | 'chord'
  readonly role: Exclude<Role, 'melody'>
  /** Index of the harmony segment; −1 where tones are given. */
  readonly segment: number
  /** Which fill this is since the last bass or the start of its measure; of a figure, since the start of its measure. */
  readonly turn: number
  /** True where it belongs to a figure: strings on both sides of the melody are free to it. */
  readonly figure: boolean
  /** Most voices of a voicing, melody included. */
  readonly voices: number
  /** True where the harmony changes here. */
  readonly change: boolean
  /** True for the chord on which the music comes to rest. */
  readonly rests: boolean
  /** True for a stroke between the notes of the tune: it may lie over the one that is held. */
  readonly answers: boolean
  readonly second: readonly SecondVoice[]
  /** True where the level below has it too: a higher level does not give it up for comfort. */
  readonly inherited: boolean
  /** Pitch classes of a fill that does not follow the harmony. */
  readonly tones?: readonly PitchClass[]
}

/** Fills nearer to another onset than this (seconds) would be noise, and hard. Common practice, no source. */
export const LEAST_FILL_S = 0.14

/** Fewer fills than this in a measure are no figure. No source. */
const ROOM_FOR_FIGURE = 2

/** What is struck more often. */
export const MORE_OFTEN = { changes: 'beats', beats: 'halves', halves: 'halves' } as const

/** The other voices of a plan, and the form that they stand in. */
export interface Lines {
  readonly measures: readonly Measure[]
  readonly timeline: Timeline
  readonly melody: readonly MelodyNote[]
  readonly melodyMidi: readonly Midi[]
  readonly bass: readonly PlannedBass[]
  readonly harmony: readonly HarmonySegment[]
  /** The sounding key of each measure. */
  readonly keys: readonly Key[]
  readonly secondsBetween: (from: Ticks, to: Ticks) => number
  /** Measures whose start is a join of the played order: nothing is held into them. */
  readonly joins: ReadonlySet<number>
  readonly endings: readonly Ending[]
}

interface Indexed extends Lines {
  readonly notesIn: (measure: number) => readonly { readonly note: MelodyNote; readonly i: number }[]
  readonly bassStarts: ReadonlySet<Ticks>
}

function indexed(lines: Lines): Indexed {
  const byMeasure = new Map<number, { note: MelodyNote; i: number }[]>()
  lines.melody.forEach((note, i) => {
    const own = byMeasure.get(note.measure)
    if (own) own.push({ note, i })
    else byMeasure.set(note.measure, [{ note, i }])
  })
  const bassStarts = new Set(lines.bass.map((b) => b.start))
  return { ...lines, notesIn: (m) => byMeasure.get(m) ?? [], bassStarts }
}

export interface InnerRules extends StyleRules {
  readonly side: 'below' | 'above'
  /** True where equal measures are to differ: every other measure starts its fills elsewhere. */
  readonly varied: boolean
  /** What the level below plays. */
  readonly lower: StyleRules
}

/** The further voices that a style asks for at a level, by time. */
export function* innerLine(
  source: Lines,
  rulesAt: (m: number) => InnerRules | undefined,
): Turns<PlannedInner[]> {
  const lines = indexed(source)
  let planned: PlannedInner[] = []
  for (let m = 0; m < lines.measures.length; m++) {
    if (m % 128 === 127) yield
    const rules = rulesAt(m)
    if (!rules) continue
    if (rules.double) planned.push(...doubles(lines, m, rules, rules.double))
    if (rules.chord) planned.push(...chords(lines, m, rules.chord))
    const between = rules.fill ? fills(lines, m, rules, rules.fill) : []
    planned.push(...between)
    if (rules.strums) planned.push(...strums(lines, m, rules.strums))
    // Where the tune leaves a figure no room, the chord comes with its notes.
    const crowded = rules.fill?.figure && rules.fill.gap === 0 && between.length < ROOM_FOR_FIGURE
    if (rules.thick)
      planned.push(...thickened(lines, m, rules, crowded ? MORE_OFTEN[rules.thick] : rules.thick))
    if (inWaltzTime(lines.measures[m]!, rules)) planned.push(...waltzChords(lines, m, rules))
  }
  for (const ending of lines.endings) {
    const rules = rulesAt(measureAt(lines.timeline, ending.at))
    if (!rules) continue
    planned = planned.filter((w) => w.start < ending.at || w.start >= ending.until)
    if (rules.ending !== 'root') planned.push(restingOn(ending, rules.ending))
  }
  yield
  planned = onceAtATime(planned)
  const stops = [...source.joins].map((m) => source.timeline.starts[m] ?? Infinity).sort((a, b) => a - b)
  let stop = 0
  return planned.map((w, i) => {
    while (stop < stops.length && stops[stop]! <= w.start) stop++
    return { ...w, until: Math.min(w.until, planned[i + 1]?.start ?? Infinity, stops[stop] ?? Infinity) }
  })
}

/** In order of time; of two at one moment the one that belongs to the melody. */
function onceAtATime(planned: readonly PlannedInner[]): PlannedInner[] {
  const sorted = [...planned].sort(
    (a, b) => a.start - b.start || Number(a.role === 'fill') - Number(b.role === 'fill'),
  )
  return sorted.filter((w, i) => w.start !== sorted[i - 1]?.start)
}

const BARE = {
  turn: 0,
  figure: false,
  voices: 0,
  change: false,
  rests: false,
  answers: false,
  second: [],
  inherited: false,
} as const

/** The chord of an ending, its root below. */
const restingOn = ({ at, until, segment }: Ending, voices: number): PlannedInner => ({
  ...BARE,
  start: at,
  until,
  kind: 'chord',
  role: 'harmony',
  segment,
  voices,
  change: true,
  rests: true,
})

function doubles(lines: Indexed, m: number, rules: InnerRules, grid: VoiceGrid): PlannedInner[] {
  const measure = lines.measures[m]!
  const from = lines.timeline.starts[m]!
  const struck = lines.notesIn(m).map(({ note, i }) => ({ note, i, rank: rankOf(measure, from, note) }))
  const times = playable(lines, grid, LEAST_DOUBLE_S, struck)
  return struck.flatMap(({ note, i }) => {
    if (!times.has(note.start)) return []
    const segment = segmentAt(lines.harmony, note.start)
    // A pickup leads into the first chord, and is heard with it.
    const heard = note.start < (lines.harmony[0]?.start ?? 0) ? lines.harmony[0] : lines.harmony[segment]
    const second = secondVoices(lines.melodyMidi[i]!, lines.keys[m]!, heard?.sounding, rules.side)
    return second.length === 0
      ? []
      : [
          {
            ...BARE,
            start: note.start,
            until: note.start + note.duration,
            kind: 'double' as const,
            role: 'harmony' as const,
            segment,
            second,
          },
        ]
  })
}

function chords(lines: Indexed, m: number, rule: ChordRule): PlannedInner[] {
  const measure = lines.measures[m]!
  const from = lines.timeline.starts[m]!
  const end = from + measure.length
  const moments: Moment[] = lines
    .notesIn(m)
    .map(({ note }) => ({ note, rank: Math.max(RANKS.strong, rankOf(measure, from, note)) }))
  for (let h = firstAtOrAfter(lines.harmony, from); lines.harmony[h] && lines.harmony[h]!.start < end; h++)
    if (lines.harmony[h]!.shape) moments.push({ note: lines.harmony[h]!, rank: RANKS.changes })
  const beats = new Set(gridTimes(measure, from, 'beat'))
  const { againIn } = rule
  if (againIn !== undefined)
    for (const { note } of lines.notesIn(m)) {
      const beat = beatLength(measure.metre)
      const half = note.start + Math.max(1, Math.floor(note.duration / beat / 2)) * beat
      if (note.duration >= againIn * beat && half < end)
        moments.push({ note: { start: half }, rank: RANKS.halves })
    }
  // Where no tune is, the chord comes with each measure.
  if (moments.length === 0) moments.push({ note: { start: from }, rank: RANKS.changes })
  return [...playable(lines, rule.at, LEAST_VOICING_S, moments)]
    .sort((a, b) => a - b)
    .flatMap((start) => {
      const segment = segmentAt(lines.harmony, start)
      const harmony = lines.harmony[segment]
      if (!harmony?.shape) return []
      const change = harmony.start === start
      const voices = change || start === from ? rule.voices : beats.has(start) ? rule.lighter : rule.between
      return [
        {
          ...BARE,
          start,
          until: harmony.end,
          kind: 'chord' as const,
          role: 'harmony' as const,
          segment,
          voices: hasTime(lines, start) ? voices : Math.min(3, voices),
          change,
        },
      ]
    })
}

/** A moment at which further voices could be struck, and how much it asks for them: the least number the most. */
interface Moment {
  readonly note: { readonly start: Ticks }
  readonly rank: number
}

/** A second voice with each note, and whole voicings, are not struck faster than this (seconds). Common practice. */
const LEAST_DOUBLE_S = 0.18
const LEAST_VOICING_S = 0.26

/** A chord that takes every finger of the picking hand needs this time (seconds) to the notes beside it. */
const LEAST_BESIDE_FULL_S = 0.16

function hasTime(lines: Lines, start: Ticks): boolean {
  const at = firstAtOrAfter(lines.melody, start)
  const [before, here] = [lines.melody[at - 1], lines.melody[at]]
  const after = here?.start === start ? lines.melody[at + 1] : here
  return (
    (!before || lines.secondsBetween(before.start, start) >= LEAST_BESIDE_FULL_S) &&
    (!after || lines.secondsBetween(start, after.start) >= LEAST_BESIDE_FULL_S)
  )
}

/**
 * The moments of a grid at which a hand has the time to strike more than one string: the strongest are taken first,
 * so that a fuller grid keeps what a thinner one has.
 */
function playable(lines: Lines, grid: VoiceGrid, leastS: number, moments: readonly Moment[]): Set<Ticks> {
  const taken = new Set<Ticks>()
  const wanted = moments.filter((m) => m.rank <= RANKS[grid])
  for (const { note } of [...wanted].sort((a, b) => a.rank - b.rank || a.note.start - b.note.start)) {
    const near = [...taken].some((t) => {
      const [a, b] = t < note.start ? [t, note.start] : [note.start, t]
      return lines.secondsBetween(a, b) < leastS - 1e-9
    })
    if (!near) taken.add(note.start)
  }
  return taken
}

function fills(
  lines: Indexed,
  m: number,
  rules: InnerRules,
  { grid, gap, figure }: FillRule,
): PlannedInner[] {
  const measure = lines.measures[m]!
  const from = lines.timeline.starts[m]!
  const end = from + measure.length
  const struck = new Set<Ticks>(lines.notesIn(m).map(({ note }) => note.start))
  for (let b = firstAtOrAfter(lines.bass, from); lines.bass[b] && lines.bass[b]!.start < end; b++)
    struck.add(lines.bass[b]!.start)
  const { lower } = rules
  const below = new Set(lower.fill ? gridTimes(measure, from, lower.fill.grid) : [])
  const lowerGap = (lower.fill?.gap ?? 0) * beatLength(measure.metre)
  const result: PlannedInner[] = []
  let turn = rules.varied ? m % 2 : 0
  for (const start of gridTimes(measure, from, grid)) {
    if (struck.has(start)) {
      if (!figure && lines.bassStarts.has(start)) turn = rules.varied ? m % 2 : 0
      continue
    }
    const { before, after } = neighbours(lines, start)
    if (after - before < gap * beatLength(measure.metre)) continue
    const near = [...struck].every((t) => {
      const [a, b] = t < start ? [t, start] : [start, t]
      return lines.secondsBetween(a, b) >= LEAST_FILL_S
    })
    if (!near) continue
    const segment = segmentAt(lines.harmony, start)
    if (!rules.pedal && !lines.harmony[segment]?.shape) continue
    result.push({
      ...BARE,
      start,
      // What may lie over the melody is gone before its next note.
      until: Math.min(start + slotOf(measure, grid), end, figure ? after : end),
      kind: 'fill',
      figure,
      role: 'fill',
      segment: rules.pedal ? -1 : segment,
      turn: turn++,
      inherited: below.has(start) && after - before >= lowerGap,
      ...(rules.pedal ? { tones: pedalTones(lines.keys[m]!) } : {}),
    })
  }
  return result
}

/** Voices of a stroke between the phrases. */
const STRUMMED = 4

/** Strokes over the chord where the tune rests or holds long: they answer it. */
function strums(lines: Indexed, m: number, { grid, gap }: NonNullable<StyleRules['strums']>): PlannedInner[] {
  const measure = lines.measures[m]!
  const from = lines.timeline.starts[m]!
  const beat = beatLength(measure.metre)
  return gridTimes(measure, from, grid).flatMap((start) => {
    const { before, after } = neighbours(lines, start)
    const segment = segmentAt(lines.harmony, start)
    const harmony = lines.harmony[segment]
    if (before === start || after - before < gap * beat || !harmony?.shape) return []
    const near = [before, after].some(
      (t) => lines.secondsBetween(Math.min(t, start), Math.max(t, start)) < LEAST_VOICING_S,
    )
    if (near) return []
    // What may lie over the tune is gone before its next note.
    const until = Math.min(start + slotOf(measure, grid), harmony.end, after)
    return [
      {
        ...BARE,
        start,
        until,
        kind: 'chord' as const,
        role: 'harmony' as const,
        segment,
        voices: STRUMMED,
        answers: true,
      },
    ]
  })
}

/** One more tone with the melody: of the chord, or of the pedal where there is one. */
function thickened(
  lines: Indexed,
  m: number,
  { lower, pedal, fill }: InnerRules,
  at: NonNullable<StyleRules['thick']>,
): PlannedInner[] {
  const measure = lines.measures[m]!
  const from = lines.timeline.starts[m]!
  // Where the hand goes through a figure, these tones go through its strings too.
  let turn = 0
  return lines.notesIn(m).flatMap(({ note }) => {
    const segment = segmentAt(lines.harmony, note.start)
    const harmony = lines.harmony[segment]
    const isFirst = note.start === from || (!pedal && harmony?.start === note.start)
    const isWanted = isFirst || (at !== 'changes' && rankOf(measure, from, note) <= RANKS[at])
    if ((!pedal && !harmony?.shape) || !isWanted) return []
    const inherited = lower.thick === at || (lower.thick !== undefined && isFirst)
    return [{ ...withMelody(lines, m, note, segment, inherited, pedal), turn: fill?.figure ? turn++ : 0 }]
  })
}

/** A tone struck with a melody note. */
function withMelody(
  lines: Indexed,
  m: number,
  note: MelodyNote,
  segment: number,
  inherited: boolean,
  pedal: boolean,
): PlannedInner {
  // The next bass may take its string.
  const next = lines.bass[firstAtOrAfter(lines.bass, note.start + 1)]?.start ?? Infinity
  return {
    ...BARE,
    start: note.start,
    until: Math.min(note.start + note.duration, next, pedal ? Infinity : lines.harmony[segment]!.end),
    kind: 'fill',
    role: 'harmony',
    segment: pedal ? -1 : segment,
    inherited,
    ...(pedal ? { tones: pedalTones(lines.keys[m]!) } : {}),
  }
}

/** Tonic and fifth of a key. */
function pedalTones({ tonic }: Key): readonly PitchClass[] {
  const pc = pitchClass(tonic)
  return [pc, mod12(pc + 7)]
}

/** In waltz time the second and third beats answer the bass with the chord: with the melody, or where it rests alone. */
function waltzChords(lines: Indexed, m: number, rules: InnerRules): PlannedInner[] {
  const from = lines.timeline.starts[m]!
  const measure = lines.measures[m]!
  const inherited = inWaltzTime(measure, rules.lower)
  const offset = missingHead(measure)
  const struck = new Map(lines.notesIn(m).map(({ note }) => [note.start, note]))
  return beatStarts(measure.metre)
    .slice(1)
    .flatMap((beat, i): PlannedInner[] => {
      const start = from + beat - offset
      const segment = segmentAt(lines.harmony, start)
      if (beat < offset || start >= from + measure.length || !lines.harmony[segment]?.shape) return []
      const note = struck.get(start)
      if (note) return [withMelody(lines, m, note, segment, inherited, false)]
      const until = Math.min(start + slotOf(measure, 'beat'), from + measure.length)
      return [{ ...BARE, start, until, kind: 'fill', role: 'fill', segment, turn: i, inherited }]
    })
}
