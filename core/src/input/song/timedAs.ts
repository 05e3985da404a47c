import type { SongLine } from '../../document/song.ts'
import { changesOn } from '../../document/songWords.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { ReadSong, WrittenLine } from './readSong.ts'

/** A line of a tune with where its chords fall, for a line of a text that is the same. */
interface KnownLine {
  readonly line: SongLine
  readonly bars: number
  readonly guessed: boolean
  readonly places: readonly { readonly bar: number; readonly share: number }[]
}

function knownLines(tune: TuneDoc): KnownLine[] {
  return (tune.song?.lines ?? []).flatMap((line): KnownLine[] => {
    if (line.kind !== 'sung') return []
    const measures = tune.measures.filter((m) => line.measures.includes(m.id))
    const places = measures.flatMap((m, bar) =>
      tune.chords
        .filter((c) => c.pos.measure === m.id)
        .sort((a, b) => a.pos.tick - b.pos.tick)
        .map((c) => ({ bar, share: c.pos.tick / m.length })),
    )
    const guessed = measures.some((m) => m.provenance === 'guessed')
    const shown = changesOn(tune, line).length > 0 || line.text === ''
    return [{ line, bars: measures.length, guessed, places: shown ? places : [] }]
  })
}

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
    if (!own || line.bars !== undefined || own.bars === 0) return line
    return {
      ...line,
      bars: own.bars,
      ...(own.guessed ? { guessed: true } : {}),
      chords: line.chords.map((c, i) => ({ ...c, ...own.places[i] })),
    }
  }
  return { ...song, parts: song.parts.map((p) => ({ ...p, lines: p.lines.map(timed) })) }
}
