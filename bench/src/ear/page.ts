import {
  bassPitchClass,
  chordPitchClasses,
  mod12,
  pitchClass,
  readChordSymbol,
} from '@velvet-porch/core/music'
import type { TabJson } from '@velvet-porch/core/output'

export type PageNote = TabJson['notes'][number]

/** All that is struck at one moment of a page. */
export interface PageOnset {
  readonly at: number
  readonly measure: number
  /** Lowest first. */
  readonly notes: readonly PageNote[]
}

/** A chord as the page names it. */
export interface PageChord {
  readonly start: number
  readonly end: number
  /** As the hand behind the capo calls it. */
  readonly symbol: string
  readonly root: number
  readonly bass: number
  readonly tones: readonly number[]
}

/** A finished page as an ear hears it: nothing of how it was found. */
export interface Page {
  readonly json: TabJson
  readonly onsets: readonly PageOnset[]
  readonly chords: readonly PageChord[]
  readonly end: number
}

export function pageOf(json: TabJson): Page {
  const end = Math.max(...json.tune.measures.map((m) => m.start + m.length))
  const byTime = new Map<number, PageNote[]>()
  for (const n of json.notes) byTime.set(n.start, [...(byTime.get(n.start) ?? []), n])
  const onsets = [...byTime]
    .sort(([a], [b]) => a - b)
    .map(([at, notes]) => ({ at, measure: notes[0]!.measure, notes: notes.sort((a, b) => a.midi - b.midi) }))
  const chords = json.chords.flatMap((c, i): PageChord[] => {
    const read = readChordSymbol(c.sounding)
    if (read.kind !== 'chord') return []
    return [
      {
        start: c.start,
        end: json.chords[i + 1]?.start ?? end,
        symbol: c.symbol,
        root: pitchClass(read.chord.root),
        bass: bassPitchClass(read.chord),
        tones: chordPitchClasses(read.chord),
      },
    ]
  })
  return { json, onsets, chords, end }
}

export const isPc = (note: Pick<PageNote, 'midi'>, pc: number) => mod12(note.midi) === pc

/** What holds, of how many: sums of many pages are added. */
export interface Share {
  readonly hits: number
  readonly of: number
}

export const NONE: Share = { hits: 0, of: 0 }
export const share = (list: readonly boolean[]): Share => ({
  hits: list.filter(Boolean).length,
  of: list.length,
})
export const plus = (a: Share, b: Share): Share => ({ hits: a.hits + b.hits, of: a.of + b.of })
