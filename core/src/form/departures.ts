import type { Measure, TuneDoc, TuneEvent } from '../model/tune.ts'
import { midiOf } from '../pitch/pitch.ts'
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
  const before = new Map(opening.measures.map((m) => [m.id, m]))
  const numbers = measureNumbers(now.measures)
  const kept = new Set(now.measures.map((m) => m.id))
  const changed = now.measures.flatMap((m, i): Departure[] => {
    const old = before.get(m.id)
    if (!old) return [{ number: numbers[i]!, measure: i, what: 'new' }]
    const what = DEPARTURES.filter((part) => said(opening, old, part) !== said(now, m, part))
    return what.length > 0 ? [{ number: numbers[i]!, measure: i, what }] : []
  })
  const oldNumbers = measureNumbers(opening.measures)
  const gone = opening.measures.flatMap((m, i): Departure[] =>
    kept.has(m.id) ? [] : [{ number: oldNumbers[i]!, what: 'gone' }],
  )
  return [...changed, ...gone]
}

/** A part of a measure in words that are equal exactly where it is. */
function said(tune: TuneDoc, measure: Measure, part: DepartureOf): string {
  const events = tune.events
    .filter((e) => e.pos.measure === measure.id)
    .sort((a, b) => a.voice - b.voice || a.pos.tick - b.pos.tick)
  switch (part) {
    case 'notes':
      return events.map(noteSaid).join(' ')
    case 'words':
      return events.map((e) => [e.lyric ?? '', ...(e.moreLyrics ?? [])].join('/')).join(' ')
    case 'chords':
      return tune.chords
        .filter((c) => c.pos.measure === measure.id)
        .map((c) => `${c.pos.tick} ${c.symbol}`)
        .sort()
        .join(' ')
    case 'signs': {
      const { id: _, provenance: __, ...signs } = measure
      return JSON.stringify(Object.entries(signs).sort(([a], [b]) => a.localeCompare(b)))
    }
  }
}

const noteSaid = (e: TuneEvent): string =>
  [
    e.voice,
    e.pos.tick,
    e.dur.ticks,
    e.pitch ? midiOf(e.pitch) : 'rest',
    e.tieTo ? 'tied' : '',
    e.graces.length,
  ].join('.')
