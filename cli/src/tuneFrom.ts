import type { TuneDoc } from '@velvet-porch/core/document'
import type { Id } from '@velvet-porch/core/document'
import { readAbc, type GivenPlace } from '@velvet-porch/core/input/abc'
import { readText } from './readInput.ts'
import { UsageError, wholeNumber } from './usage.ts'
import { problemText, say } from './words.ts'

/** One tune of an ABC file, by its place in it, and what was odd about it. */
export function tuneFrom(
  file: string,
  place: string,
): { tune: TuneDoc; places: ReadonlyMap<Id, readonly GivenPlace[]>; warnings: string[] } {
  const source = readText(file)
  const readings = readAbc(source.text, () => 'tune')
  const { tune, places = new Map(), problems } = readings[wholeNumber(place, 1, readings.length, 'tune') - 1]!
  const warnings = [...(source.note ? [say(source.note)] : []), ...problems.map(problemText)]
  if (!tune) throw new UsageError(`${file}: ${warnings.join('\n') || 'no tune could be read.'}`)
  if (tune.chords.length === 0 && tune.events.every((e) => !e.pitch))
    throw new UsageError(`${file}: the tune holds no notes yet. Write the melody after the K: line.`)
  return { tune, places, warnings }
}
