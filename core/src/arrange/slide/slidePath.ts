import { cheapestChain } from '../../cheapestChain.ts'
import { finish } from '../../turns.ts'
import type { MelodyNote } from '../../document/form/timeline.ts'
import { fretFromNut } from '../../instrument/geometry.ts'
import { placesOf, type Place, type Setup } from '../../instrument/setup.ts'
import type { Midi } from '../../music/pitch/pitch.ts'

/** Prices of a bottleneck's way, in the unit of the search's cost. Common practice and listening, no source. */
export const SLIDE_PRICES = {
  /** mm of travel, with haste: a second's worth of a mm. */
  travelMm: 0.012,
  hasteMm: 0.004,
  /** The string that is played: high strings sing. */
  string: [0, 0.3, 0.9, 1.8, 3, 3.6],
  changeOfString: 0.5,
  /** An open string does not sing; on a long note it cannot tremble either. */
  open: 0.7,
  openLong: 1.2,
  /** An open string gives the hand the time of its note to travel. */
  openTravelShare: 0.25,
  /** Straight across where the chord lies: other strings may be touched. */
  acrossChord: -0.6,
  /** The last note where its chord lies not. */
  restsElsewhere: 6,
  high: 0.25,
}

/** Highest fret that a bottleneck is asked for, where the note lies lower on some string. */
const LAST_FRET = 17

/** From this fret on the neck grows narrow. */
const HIGH_FRET = 12

/** A melody note as the path meets it. */
export interface SlideNote {
  readonly note: MelodyNote
  readonly midi: Midi
  readonly seconds: number
  /** Fret at which the chord of the moment lies straight across; undefined where it does not. */
  readonly chordFret: number | undefined
  /** True for the note that a tune comes to rest on: the chord is to lie straight across. */
  readonly rests: boolean
}

/**
 * Where a bottleneck plays a line: one place a note, by dynamic programming, exact over all places. The bar travels
 * along the neck in time; an open string lets it travel while it sounds.
 * @returns undefined for a note that lies on no string
 */
export function slidePath(setup: Setup, notes: readonly SlideNote[]): (Place | undefined)[] {
  const columns = notes.map(({ midi }) => {
    const places = placesOf(setup, midi)
    const near = places.filter((p) => p.fret <= LAST_FRET)
    return near.length > 0 ? near : places
  })
  const played = columns.flatMap((places, t) => (places.length > 0 ? [t] : []))
  const { choice } = finish(
    cheapestChain(
      played.map((t) => ({ prices: columns[t]!.map((place) => placePrice(place, notes[t]!)) })),
      (k) => {
        const [from, to] = [played[k - 1]!, played[k]!]
        const { seconds } = notes[from]!
        return (i, j) => movePrice(setup, columns[from]![i]!, columns[to]![j]!, seconds)
      },
    ),
  )
  const chosen: (Place | undefined)[] = notes.map(() => undefined)
  played.forEach((t, k) => (chosen[t] = columns[t]![choice[k]!]!))
  return chosen
}

/** Price of a place on its own. */
export function placePrice({ string, fret }: Place, { seconds, chordFret, rests }: SlideNote): number {
  const { string: strings, open, openLong, acrossChord, restsElsewhere, high } = SLIDE_PRICES
  const lies = chordFret !== undefined && (fret - chordFret) % 12 === 0
  const across = lies && fret > 0 ? acrossChord : !lies && rests ? restsElsewhere : 0
  return (
    strings[string - 1]! +
    (fret === 0 ? open + (seconds >= LONG_S ? openLong : 0) : 0) +
    across +
    Math.max(0, fret - HIGH_FRET) * high
  )
}

/** A note of this many seconds is a long one: it trembles. No source. */
export const LONG_S = 0.7

/** Price of the way from place to place, in the time of the first note. */
export function movePrice(setup: Setup, from: Place, to: Place, seconds: number): number {
  const { scaleLength } = setup.instrument
  const at = (p: Place) => fretFromNut(scaleLength, p.fret + setup.capo[p.string - 1]!)
  const { travelMm, hasteMm, changeOfString, openTravelShare } = SLIDE_PRICES
  const other = from.string === to.string ? 0 : changeOfString
  // The bar lifts for an open string and comes down again wherever it is needed.
  const mm = Math.abs(at(from) - at(to))
  const travel = mm * (travelMm + hasteMm / Math.max(0.1, seconds))
  return other + (from.fret === 0 || to.fret === 0 ? travel * openTravelShare : travel)
}
