import { InvariantError } from '../invariant.ts'
import type { ChordMark, Measure } from '../document/tune.ts'
import { chordText, readChordSymbol, type ChordReading } from '../music/harmony/chordSymbol.ts'
import { mod12, nameText, plainName, type Midi } from '../music/pitch/pitch.ts'
import { scaleOf, type Key } from '../music/pitch/key.ts'
import { strongBeats } from '../music/time/metre.ts'
import type { Ticks } from '../music/time/ticks.ts'

/** A note that sounds from one moment to another; ticks from the start of the tune. */
export interface SoundingNote {
  readonly from: Ticks
  readonly to: Ticks
  readonly midi: Midi
}

/** Kinds of chord that are guessed, and what each costs against a plain one, as a share of what sounds. No source. */
const GUESSED: readonly (readonly [quality: string, price: number])[] = [
  ['', 0],
  ['m', 0],
  ['7', 0.1],
  ['m7', 0.2],
  ['maj7', 0.25],
  ['dim', 0.2],
  ['sus4', 0.3],
]
/** What a note outside the chord takes off, what its root in the bass adds, what a root outside the key takes off. No source. */
const WEIGHTS = { outside: 0.6, bass: 0.3, foreign: 0.12, missing: 0.12 }
/** Share of what sounds that must lie in a chord for it to be guessed at all. */
const LEAST = 0.3

/**
 * The chords that voices spell together, measure by measure or by its strong beats, as suggestions; where a chord goes on
 * it is not written again.
 */
export function chordsHeard(
  measures: readonly Measure[],
  notes: readonly SoundingNote[],
  newId: (prefix: string) => string,
): ChordMark[] {
  const marks: ChordMark[] = []
  const inTime = [...notes].sort((a, b) => a.from - b.from)
  let last = ''
  let start = 0
  for (const measure of measures) {
    // A pickup spells no chord: what it leads to does.
    const slots = measure.length < measure.nominal ? [] : strongBeats(measure.metre)
    const found = slots.map((tick, i) => {
      const [from, to] = [start + tick, start + (slots[i + 1] ?? measure.length)]
      const heard = heardChord(inTime, from, to, measure.key)
      return { tick, chord: heard && heard.fit >= LEAST ? heard.chord : undefined }
    })
    for (const { tick, chord } of found) {
      const symbol = chord ? chordText(chord) : ''
      if (!chord || symbol === last) continue
      last = symbol
      marks.push({
        id: newId('c'),
        pos: { measure: measure.id, tick },
        symbol,
        parsed: chord,
        origin: 'suggested',
      })
    }
    start += measure.length
  }
  return marks
}

/** A chord that was heard in a stretch, and how well it fits what sounds there. */
export interface HeardChord {
  readonly chord: ChordReading
  /** 1 where all that sounds lies in a plain chord with its root in the bass, and more than that. */
  readonly fit: number
}

/** The chord that notes spell between two moments; undefined where fewer than two notes sound. */
export function heardChord(
  notes: readonly SoundingNote[],
  from: Ticks,
  to: Ticks,
  key: Key,
): HeardChord | undefined {
  const weights = new Array<number>(12).fill(0)
  let lowest: SoundingNote | undefined
  for (const n of notes) {
    if (n.from >= to) break
    const sounds = Math.min(n.to, to) - Math.max(n.from, from)
    if (sounds <= 0) continue
    weights[mod12(n.midi)]! += sounds
    if (n.from <= from + (to - from) / 8 && (!lowest || n.midi < lowest.midi)) lowest = n
  }
  const all = weights.reduce((a, b) => a + b, 0)
  if (all === 0 || weights.filter((w) => w > 0).length < 2) return undefined
  const scale = new Set(scaleOf(key))
  let best: HeardChord | undefined
  for (let root = 0; root < 12; root++)
    for (const [quality, price] of GUESSED) {
      if (weights[root] === 0) continue
      const chord = chordOn(root, quality, key.fifths < 0)
      const tones = new Set(chord.intervals.map((i) => mod12(root + i)))
      const inside = weights.reduce((sum, w, pc) => sum + (tones.has(pc) ? w : -WEIGHTS.outside * w), 0) / all
      const missing = [...tones].filter((pc) => weights[pc] === 0).length
      const fit =
        inside -
        price -
        missing * WEIGHTS.missing +
        (lowest && mod12(lowest.midi) === root ? WEIGHTS.bass : 0) -
        [...tones].filter((pc) => !scale.has(pc)).length * WEIGHTS.foreign
      if (!best || fit > best.fit) best = { chord, fit }
    }
  return best
}

const chords = new Map<string, ChordReading>()

function chordOn(root: number, quality: string, flats: boolean): ChordReading {
  const name = nameText(plainName(root, flats)) + quality
  const known = chords.get(name)
  if (known) return known
  const reading = readChordSymbol(name)
  if (reading.kind !== 'chord') throw new InvariantError(`${name} is no chord.`)
  chords.set(name, reading.chord)
  return reading.chord
}
