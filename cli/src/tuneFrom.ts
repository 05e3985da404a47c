import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import type { TuneDoc } from '@velvet-porch/core/document'
import { kindOf, readAny, type TuneUnderstood } from '@velvet-porch/core/input/any'
import { CAPO_MEANINGS } from '@velvet-porch/core/input/song'
import { readTuneFile, SchemaError } from '@velvet-porch/core/schema'
import { readText } from './readInput.ts'
import { oneOf, UsageError, wholeNumber } from './usage.ts'
import { problemText, say } from './words.ts'

/** Which tune of a file is wanted, and how a song of it is understood. */
export interface TuneValues {
  readonly tune: string
  readonly capoMeans?: string
  readonly bars?: string
}

/** A tune of a file, and what was odd about it. */
export interface TuneRead extends Pick<TuneUnderstood, 'places' | 'song'> {
  readonly tune: TuneDoc
  readonly warnings: readonly string[]
}

/** Bars that a line of a song may be said to take. */
const MOST_BARS = 32

/** One tune of a file of any kind, by its place in it. */
export function tuneFrom(file: string, values: TuneValues): TuneRead {
  const source = readText(file)
  const { tunes } = understoodFrom(file, source.text, values)
  const { tune, problems, ...more } = tunes[wholeNumber(values.tune, 1, tunes.length, 'tune') - 1]!
  const warnings = [...(source.note ? [say(source.note)] : []), ...problems.map(problemText)]
  if (!tune) throw new UsageError(`${file}: ${warnings.join('\n') || 'no tune could be read.'}`)
  if (tune.chords.length === 0 && tune.events.every((e) => !e.pitch))
    throw new UsageError(`${file}: the tune holds no notes yet. Write the melody after the K: line.`)
  return { tune, warnings, ...more }
}

/** What a file is and what is understood of it; a usage error for JSON that is no tune of the app. */
export function understoodFrom(
  file: string,
  text: string,
  values: Omit<TuneValues, 'tune'>,
): { readonly kind: ReturnType<typeof kindOf>; readonly tunes: readonly TuneUnderstood[] } {
  if (kindOf(text) === 'json') return { kind: 'json', tunes: [tuneOfFile(file, text)] }
  const read = readAny(text, {
    newId: () => 'tune',
    player: DEFAULT_PLAYER,
    title: 'Untitled',
    song: {
      meaning: oneOf(values.capoMeans ?? 'shapes', CAPO_MEANINGS, 'capo-means'),
      ...(values.bars === undefined ? {} : { bars: wholeNumber(values.bars, 1, MOST_BARS, 'bars') }),
    },
  })
  return { kind: kindOf(text) === undefined ? undefined : read.kind, tunes: read.tunes }
}

function tuneOfFile(file: string, text: string): TuneUnderstood {
  try {
    const { tune, arrangements } = readTuneFile(JSON.parse(text))
    return { tune, problems: [], ...(arrangements[0] ? { arrangement: arrangements[0] } : {}) }
  } catch (error) {
    if (error instanceof SyntaxError || error instanceof SchemaError)
      throw new UsageError(`${file}: this is no tune that was saved here (${error.message}).`)
    throw error
  }
}
