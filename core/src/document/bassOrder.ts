import { chordText, readChordSymbol } from '../music/harmony/chordSymbol.ts'

/** The strings that the thumb goes through under a chord, one a bass, over and over; by the name of the chord's shape. */
export interface BassOrder {
  readonly chord: string
  /** Numbers of strings. */
  readonly strings: readonly number[]
}

/** Strings of an order, and orders, at most. */
export const MOST_BASS_ORDERS = 40
export const LONGEST_BASS_ORDER = 16

export type BassOrdersReading =
  | { readonly ok: true; readonly orders: readonly BassOrder[] }
  | { readonly ok: false; readonly problem: 'chord' | 'string' | 'none' | 'long'; readonly word: string }

/**
 * Reads orders of bass strings in writing: a chord and its strings, chords set apart by commas or lines.
 * @param strings of the instrument
 * @example readBassOrders('C 5 4 6 4, G7 6 4', 6)
 */
export function readBassOrders(text: string, strings: number): BassOrdersReading {
  const orders = new Map<string, BassOrder>()
  for (const part of text.split(/[,;\n]/)) {
    const [word, ...words] = part.trim().split(/[\s:=-]+/)
    if (!word) continue
    const read = readChordSymbol(word)
    if (read.kind !== 'chord') return { ok: false, problem: 'chord', word }
    const chord = chordText(read.chord)
    // "5464" is what a teacher writes too.
    const numbers = words.flatMap((w) => (/^\d+$/.test(w) ? [...w] : [w]))
    if (numbers.length === 0) return { ok: false, problem: 'none', word }
    if (numbers.length > LONGEST_BASS_ORDER) return { ok: false, problem: 'long', word }
    const wrong = numbers.find((n) => !/^\d$/.test(n) || Number(n) < 1 || Number(n) > strings)
    if (wrong !== undefined) return { ok: false, problem: 'string', word: wrong }
    orders.set(chord, { chord, strings: numbers.map(Number) })
  }
  if (orders.size > MOST_BASS_ORDERS) return { ok: false, problem: 'long', word: '' }
  return { ok: true, orders: [...orders.values()] }
}

/** The same in writing. */
export const bassOrdersText = (orders: readonly BassOrder[]): string =>
  orders.map(({ chord, strings }) => `${chord} ${strings.join(' ')}`).join(', ')

/** The strings that the teacher says for a chord, by the name of its shape. */
export const saidStrings = (
  orders: readonly BassOrder[] | undefined,
  chord: string,
): readonly number[] | undefined => orders?.find((o) => o.chord === chord)?.strings

/** The string of a bass under a chord, by how many basses have sounded since the chord began. */
export function saidString(
  orders: readonly BassOrder[] | undefined,
  chord: string,
  nth: number,
): number | undefined {
  const strings = saidStrings(orders, chord)
  return strings?.[nth % strings.length]
}
