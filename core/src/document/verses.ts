import { groupBy } from 'es-toolkit'
import type { Id } from './ids.ts'
import type { Ticks } from '../music/time/ticks.ts'
import { wordsInMeasures } from './songWords.ts'
import type { TuneDoc, TuneEvent } from './tune.ts'

/** What is sung on a note, verse by verse. */
export const versesOf = ({ lyric = '', moreLyrics = [] }: TuneEvent): string[] => [lyric, ...moreLyrics]

/** What is sung from one moment of a measure on, verse by verse. */
export interface SungAt {
  readonly id: Id
  readonly measure: Id
  readonly tick: Ticks
  readonly verses: readonly string[]
}

/** All words of a tune in its measures: those under its melody, and those of a song without one. */
export const sungIn = (tune: TuneDoc): SungAt[] => [
  ...tune.events
    .filter((e) => e.voice === 0 && e.lyric !== undefined)
    .map((e): SungAt => ({ id: e.id, measure: e.pos.measure, tick: e.pos.tick, verses: versesOf(e) })),
  ...Object.entries(groupBy(wordsInMeasures(tune), (w) => `${w.measure}.${w.tick}`)).map(
    ([id, words]): SungAt => ({
      id,
      measure: words[0]!.measure,
      tick: words[0]!.tick,
      verses: words.map((w) => w.text),
    }),
  ),
]
