import { missingHead, WHOLE } from '../../src/music/index.ts'
import {
  EXPRESSION_PARTS,
  MARKS,
  measureNumbers,
  type Expression,
  type Layer,
  type Measure,
  type TuneDoc,
} from '../../src/document/index.ts'
import { readBack, replay, type Wording } from '../../src/lesson/index.ts'

/** Shares of a counted beat by their syllables: "1 e & a" and "1 trip let" (common practice, no source). */
const SYLLABLES: Readonly<Record<string, number>> = {
  e: 1 / 4,
  trip: 1 / 3,
  '&': 1 / 2,
  let: 2 / 3,
  a: 3 / 4,
}

/**
 * The tab that somebody writes down who has only the displayed words, and knows the metre: a line a moment.
 * @throws ReplayError where the words cannot be followed
 */
export const replayedTab = (text: string, words: Wording, tune: TuneDoc): string[] =>
  replay(text, words)
    .filter((s) => s.notes.length > 0)
    .map((s) => {
      const number = s.measure === words.pickup ? 0 : Number(readBack(words.measure, s.measure)!.number)
      const notes = s.notes.map((n) =>
        [
          n.string,
          n.fret,
          n.finger ?? 0,
          n.picking ?? 'none',
          n.attack,
          n.touched ?? '',
          n.beside ?? '',
          n.bend ?? '',
          n.marks.join('+'),
          ...n.graces.map((g) => [g.fret, g.finger ?? 0, g.attack, g.optional ?? false].join('_')),
        ].join(),
      )
      return line(number, tickOf(s.count, measureOf(tune, number), words), notes, s.expression, s.remark)
    })

/** The tab itself in the same form. */
export function writtenTab(tune: TuneDoc, { notes }: Layer): string[] {
  const numbers = measureNumbers(tune.measures)
  return tune.measures.flatMap((m, i) => {
    const own = notes.filter((n) => n.pos.measure === m.id)
    const ticks = [...new Set(own.map((n) => n.pos.tick))].sort((a, b) => a - b)
    return ticks.map((tick) => {
      const struck = own.filter((n) => n.pos.tick === tick)
      const lowestFirst = [...struck].sort((a, b) => b.place.string - a.place.string)
      const remarks = lowestFirst.map((n) => (n.remark ?? '').split(/\s+/).join(' ').trim()).filter(Boolean)
      return line(
        numbers[i]!,
        tick + missingHead(m),
        struck.map(({ place, ...n }) =>
          [
            place.string,
            place.fret,
            n.left,
            n.right,
            n.attack,
            place.harmonic ? place.fret : place.artificial ? place.fret + 12 : '',
            place.offsetCents ? (place.offsetCents < 0 ? 'short' : 'beyond') : '',
            n.bend ?? '',
            MARKS.filter((mark) => n[mark]).join('+'),
            ...(n.graces ?? []).map((g) => [g.place.fret, g.left, g.attack, g.optional ?? false].join('_')),
          ].join(),
        ),
        Object.assign({}, ...lowestFirst) as Expression,
        remarks.length > 0 ? remarks.join(' / ') : undefined,
      )
    })
  })
}

function line(
  measure: number,
  tick: number,
  notes: readonly string[],
  expression: Expression,
  remark: string | undefined,
): string {
  const stated = EXPRESSION_PARTS.map((part) => expression[part] ?? '')
  return [measure, Math.round(tick), ...[...notes].sort(), stated.join(''), remark ?? ''].join(' ')
}

const measureOf = (tune: TuneDoc, number: number): Measure =>
  tune.measures[measureNumbers(tune.measures).indexOf(number)]!

/** Where a count is in the whole measure; the unit of the metre has the numbers, in 6/8 every eighth. */
function tickOf(text: string, { metre }: Measure, { count }: Wording): number {
  const syllable = readBack(count.syllable, text)
  const share = readBack(count.share, text)
  const unit = WHOLE / metre.den
  if (syllable && SYLLABLES[syllable.syllable!] !== undefined)
    return (Number(syllable.beat) - 1 + SYLLABLES[syllable.syllable!]!) * unit
  if (!share) return (Number(text) - 1) * unit
  const [part, whole] = share.share!.split('/').map(Number)
  return (Number(share.beat) - 1 + part! / whole!) * unit
}
