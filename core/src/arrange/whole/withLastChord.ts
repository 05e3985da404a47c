import type { Layer, Region } from '../../document/arrangement.ts'
import { durationOf } from '../../document/durationOf.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import { chordNoteId, gripId } from '../../document/noteIds.ts'
import { schoolOf } from '../plan/plan.ts'
import { pickingOf } from '../plan/pickingOf.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Measure, Pos } from '../../document/tune.ts'
import type { PickingSign } from '../../instrument/hand.ts'
import { lastFret, openPitch, type Setup } from '../../instrument/setup.ts'
import { knownIn } from '../../invariant.ts'
import { chordPitchClasses, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import { beatLength } from '../../music/time/metre.ts'
import { segmentAt, type HarmonySegment } from '../plan/harmonyLine.ts'

/** The octave's node: it rings best, on every string at one fret. */
const NODE = { fret: 12, parts: 2 } as const

/** Strings that a finger touches at once. */
const MOST_TOUCHED = 3

/** The finger that touches, and where the hand is then. */
const TOUCHING = 4
const POSITION = 9

/** A chord of fewer notes is not rolled. */
const LEAST_ROLLED = 3

const TREBLE_FINGERS: readonly PickingSign[] = ['a', 'm', 'i']

/**
 * The last chord sounded as its section wants: its strings one after the other, or answered by harmonics at the twelfth fret, half way
 * through its time, on neighbouring open strings with its tones. Where no open string has one it stays plain.
 */
export function withLastChord<T extends Pick<Layer, 'notes' | 'grips'>>(
  layer: T,
  regions: readonly Region[],
  measures: readonly Measure[],
  timeline: Timeline,
  harmony: readonly HarmonySegment[],
  setup: Setup,
): T {
  const region = regions.at(-1)
  if (!region?.lastChord || layer.notes.length === 0) return layer
  const at = new Map(layer.notes.map((n) => [n, ticksAt(timeline, n.pos)]))
  const start = Math.max(...at.values())
  const last = layer.notes.filter((n) => knownIn(at, n) === start)
  if (region.lastChord === 'rolled') return { ...layer, notes: rolled(layer.notes, new Set(last)) }
  const sounding = harmony[segmentAt(harmony, start)]?.sounding
  const strings = sounding ? touchedStrings(setup, sounding) : []
  const final = measures.at(-1)!
  const until = timeline.length
  const beat = beatLength(final.metre)
  const half = (until - start) / 2
  const first = timeline.starts.at(-1)!
  // A chord that sounds on into the last measure is answered where that begins.
  const answer = start + (half >= beat ? Math.floor(half / beat) * beat : Math.floor(half))
  const from = Math.max(first, answer)
  if (strings.length === 0 || from <= start) return layer
  const pos: Pos = { measure: final.id, tick: from - first }
  const flat = pickingOf(region.style, schoolOf(region), setup) === 'flatPick'
  const harmonics = strings.map((string, nth): TabNote => ({
    id: chordNoteId(pos, nth),
    pos,
    dur: durationOf(until - from),
    role: 'harmony',
    notationVoice: last[0]!.notationVoice === 1 ? 2 : last[0]!.notationVoice,
    place: { string, fret: NODE.fret, harmonic: NODE.parts },
    left: TOUCHING,
    right: flat ? 'down' : (TREBLE_FINGERS[nth] ?? 'p'),
    attack: 'pluck',
    optional: false,
  }))
  return {
    ...layer,
    notes: [...layer.notes, ...harmonics],
    grips: [
      ...layer.grips.map((g) => (ticksAt(timeline, g.until) > from ? { ...g, until: pos } : g)),
      {
        id: gripId(pos),
        pos,
        until: { measure: final.id, tick: final.length },
        pressed: [],
        position: POSITION,
        costs: [],
      },
    ],
  }
}

/** A chord that is plucked, its strings one after the other; a stroke across strings is one already. */
function rolled(notes: readonly TabNote[], last: ReadonlySet<TabNote>): TabNote[] {
  const isPlucked = [...last].every((n) => n.attack !== 'brush' && !n.place.harmonic)
  if (last.size < LEAST_ROLLED || !isPlucked) return [...notes]
  return notes.map((n) => (last.has(n) ? { ...n, rolled: true as const } : n))
}

/** The longest row of neighbouring strings whose octave is a tone of the chord, the highest first. */
function touchedStrings(setup: Setup, chord: ChordReading): number[] {
  const tones = chordPitchClasses(chord)
  let best: number[] = []
  let row: number[] = []
  for (let string = 1; string <= setup.instrument.strings; string++) {
    const has = tones.includes(mod12(openPitch(setup, string))) && lastFret(setup, string) >= NODE.fret
    row = has && row.length < MOST_TOUCHED ? [...row, string] : has ? [string] : []
    if (row.length > best.length) best = row
  }
  return best
}
