import type { Jump, Measure } from '../../document/tune.ts'
import { el, escaped, leaf } from '../markup.ts'

const STYLES = { single: 'regular', double: 'light-light', final: 'light-heavy', none: 'none' } as const

/** Words of jumps as they are printed everywhere. */
const JUMP_WORDS: Readonly<Record<Jump, string>> = {
  daCapo: 'D.C.',
  dalSegno: 'D.S.',
  daCapoAlFine: 'D.C. al Fine',
  daCapoAlCoda: 'D.C. al Coda',
  dalSegnoAlFine: 'D.S. al Fine',
  dalSegnoAlCoda: 'D.S. al Coda',
}

const endingText = (endings: readonly number[]): string => endings.join(', ')

const sameEnding = (a: Measure | undefined, b: Measure): boolean =>
  a !== undefined && a.endings.length > 0 && a.endings.join() === b.endings.join()

/** What stands at the beginning of a measure: repeat and ending, segno, and the coda that is jumped to. */
export function startXml(measures: readonly Measure[], index: number): string {
  const m = measures[index]!
  const begins = m.endings.length > 0 && !sameEnding(measures[index - 1], m)
  const barline =
    m.repeatStart || begins
      ? el(
          'barline',
          { location: 'left' },
          m.repeatStart ? leaf('bar-style', 'heavy-light') : '',
          begins
            ? el(
                'ending',
                { number: endingText(m.endings), type: 'start' },
                escaped(`${endingText(m.endings)}.`),
              )
            : '',
          m.repeatStart ? el('repeat', { direction: 'forward' }) : '',
        )
      : ''
  return (
    barline +
    (m.segno ? signXml(el('segno', {}), { segno: 'segno' }) : '') +
    (m.coda && !isLeftAtCoda(measures, index) ? signXml(el('coda', {}), { coda: 'coda' }) : '')
  )
}

/** What stands at its end: the bar line, repeat and ending, Fine, jumps, and where the coda is jumped to from. */
export function endXml(measures: readonly Measure[], index: number): string {
  const m = measures[index]!
  const ends = m.endings.length > 0 && !sameEnding(measures[index + 1], m)
  const style = m.repeatEnd > 1 ? 'light-heavy' : STYLES[m.barline]
  const barline =
    style !== 'regular' || ends
      ? el(
          'barline',
          { location: 'right' },
          leaf('bar-style', style),
          ends ? el('ending', { number: endingText(m.endings), type: 'stop' }) : '',
          m.repeatEnd > 1
            ? el('repeat', { direction: 'backward', times: m.repeatEnd > 2 ? m.repeatEnd : undefined })
            : '',
        )
      : ''
  const da = m.jump?.startsWith('daCapo') ? { dacapo: 'yes' } : { dalsegno: 'segno' }
  return (
    (m.coda && isLeftAtCoda(measures, index) ? signXml(el('words', {}, 'To Coda'), { tocoda: 'coda' }) : '') +
    (m.fine ? signXml(el('words', {}, 'Fine'), { fine: 'yes' }) : '') +
    (m.jump ? signXml(el('words', {}, JUMP_WORDS[m.jump]), da) : '') +
    barline
  )
}

/** Of two codas the first is left, the second is come to. */
const isLeftAtCoda = (measures: readonly Measure[], index: number): boolean =>
  measures.some((m, i) => i > index && m.coda)

const signXml = (sign: string, sound: Readonly<Record<string, string>>): string =>
  el('direction', { placement: 'above' }, el('direction-type', {}, sign), el('sound', sound))
