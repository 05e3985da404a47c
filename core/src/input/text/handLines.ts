import type { LeftFinger, PickingSign } from '../../instrument/hand.ts'
import { BAR_SIGN } from '../../output/text/tabSigns.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { ReadSign } from './readTab.ts'

/** A line under a system that names fingers, one a note of its onset, from the lowest string. */
export interface HandLine {
  readonly hand: 'left' | 'right'
  /** Columns as in the rows of the system. */
  readonly text: string
  /** Line number in the text, from 1. */
  readonly line: number
}

const LABEL = /^\s*(L|R)\.?H\.?:?\s/i

/** True for a line of picking fingers without a label: nothing else, in at least two groups. */
const isPicking = (line: string): boolean => /^[pima\s]+$/.test(line) && /\S\s+\S/.test(line)

/**
 * Reads a line under a system as fingers of one hand; undefined where it is something else.
 * @param left column of the text at which the rows of the system begin
 * @example handLineIn('RH pi   a', 3, 7) // { hand: 'right', text: 'pi   a', line: 7 }
 */
export function handLineIn(text: string, left: number, line: number): HandLine | undefined {
  const label = LABEL.exec(text)
  if (!label) return isPicking(text) ? { hand: 'right', text: text.slice(left), line } : undefined
  const bare = ' '.repeat(label[0].length) + text.slice(label[0].length)
  return { hand: label[1]!.toUpperCase() === 'L' ? 'left' : 'right', text: bare.slice(left), line }
}

type LeftSign = LeftFinger | typeof BAR_SIGN

const LEFT: Readonly<Record<string, LeftSign>> = {
  '1': 1,
  '2': 2,
  '3': 3,
  '4': 4,
  T: 'T',
  t: 'T',
  [BAR_SIGN]: BAR_SIGN,
}
const RIGHT: Readonly<Record<string, PickingSign>> = {
  p: 'p',
  i: 'i',
  m: 'm',
  a: 'a',
  d: 'down',
  u: 'up',
}

/** Signs with the fingers of the lines under them, and the groups of fingers that fit nothing. */
export interface Fingered {
  readonly signs: readonly ReadSign[]
  readonly beside: readonly { readonly line: number; readonly column: number; readonly text: string }[]
}

/** Gives the signs of a measure the fingers that stand under them, as far as they fit. */
export function withHandLines(
  signs: readonly ReadSign[],
  lines: readonly HandLine[],
  from: number,
  to: number,
): Fingered {
  const beside: { line: number; column: number; text: string }[] = []
  const given = new Map<ReadSign, Pick<ReadSign, 'left' | 'right' | 'bottle'>>()
  for (const { hand, text, line } of lines)
    for (const group of groupsIn(text, from, to, signs)) {
      const own = signs
        .filter((s) => !s.grace && !s.held && s.tick === group.tick)
        .sort((a, b) => b.string - a.string)
      const taken =
        hand === 'left'
          ? matched(group.text, LEFT, [
              own.filter((s) => (s.fret ?? 0) > 0 && !s.harmonic),
              own.filter((s) => (s.fret ?? 0) > 0),
            ])
          : matched(group.text, RIGHT, [
              own.filter((s) => !s.lead),
              own.filter((s) => !s.lead || s.lead === 'slide'),
              own.filter((s) => !s.lead || isGraced(s, signs)),
            ])
      if (!taken) beside.push({ line, column: group.column, text: group.text })
      for (const [sign, finger] of taken ?? [])
        given.set(sign, {
          ...given.get(sign),
          ...(finger === BAR_SIGN ? { bottle: true as const } : { [hand]: finger }),
        })
    }
  return { signs: signs.map((s) => ({ ...s, ...given.get(s) })), beside }
}

/** True for a sign that is reached from a short note before it: what is struck is that. */
const isGraced = (sign: ReadSign, signs: readonly ReadSign[]): boolean =>
  signs.some((g) => g.grace && g.string === sign.string && g.tick === sign.tick && g.column < sign.column)

/** Letters and the signs that they belong to, one each; undefined where no list of signs has as many. */
function matched<F>(
  text: string,
  letters: Readonly<Record<string, F>>,
  lists: readonly (readonly ReadSign[])[],
): [ReadSign, F][] | undefined {
  const fingers = [...text].map((c) => letters[c])
  const list = lists.find((l) => l.length === fingers.length)
  if (!list || fingers.includes(undefined)) return undefined
  return list.map((sign, i) => [sign, fingers[i]!])
}

interface FingerGroup {
  readonly column: number
  readonly tick: Ticks
  readonly text: string
}

/** The letters of a line between two columns, by the onset under which they stand. */
function groupsIn(line: string, from: number, to: number, signs: readonly ReadSign[]): FingerGroup[] {
  const tickAt = (column: number) =>
    signs.find((s) => !s.grace && s.column <= column && column < Math.max(s.end, s.column + 1))?.tick
  const nearest = (column: number) => tickAt(column) ?? tickAt(column + 1) ?? tickAt(column - 1)
  return [...line.slice(0, to).matchAll(/\S+/g)].flatMap((m): FingerGroup[] => {
    const [text, column] = [m[0], m.index]
    if (column < from - 1) return []
    const ticks = [...text].map((_, i) => tickAt(column + i))
    // Letters without a space between them, each under an onset of its own.
    if (!ticks.includes(undefined) && new Set(ticks).size === text.length)
      return [...text].map((letter, i) => ({ column: column + i, tick: ticks[i]!, text: letter }))
    return [{ column, tick: nearest(column) ?? -1, text }]
  })
}
