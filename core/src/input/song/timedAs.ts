import { lineBars, type LineBars } from '../../document/lineBars.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { ReadSong, WrittenLine } from './readSong.ts'

/** A line of a tune, with where the chords fall that stand over its words. */
interface KnownLine extends LineBars {
  readonly places: readonly { readonly bar: number; readonly share: number }[]
}

const knownLines = (tune: TuneDoc): KnownLine[] =>
  lineBars(tune).map((known) => {
    const shown = known.line.changes !== undefined || known.line.text === ''
    return { ...known, places: shown ? known.changes.map(({ bar, share }) => ({ bar, share })) : [] }
  })

/**
 * A song that was read anew, with the bars and beats that its lines have in the tune: each line takes those of the first line
 * with the same words that no other has taken yet, else of the line that stands in its place and has as many chords.
 */
export function timedAs(song: ReadSong, tune: TuneDoc): ReadSong {
  const known = knownLines(tune)
  const free = new Set(known)
  const lines = song.parts.flatMap((p) => (p.recalled ? [] : p.lines.filter((l) => l.kind === 'sung')))
  const taken = new Map<WrittenLine, KnownLine>()
  const take = (line: WrittenLine, own: KnownLine | undefined) => {
    if (!own) return
    taken.set(line, own)
    free.delete(own)
  }
  for (const line of lines)
    take(
      line,
      [...free].find((k) => k.line.text === line.text && k.places.length === line.chords.length),
    )
  if (lines.length === known.length)
    lines.forEach((line, i) => {
      const own = known[i]!
      if (!taken.has(line) && free.has(own) && own.places.length === line.chords.length) take(line, own)
    })
  const timed = (line: WrittenLine): WrittenLine => {
    const own = taken.get(line)
    if (!own || line.bars !== undefined) return line
    return {
      ...line,
      bars: own.bars,
      ...(own.guessed ? { guessed: true } : {}),
      chords: line.chords.map((c, i) => ({ ...c, ...own.places[i] })),
    }
  }
  return { ...song, parts: song.parts.map((p) => ({ ...p, lines: p.lines.map(timed) })) }
}
