import { timelineOf } from './form/timeline.ts'
import type { SongLine } from './song.ts'
import type { Measure, TuneDoc } from './tune.ts'

/** The lines of a song that belong to one part, in their order. */
export interface PartOfSong {
  /** Empty for what stands before the first section. */
  readonly name: string
  readonly lines: readonly SongLine[]
  /** Its measures by index, both ends included. */
  readonly from: number
  readonly to: number
}

/** How often measures are played whose first and last carry the signs of one repeat. */
export function timesOver(measures: readonly Measure[], from: number, to: number): number {
  const [first, last] = [measures[from], measures[to]]
  return first?.repeatStart && last && last.repeatEnd > 1 ? last.repeatEnd : 1
}

/** The lines of a song part by part: a line belongs to the section in which its first measure stands. */
export function songByPart(tune: TuneDoc): PartOfSong[] {
  const { indexOf } = timelineOf(tune.measures)
  const starts = tune.sections.map((s) => indexOf.get(s.measure) ?? 0)
  const lines = tune.song?.lines ?? []
  const sectionOf = (line: SongLine) => {
    const first = indexOf.get(line.measures[0] ?? '') ?? -1
    return starts.findLastIndex((start) => start <= first)
  }
  return [...new Set(lines.map(sectionOf))].map((section) => ({
    name: tune.sections[section]?.name ?? '',
    lines: lines.filter((l) => sectionOf(l) === section),
    from: starts[section] ?? 0,
    to: (starts[section + 1] ?? tune.measures.length) - 1,
  }))
}
