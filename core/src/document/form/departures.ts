import { contentText } from '../content.ts'
import type { ChordMark, Measure, TuneDoc, TuneEvent } from '../tune.ts'
import { midiOf } from '../../music/pitch/pitch.ts'
import { measureNumbers } from './measureNumbers.ts'

/** What of a measure is otherwise than it came in. */
export const DEPARTURES = ['notes', 'chords', 'words', 'signs'] as const
export type DepartureOf = (typeof DEPARTURES)[number]

/** One measure that departs from the tune as it came in. */
export interface Departure {
  /** Number as the page has it: of the tune now, or of the opening where the measure is gone. */
  readonly number: number
  /** Index in the tune now; absent where the measure is gone. */
  readonly measure?: number
  readonly what: readonly DepartureOf[] | 'new' | 'gone'
}

/**
 * Measures in which a tune departs from what came in, in order; those that are gone stand at the end.
 * @param opening the tune as it came in
 */
export function departures(opening: TuneDoc, now: TuneDoc): Departure[] {
  const before = new Map(contentsOf(opening).map((c) => [c.measure.id, c]))
  const after = contentsOf(now)
  const kept = new Set(after.map((c) => c.measure.id))
  const numbers = measureNumbers(now.measures)
  const changed = after.flatMap((content, i): Departure[] => {
    const old = before.get(content.measure.id)
    if (!old) return [{ number: numbers[i]!, measure: i, what: 'new' }]
    const what = DEPARTURES.filter((part) => SAID[part](old) !== SAID[part](content))
    return what.length > 0 ? [{ number: numbers[i]!, measure: i, what }] : []
  })
  const oldNumbers = measureNumbers(opening.measures)
  const gone = opening.measures.flatMap((m, i): Departure[] =>
    kept.has(m.id) ? [] : [{ number: oldNumbers[i]!, what: 'gone' }],
  )
  return [...changed, ...gone]
}

/** One measure with what stands in it. */
interface Content {
  readonly measure: Measure
  readonly events: readonly TuneEvent[]
  readonly chords: readonly ChordMark[]
}

function contentsOf({ measures, events, chords }: TuneDoc): Content[] {
  const contents = measures.map((measure) => ({
    measure,
    events: [] as TuneEvent[],
    chords: [] as ChordMark[],
  }))
  const byId = new Map(contents.map((c) => [c.measure.id, c]))
  for (const e of events) byId.get(e.pos.measure)?.events.push(e)
  for (const c of chords) byId.get(c.pos.measure)?.chords.push(c)
  for (const c of contents) {
    c.events.sort((a, b) => a.voice - b.voice || a.pos.tick - b.pos.tick)
    c.chords.sort((a, b) => a.pos.tick - b.pos.tick)
  }
  return contents
}

/** Each part of a measure in words that are equal exactly where it is. */
const SAID: Readonly<Record<DepartureOf, (content: Content) => string>> = {
  notes: ({ events }) => events.map(noteSaid).join(' '),
  words: ({ events }) => events.map((e) => [e.lyric ?? '', ...(e.moreLyrics ?? [])].join('/')).join(' '),
  chords: ({ chords }) => chords.map((c) => `${c.pos.tick} ${c.symbol}`).join(' '),
  signs: ({ measure: { id: _, provenance: __, ...signs } }) => contentText(signs),
}

function noteSaid(e: TuneEvent): string {
  const pitch = e.pitch ? midiOf(e.pitch) : 'rest'
  return [e.voice, e.pos.tick, e.dur.ticks, pitch, e.tieTo ? 'tied' : '', e.graces.length].join('.')
}
