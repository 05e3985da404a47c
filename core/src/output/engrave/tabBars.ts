import { type PlacedMeasure } from '../layout/systems.ts'
import type { Measure } from '../../document/tune.ts'
import { el, words } from '../markup.ts'
import { isNewMetre } from '../notation/staffRoom.ts'
import { METRE_WIDTH } from './paperStaff.ts'
import { GAP, type Page } from './tabPage.ts'

/** A metre stands on the staff, or in the tab where there is none. */
export function metreSign({ tune, staff }: Page, index: number): string {
  const { metre } = tune.measures[index]!
  return !staff && isNewMetre(tune.measures[index]!, tune.measures[index - 1])
    ? `${metre.num}/${metre.den}`
    : ''
}

/** The two figures of a metre in the tab. */
export function metreSvg({ rows, strings }: Page, { metre }: Measure, x: number): string {
  const mid = rows.top + ((strings - 1) / 2) * GAP
  return (
    words({ class: 'me', x: x + 6, y: mid - 2 }, metre.num) +
    words({ class: 'me', x: x + 6, y: mid + 14 }, metre.den)
  )
}

/** The bracket over a first or second ending. */
export function endingSvg({ tune, rows }: Page, { index, x, width }: PlacedMeasure): string {
  const [m, before] = [tune.measures[index]!, tune.measures[index - 1]]
  if (m.endings.length === 0) return ''
  const begins = before?.endings.join() !== m.endings.join()
  return (
    el('path', { class: 'en', d: `M${x + 2} ${begins ? rows.section + 2 : 3}V3H${x + width - 5}` }) +
    (begins ? words({ class: 'num', x: x + 6, y: 12 }, `${m.endings.join(', ')}.`) : '')
  )
}

/** Bar lines, repeat signs and jumps of a measure; where there is a staff they go through both. */
export function barsSvg(
  { tune, rows, strings, staff }: Page,
  { index, x, width }: PlacedMeasure,
  first: boolean,
): string {
  const m = tune.measures[index]!
  const right = x + width
  const bar = (at: number, heavy = false) =>
    el('path', { class: heavy ? 'hl' : 'bl', d: `M${at} ${rows.barTop}V${rows.bottom}` })
  const mid = rows.top + ((strings - 1) / 2) * GAP
  const onStaff = staff ? [3 / 8, 5 / 8].map((share) => rows.barTop + staff.lines * share) : []
  const dots = (at: number) =>
    [...onStaff, mid - GAP, mid + GAP].map((cy) => el('circle', { class: 'do', cx: at, cy, r: 1.8 })).join('')
  const heavy = m.barline === 'final' || m.repeatEnd > 1
  // The sign of a repeat follows the metre on a staff.
  const metreRoom = staff && isNewMetre(m, tune.measures[index - 1]) ? METRE_WIDTH : 0
  const begin = x + metreRoom + (first && !staff ? 2 : 1)
  const jump = [
    m.fine ? 'Fine' : '',
    m.jump ? JUMP_TEXT[m.jump] : '',
    m.coda ? 'Coda' : '',
    m.segno ? '§' : '',
  ]
    .filter(Boolean)
    .join(' ')
  return [
    heavy ? bar(right - 1.5, true) + bar(right - 5) : m.barline === 'none' ? '' : bar(right - 0.5),
    m.barline === 'double' ? bar(right - 3.5) : '',
    m.repeatEnd > 1 ? dots(right - 9) : '',
    m.repeatEnd > 2 ? words({ class: 'ct', x: right - 8, y: rows.barTop - 4 }, `×${m.repeatEnd}`) : '',
    m.repeatStart ? bar(begin + 1, true) + bar(begin + 4.5) + dots(begin + 8.5) : '',
    jump ? words({ class: 'ju', x: right - 4, y: rows.barTop - 4 }, jump) : '',
  ].join('')
}

const JUMP_TEXT = {
  daCapo: 'D.C.',
  dalSegno: 'D.S.',
  daCapoAlFine: 'D.C. al Fine',
  daCapoAlCoda: 'D.C. al Coda',
  dalSegnoAlFine: 'D.S. al Fine',
  dalSegnoAlCoda: 'D.S. al Coda',
} as const
