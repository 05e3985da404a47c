import { groupBy } from 'es-toolkit'
import type { LeftFinger, PickingSign } from '../instrument/hand.ts'
import { isArrival, type TabNote } from '../document/tab.ts'
import type { TuneDoc } from '../document/tune.ts'
import type { TabEdit } from './edited.ts'

/** A row for one hand: a word a moment, a letter a note from the lowest string; a dash leaves a moment as it is. */
export interface HandRow {
  readonly hand: 'left' | 'right'
  readonly words: readonly string[]
}

/** What of a row for one hand cannot be taken. */
export interface HandRowFault {
  readonly kind: 'notFinger' | 'otherCount' | 'tooMany'
  readonly text: string
  /** Notes that the moment has; moments that there are. */
  readonly count: number
}

/** @example readHandRow('LH 3 0 21') // { hand: 'left', words: ['3', '0', '21'] } */
export function readHandRow(text: string): HandRow | undefined {
  const [head = '', ...words] = text.trim().split(/\s+/)
  if (/^LH:?$/i.test(head)) return { hand: 'left', words }
  return /^RH:?$/i.test(head) ? { hand: 'right', words } : undefined
}

const FINGERS: Readonly<Record<string, LeftFinger>> = { 1: 1, 2: 2, 3: 3, 4: 4, T: 'T', t: 'T' }
const SIGNS: Readonly<Record<string, PickingSign>> = { p: 'p', i: 'i', m: 'm', a: 'a', d: 'down', u: 'up' }

/** The notes that a hand has to do with: those that are fretted, or those that are plucked. */
const ofHand = (hand: HandRow['hand']) => (n: TabNote) =>
  hand === 'left' ? n.place.fret > 0 && !n.place.harmonic : !isArrival(n.attack)

/**
 * A row for one hand as edits of the notes of some measures, moment by moment. A stroke is that of all notes of its moment.
 * @param notes those of the tab
 * @param range measures by index, both ends included
 */
export function handRowEdits(
  { hand, words }: HandRow,
  tune: TuneDoc,
  notes: readonly TabNote[],
  range: { readonly from: number; readonly to: number },
): { readonly edits: readonly TabEdit[]; readonly faults: readonly HandRowFault[] } {
  const inRange = tune.measures.slice(range.from, range.to + 1).map((m) => m.id)
  const own = notes.filter((n) => inRange.includes(n.pos.measure) && ofHand(hand)(n))
  const byMoment = groupBy(own, (n): string => `${inRange.indexOf(n.pos.measure)} ${n.pos.tick}`)
  const order = (key: string) => key.split(' ').map(Number) as [number, number]
  const moments = Object.keys(byMoment)
    .sort((a, b) => order(a)[0] - order(b)[0] || order(a)[1] - order(b)[1])
    .map((key) => byMoment[key]!.toSorted((a, b) => b.place.string - a.place.string))
  const edits: TabEdit[] = []
  const faults: HandRowFault[] = []
  words.forEach((word, i) => {
    if (word === '-') return
    const moment = moments[i]
    if (!moment) {
      faults.push({ kind: 'tooMany', text: word, count: moments.length })
      return
    }
    const letters = [...word]
    const known: Readonly<Record<string, unknown>> = hand === 'left' ? FINGERS : SIGNS
    if (letters.some((l) => known[l] === undefined)) {
      faults.push({ kind: 'notFinger', text: word, count: moment.length })
      return
    }
    const stroke = hand === 'right' && letters.length === 1 && /[du]/.test(word)
    if (!stroke && letters.length !== moment.length) {
      faults.push({ kind: 'otherCount', text: word, count: moment.length })
      return
    }
    moment.forEach((n, k) => {
      const letter = letters[stroke ? 0 : k]!
      edits.push(
        hand === 'left'
          ? { do: 'left', note: n.id, finger: FINGERS[letter]! }
          : { do: 'right', note: n.id, sign: SIGNS[letter]! },
      )
    })
  })
  return { edits, faults }
}
