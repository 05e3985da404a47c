import type { HeldFrets } from '../../lesson/steps/heldShape.ts'
import { el, words } from '../markup.ts'

const GAP = 12
const SPACE = 14
const LEAD = 16

/** Fret spaces that a box shows at least. */
const SPACES = 4

/**
 * A chord box for paper: upright, open rings and crosses over the nut, finger digits in the dots.
 * @param left true for a left-handed player: mirrored
 */
export function boxSvg({ frets, fingers }: HeldFrets, left: boolean, spoken: string): string {
  const strings = frets.length
  const pressed = frets.filter((f): f is number => f !== null && f > 0)
  const highest = Math.max(SPACES, ...pressed)
  const top = highest <= SPACES + 1 ? 0 : Math.min(...pressed) - 1
  const spaces = Math.max(SPACES, highest - top)
  const width = (strings - 1) * GAP + 28
  const height = LEAD + spaces * SPACE + 4
  const x = (string: number) => 18 + (left ? string - 1 : strings - string) * GAP
  const y = (fret: number) => LEAD + (fret - top - 0.5) * SPACE
  const [low, high] = [Math.min(x(1), x(strings)), Math.max(x(1), x(strings))]
  const parts = [
    ...frets.map((_, i) => el('path', { class: 'tl', d: `M${x(i + 1)} ${LEAD}v${spaces * SPACE}` })),
    ...Array.from({ length: spaces + 1 }, (_, f) =>
      el('path', { class: f === 0 && top === 0 ? 'hl' : 'tl', d: `M${low} ${LEAD + f * SPACE}H${high}` }),
    ),
    top > 0 ? words({ class: 'num', x: left ? high + 6 : low - 14, y: LEAD + SPACE * 0.75 }, top + 1) : '',
    ...[1, 2, 3, 4].map((finger) => {
      const own = fingers.flatMap((f, i) => (f === finger ? [i + 1] : []))
      if (own.length < 2) return ''
      const at = y(frets[own[0]! - 1]!)
      return el('path', { class: 'ba', d: `M${x(own[0]!)} ${at}H${x(own.at(-1)!)}` })
    }),
    ...frets.map((fret, i) => {
      const at = x(i + 1)
      if (fret === null) return words({ class: 'bo', x: at, y: LEAD - 4 }, '×')
      if (fret === 0) return el('circle', { class: 'op', cx: at, cy: LEAD - 7, r: 3.2 })
      return (
        el('circle', { class: 'dt', cx: at, cy: y(fret), r: 5.4 }) +
        (fingers[i] ? words({ class: 'dl', x: at, y: y(fret) + 3 }, fingers[i]) : '')
      )
    }),
  ]
  return el(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      class: 'box',
      viewBox: `0 0 ${width} ${height}`,
      width,
      height,
      role: 'img',
      'aria-label': spoken,
    },
    ...parts,
  )
}
