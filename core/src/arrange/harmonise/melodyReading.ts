import { measureAt, type MelodyNote, type Timeline } from '../../document/form/timeline.ts'
import type { Id } from '../../document/ids.ts'
import { scaleOf, type Key } from '../../music/pitch/key.ts'
import { midiOf, mod12, type Midi, type PitchClass } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { chordPitchClasses, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { degreeIn } from '../../music/harmony/chordTones.ts'

/**
 * What a melody note is in its chord. *chord*: one of its tones. *passing*: by step between two notes on either side.
 * *neighbour*: by step away from a note and back. *anticipation*: a tone of the next chord, struck early. *suspension*: kept
 * from the chord before and led down or up by step. *free*: none of these.
 */
export const NOTE_FUNCTIONS = ['chord', 'passing', 'neighbour', 'anticipation', 'suspension', 'free'] as const
export type NoteFunction = (typeof NOTE_FUNCTIONS)[number]

/** A melody note read against harmony and key. */
export interface NoteReading {
  readonly sourceId: Id
  readonly start: Ticks
  /** Degree over the chord's root, as in `3`, `b7`, `9`. */
  readonly degree: string
  /** Degree of the note that it leads to over the same chord, where it is a step on the way: `b3` to `3`. */
  readonly leadsTo?: string
  readonly function: NoteFunction
  /** True where the key's scale does not have the note. */
  readonly outside: boolean
}

/** A stretch of harmony over written time. */
export interface Sounding {
  readonly start: Ticks
  readonly end: Ticks
  readonly sounding?: ChordReading
}

/** Reads each note of a melody, in order of time, against the chord that sounds with it; notes without a chord are left out. */
export function readMelody(
  melody: readonly MelodyNote[],
  transposed: number,
  harmony: readonly Sounding[],
  keys: readonly Key[],
  timeline: Timeline,
): NoteReading[] {
  const midis = melody.map((n) => midiOf(n.pitch) + transposed)
  // Each chord and key is taken apart once, not for every note.
  const tones = harmony.map((h) => (h.sounding ? chordPitchClasses(h.sounding) : undefined))
  const scales = keys.map(scaleOf)
  let at = 0
  return melody.flatMap((note, i): NoteReading[] => {
    while (at < harmony.length && harmony[at]!.end <= note.start) at++
    const under = harmony[at]
    if (!under?.sounding || under.start > note.start) return []
    const chord = under.sounding
    const scale = scales[measureAt(timeline, note.start)]!
    const pc = mod12(midis[i]!)
    const own = functionOf(melody, midis, i, tones[at]!, under, tones[at + 1])
    const next = melody[i + 1]
    const leads =
      own !== 'chord' || !scale.includes(pc)
        ? next && next.start < under.end && isStep(midis[i]!, midis[i + 1]!)
        : false
    return [
      {
        sourceId: note.sourceId,
        start: note.start,
        degree: degreeIn(chord, pc),
        ...(leads ? { leadsTo: degreeIn(chord, mod12(midis[i + 1]!)) } : {}),
        function: own,
        outside: !scale.includes(pc),
      },
    ]
  })
}

const isStep = (a: Midi, b: Midi) => a !== b && Math.abs(a - b) <= 2

function functionOf(
  melody: readonly MelodyNote[],
  midis: readonly Midi[],
  i: number,
  tones: readonly PitchClass[],
  segment: Sounding,
  next: readonly PitchClass[] | undefined,
): NoteFunction {
  const here = midis[i]!
  if (tones.includes(mod12(here))) return 'chord'
  const [before, after] = [joined(melody, midis, i, -1), joined(melody, midis, i, 1)]
  // Kept from before, on the chord's first moment, and led on by step.
  if (before === here && melody[i]!.start === segment.start && after !== undefined && isStep(here, after))
    return 'suspension'
  const last = i + 1 >= melody.length || melody[i + 1]!.start >= segment.end
  if (last && next && next.includes(mod12(here)) && (after === undefined || after === here))
    return 'anticipation'
  if (before === undefined || after === undefined || !isStep(before, here) || !isStep(here, after))
    return 'free'
  if (before === after) return 'neighbour'
  return Math.sign(here - before) === Math.sign(after - here) ? 'passing' : 'free'
}

/** The note right before or after, where no rest lies between. */
function joined(
  melody: readonly MelodyNote[],
  midis: readonly Midi[],
  i: number,
  way: 1 | -1,
): Midi | undefined {
  const [a, b] = way === 1 ? [melody[i]!, melody[i + 1]] : [melody[i - 1], melody[i]!]
  if (!a || !b || a.start + a.duration < b.start) return undefined
  return midis[i + way]
}
