import { cheapestChain } from '../../../cheapestChain.ts'
import { placesOf, type Place, type Setup } from '../../../instrument/setup.ts'
import type { Midi } from '../../../music/pitch/pitch.ts'
import type { Turns } from '../../../turns.ts'

/**
 * Prices of a place and of the way to the next one. A melody by itself is played low on the neck, with open strings, and the hand goes
 * no further than it must. Common practice, no source.
 */
const PRICE = { fret: 0.15, above: 0.5, shift: 1, string: 0.35 }

/** Frets up to which the hand need not leave the nut, and frets under a hand that stays. */
const FIRST_POSITION = 4
const UNDER_HAND = 4

/**
 * The likely strings and frets of a melody that is played alone: the cheapest way through all its places, exact.
 * @returns a place for each note; undefined where a note is on no string
 */
export function* likelyPlaces(setup: Setup, midis: readonly Midi[]): Turns<readonly (Place | undefined)[]> {
  const choices = midis.map((midi) => placesOf(setup, midi))
  const had = choices.flatMap((places, i) => (places.length > 0 ? [i] : []))
  const { choice } = yield* cheapestChain(
    had.map((i) => ({
      prices: choices[i]!.map(
        ({ fret }) => PRICE.fret * fret + PRICE.above * Math.max(0, fret - FIRST_POSITION),
      ),
    })),
    (stage) => {
      const [from, to] = [choices[had[stage - 1]!]!, choices[had[stage]!]!]
      return (i, j) => between(from[i]!, to[j]!)
    },
  )
  const found = new Map(had.map((note, stage) => [note, choices[note]![choice[stage]!]!]))
  return midis.map((_, i) => found.get(i))
}

/** What it takes to go from a place to the next. */
function between(from: Place, to: Place): number {
  const strings = PRICE.string * Math.max(0, Math.abs(from.string - to.string) - 1)
  if (from.fret === 0 || to.fret === 0) return strings
  return strings + PRICE.shift * Math.max(0, Math.abs(from.fret - to.fret) - UNDER_HAND + 1)
}
