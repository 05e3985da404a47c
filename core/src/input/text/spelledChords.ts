import type { ChordMark } from '../../document/tune.ts'
import { pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { chordText, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { nameChord } from '../../music/harmony/nameChord.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** A struck place of a measure. */
export interface StruckPlace {
  readonly tick: Ticks
  readonly place: Place
}

/** Chords that a figure may be taken for without being asked: what a teacher would write over it. */
const PLAIN_QUALITIES = new Set(['', 'm', '7', 'm7', 'maj7', 'sus4', 'sus2', '6', 'm6', 'dim', 'aug', 'add9'])

/** Strings and different notes that spell a chord; less is a line, or two voices. */
const LEAST_STRINGS = 3
const LEAST_NOTES = 3

/**
 * The chords that broken and struck chords spell, measure by measure or by halves, as suggestions; where a chord goes on
 * it is not written again. Lines spell none.
 * @param flats spells roots with flats
 */
export function spelledChords(
  measures: readonly {
    readonly id: string
    readonly length: Ticks
    readonly places: readonly StruckPlace[]
  }[],
  setup: Setup,
  flats: boolean,
): ChordMark[] {
  let last = ''
  return measures.flatMap(({ id, length, places }, m) => {
    const whole = chordOf(places, setup, flats)
    const halves = [places.filter((p) => p.tick < length / 2), places.filter((p) => p.tick >= length / 2)]
    const found = whole
      ? [{ tick: 0, chord: whole }]
      : halves.map((half, i) => ({ tick: (i * length) / 2, chord: chordOf(half, setup, flats) }))
    return found.flatMap(({ tick, chord }, k): ChordMark[] => {
      const symbol = chord ? chordText(chord) : ''
      if (!chord || symbol === last) return []
      last = symbol
      return [
        {
          id: `c${m + 1}.${k + 1}`,
          pos: { measure: id, tick },
          symbol,
          origin: 'suggested',
          parsed: chord,
        },
      ]
    })
  })
}

function chordOf(places: readonly StruckPlace[], setup: Setup, flats: boolean): ChordReading | undefined {
  const pitches = places.map((p) => pitchAt(setup, p.place))
  const strings = new Set(places.map((p) => p.place.string))
  if (strings.size < LEAST_STRINGS || new Set(pitches.map(mod12)).size < LEAST_NOTES) return undefined
  const [chord] = nameChord(pitches, flats)
  return chord && PLAIN_QUALITIES.has(chord.quality) ? chord : undefined
}
