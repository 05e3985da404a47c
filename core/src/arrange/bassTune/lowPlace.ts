import { placesOf, type Place, type Setup } from '../../instrument/setup.ts'
import type { Midi } from '../../music/pitch/pitch.ts'

/** Prices of a place. Common practice, no source. */
const PRICE = {
  /** Off the shape of the chord. */
  offShape: 0.5,
  /** A string on which no brush can lie above. */
  string2: 1.6,
  string1: 3,
  /** A fret, and one beyond the first position. */
  fret: 0.1,
  farFret: 1,
}
const FIRST_POSITION = 4

/** Where a low note of a tune lies best: in the shape that is held, near the nut, with strings above it to be brushed. */
export function lowPlace(
  setup: Setup,
  midi: Midi,
  shape: readonly (number | null)[] | undefined,
): Place | undefined {
  let best: { place: Place; price: number } | undefined
  for (const place of placesOf(setup, midi)) {
    const { string, fret } = place
    const price =
      (shape && shape[string - 1] !== fret ? PRICE.offShape : 0) +
      (string === 1 ? PRICE.string1 : string === 2 ? PRICE.string2 : 0) +
      PRICE.fret * fret +
      PRICE.farFret * Math.max(0, fret - FIRST_POSITION)
    if (!best || price < best.price) best = { place, price }
  }
  return best?.place
}
