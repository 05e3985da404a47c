import { knownIn } from '../invariant.ts'
import type { Id } from '../document/ids.ts'
import type { SongLine } from '../document/song.ts'
import type { TuneDoc } from '../document/tune.ts'

/** The lines of a song all of whose measures are among some. */
export const linesWithin = (tune: TuneDoc, measures: ReadonlySet<Id>): SongLine[] =>
  (tune.song?.lines ?? []).filter((l) => l.measures.length > 0 && l.measures.every((id) => measures.has(id)))

/** A tune with further lines, each where its first measure stands; a line that is there already is none. */
export function withLines(tune: TuneDoc, added: readonly SongLine[]): TuneDoc {
  const known = new Set(tune.song?.lines.map((l) => l.id))
  const fresh = added.filter((l) => !known.has(l.id))
  if (fresh.length === 0) return tune
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const at = (l: SongLine) => indexOf.get(l.measures[0] ?? '') ?? -1
  const lines = [...(tune.song?.lines ?? [])]
  for (const line of fresh) lines.splice(lines.findLastIndex((l) => at(l) <= at(line)) + 1, 0, line)
  return { ...tune, song: { ...tune.song, lines } }
}

/**
 * Lines for measures that were copied: each line as often as its measures follow one another there.
 * @param source the measures that were copied, in the order of the copies
 * @param copies what each became; the same id where it is the measure itself
 */
export function copiedLines(
  lines: readonly SongLine[],
  source: readonly Id[],
  copies: readonly Id[],
): Omit<SongLine, 'id'>[] {
  return source.flatMap((_, i) =>
    lines.flatMap(({ id: _id, ...line }) => {
      const { measures } = line
      const own = copies.slice(i, i + measures.length)
      const isHere = measures.length > 0 && measures.every((m, k) => source[i + k] === m)
      const isCopy = own.some((m, k) => m !== measures[k])
      return isHere && isCopy ? [{ ...line, measures: own }] : []
    }),
  )
}

/** The same lines over other measures, under ids that a tune does not use yet. */
export const linesOver = (
  lines: readonly SongLine[],
  measure: ReadonlyMap<Id, Id>,
  newId: () => Id,
): SongLine[] =>
  lines.map((l) => ({ ...l, id: newId(), measures: l.measures.map((m) => knownIn(measure, m)) }))
