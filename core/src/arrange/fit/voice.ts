import { present } from '../../invariant.ts'
import { melodyOf, timelineOf } from '../../document/form/timeline.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { midiOf, readPitch, type Midi } from '../../music/pitch/pitch.ts'
import { ALL_SHIFTS } from './shifts.ts'

/** The comfortable range of a singer, as it sounds. */
export interface VoiceRange {
  readonly low: Midi
  readonly high: Midi
}

/**
 * Kinds of voices. Rough: common practice, no source; every singer differs.
 */
export const VOICE_TYPES = {
  child: { low: 60, high: 74 },
  soprano: { low: 60, high: 79 },
  mezzo: { low: 57, high: 76 },
  alto: { low: 53, high: 72 },
  tenor: { low: 48, high: 67 },
  baritone: { low: 45, high: 64 },
  bass: { low: 40, high: 60 },
} as const satisfies Record<string, VoiceRange>
export type VoiceType = keyof typeof VOICE_TYPES

/** Why a typed range is refused. */
export type RangeFault =
  | { readonly kind: 'unreadable'; readonly text: string }
  | { readonly kind: 'upsideDown'; readonly low: string; readonly high: string }

/**
 * Reads a range such as "A3-D5".
 * @example readRange('A3-D5') // { range: { low: 57, high: 74 } }
 */
export function readRange(text: string): { readonly range: VoiceRange } | { readonly fault: RangeFault } {
  const [, first = '', second = ''] = /^\s*(\S+?)\s*(?:-|–|to)\s*(\S+)\s*$/i.exec(text) ?? []
  const [low, high] = [readPitch(first), readPitch(second)]
  if (!low || !high) return { fault: { kind: 'unreadable', text } }
  if (midiOf(low) > midiOf(high)) return { fault: { kind: 'upsideDown', low: first, high: second } }
  return { range: { low: midiOf(low), high: midiOf(high) } }
}

/** A note of the melody outside a singer's comfort. `measure` is an index. */
export interface OutsideNote {
  readonly measure: number
  readonly midi: Midi
}

/** How a melody lies for a singer, in the octave that suits best. */
export interface SungFit {
  /** Octaves from the tune as written and shifted. */
  readonly octave: number
  readonly lowest: Midi
  readonly highest: Midi
  readonly outside: readonly OutsideNote[]
  readonly notes: number
}

const OCTAVES = [0, -1, 1, -2, 2]

/** The melody moved by semitones for a singer, who takes it in the octave with the fewest notes out of reach. */
export function sungFit(tune: TuneDoc, shift: number, voice: VoiceRange): SungFit | undefined {
  const melody = melodyOf(tune, timelineOf(tune.measures))
  if (melody.length === 0) return undefined
  let best: (SungFit & { readonly by: number }) | undefined
  for (const octave of OCTAVES) {
    const sung = melody.map((n) => ({ measure: n.measure, midi: midiOf(n.pitch) + shift + 12 * octave }))
    const outside = sung.filter(({ midi }) => midi < voice.low || midi > voice.high)
    const by = outside.reduce((s, { midi }) => s + Math.max(voice.low - midi, midi - voice.high), 0)
    if (
      best &&
      (outside.length > best.outside.length || (outside.length === best.outside.length && by >= best.by))
    )
      continue
    const pitches = sung.map((n) => n.midi)
    best = {
      octave,
      lowest: Math.min(...pitches),
      highest: Math.max(...pitches),
      outside,
      notes: melody.length,
      by,
    }
  }
  const { by: _, ...fit } = present(best)
  return fit
}

/** A voice that is narrower than a melody, by how many semitones, and the shift that leaves the fewest notes outside. */
export interface NarrowVoice {
  readonly missing: number
  readonly nearest: { readonly shift: number; readonly outside: number }
}

/** Undefined where the melody fits inside the voice in some key. */
export function narrowVoice(tune: TuneDoc, voice: VoiceRange): NarrowVoice | undefined {
  const own = sungFit(tune, 0, voice)
  if (!own) return undefined
  const missing = own.highest - own.lowest - (voice.high - voice.low)
  if (missing <= 0) return undefined
  const tried = ALL_SHIFTS.map((shift) => ({
    shift,
    outside: present(sungFit(tune, shift, voice)).outside.length,
  }))
  return { missing, nearest: tried.reduce((a, b) => (b.outside < a.outside ? b : a)) }
}
