import type { School, Score } from '@velvet-porch/core/document'
import { PlacesError, scoreOfPlaces } from '@velvet-porch/core/input/abc'
import type { Setup } from '@velvet-porch/core/instrument'
import { tuneFrom, type TuneValues } from './tuneFrom.ts'
import { UsageError } from './usage.ts'
import { problemWords } from './words.ts'

/** The score of a tune of an ABC file over whose notes their places are given, with both hands found. */
export function placedFrom(
  file: string,
  values: TuneValues,
  setup: Setup,
  school: School,
): { score: Required<Score>; warnings: string[] } {
  const { tune, places = new Map(), warnings } = tuneFrom(file, values)
  if (places.size === 0)
    throw new UsageError(
      `${file}: no places are given. Lines of strings with frets and bars are read, or ABC with an annotation over each note, as "^5.3" for string 5, fret 3; ABC without them is arranged by porch arrange.`,
    )
  try {
    return { score: scoreOfPlaces(tune, places, setup, school), warnings: [...warnings] }
  } catch (error) {
    if (!(error instanceof PlacesError)) throw error
    const { what, taken } = problemWords(error)
    throw new UsageError(`${file}: ${what}; ${taken}.`)
  }
}
