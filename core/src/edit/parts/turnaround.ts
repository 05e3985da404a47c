import type { TuneDoc } from '../../document/tune.ts'
import { chordText, readChordSymbol, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import type { Key } from '../../music/pitch/key.ts'
import { nameText, pitchClass, plainName, mod12 } from '../../music/pitch/pitch.ts'
import { beatStarts, strongBeats, type Metre } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** Degrees in semitones above the tonic, with the chord's quality. */
type Walk = readonly (readonly [number, string])[]

/** Chords that lead back to the tonic, by the mode's third. Common practice, no source. */
const WALKS: Readonly<Record<'major' | 'minor' | 'sevenths', Walk>> = {
  major: [
    [0, ''],
    [9, 'm'],
    [2, 'm'],
    [7, '7'],
  ],
  minor: [
    [0, 'm'],
    [8, ''],
    [5, 'm'],
    [7, '7'],
  ],
  // Where the first chord is a seventh, as in twelve bars.
  sevenths: [
    [0, '7'],
    [5, '7'],
    [0, '7'],
    [7, '7'],
  ],
}

/** A chord at a time of a stretch of measures. */
export interface TimedChord {
  /** Which measure of the stretch. */
  readonly measure: number
  readonly tick: Ticks
  readonly symbol: string
  readonly parsed: ChordReading
}

/** A chord by its name, as a reader of lead sheets takes it. */
function chord(symbol: string): Pick<TimedChord, 'symbol' | 'parsed'> {
  const read = readChordSymbol(symbol)
  if (read.kind !== 'chord') throw new Error(`not a chord: ${symbol}`)
  return { symbol: chordText(read.chord), parsed: read.chord }
}

const named = ({ tonic, fifths }: Key, semitones: number, quality: string) =>
  chord(nameText(plainName(mod12(pitchClass(tonic) + semitones) + 60, fifths < 0)) + quality)

const isMinor = ({ mode }: Key) =>
  mode === 'minor' || mode === 'dorian' || mode === 'phrygian' || mode === 'locrian'

/** The chord of a key's tonic, as the tune has it. */
export function tonicChord(tune: Pick<TuneDoc, 'chords'>, key: Key): Pick<TimedChord, 'symbol' | 'parsed'> {
  const home = tune.chords.find(
    (c) => c.parsed && !c.parsed.bass && mod12(pitchClass(c.parsed.root) - pitchClass(key.tonic)) === 0,
  )
  return home?.parsed ? { symbol: home.symbol, parsed: home.parsed } : named(key, 0, isMinor(key) ? 'm' : '')
}

/**
 * A turnaround in a key and metre: two chords a measure where the measure has two halves, else one.
 * @returns its chords and how many measures it has
 */
export function turnaround(
  tune: Pick<TuneDoc, 'chords'>,
  key: Key,
  metre: Metre,
): { readonly measures: number; readonly chords: readonly TimedChord[] } {
  const { parsed } = tonicChord(tune, key)
  const walk = WALKS[parsed.quality === '7' ? 'sevenths' : isMinor(key) ? 'minor' : 'major']
  const strong = strongBeats(metre)
  const [, second] = strong.length === 2 && beatStarts(metre).length % 2 === 0 ? strong : []
  return {
    measures: second === undefined ? walk.length : walk.length / 2,
    chords: walk.map(([semitones, quality], i) => ({
      measure: second === undefined ? i : Math.floor(i / 2),
      tick: second !== undefined && i % 2 === 1 ? second : 0,
      ...named(key, semitones, quality),
    })),
  }
}
