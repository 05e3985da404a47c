import type { Count } from '../../lesson/steps/beatCount.ts'
import type { StruckMoment } from '../../lesson/steps/struckFrom.ts'
import type { Wording } from '../../lesson/text/words/wording.ts'
import { el, escaped } from '../markup.ts'

/** Arrows as the arm goes: down towards the high strings, up again. A box of 12 by 26 units. */
const ARROWS = {
  down: 'M6 6V24M2 19L6 24L10 19',
  up: 'M6 24V6M2 11L6 6L10 11',
} as const

/** Over a stroke that stands out. */
const ACCENT = 'M3 0L9 2L3 4'

/** A count as it stands under a stroke: the beat by its number, what lies between by its syllable. */
const shortCount = ({ beat, syllable, share }: Count): string =>
  syllable ?? (share ? `${beat}+${share.join('/')}` : String(beat))

/** One stroke with its count; strings that are picked by their numbers. */
function stroke({ count, stroke: way, strings, accent }: StruckMoment, words: Wording): string {
  const drawn = way
    ? el(
        'svg',
        { viewBox: '0 0 12 26', role: 'img', 'aria-label': words.picking[way] },
        el('path', {
          d: `${ARROWS[way]}${accent ? ACCENT : ''}`,
          fill: 'none',
          stroke: '#000',
          'stroke-width': accent ? 2 : 1.3,
        }),
      )
    : el('b', {}, escaped(strings.join(' ')))
  return el('span', {}, drawn, el('small', {}, escaped(shortCount(count))))
}

/** A strum once for all: an arrow for each stroke over its count. @param label what stands before it */
export const strumChart = (label: string, struck: readonly StruckMoment[], words: Wording): string =>
  el('p', { class: 'strum' }, escaped(label), ...struck.map((s) => stroke(s, words)))
