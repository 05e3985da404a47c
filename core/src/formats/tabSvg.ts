import type { Score } from '../document/score.ts'
import { el, escaped } from '../output/markup.ts'
import { DRAWING_CSS } from '../output/handout/paperCss.ts'
import { tabSystems } from '../output/engrave/tabPaper.ts'
import { USUAL_PAPER_LAYERS, type PaperOptions } from '../output/engrave/tabPage.ts'

/** Px of the drawing's width, of its margins, of its title, and between systems. */
const SIZE = { width: 900, margin: 24, title: 44, between: 18 }

/**
 * A tab as one drawing (SVG 1.1) on white: its title and all its systems, one under the other.
 * @param fonts rules for the fonts of the drawing, where they are to be in it
 * @param options what is shown, and which measures; the title stands over the whole tab only
 */
export function tabSvg(
  { tune, arrangement }: Required<Score>,
  fonts = '',
  options: Partial<Omit<PaperOptions, 'width'>> = {},
): string {
  const width = SIZE.width - 2 * SIZE.margin
  const systems = tabSystems(tune, arrangement, {
    layers: USUAL_PAPER_LAYERS,
    naming: 'letters',
    ...options,
    width,
  })
  const isWhole = options.from === undefined && options.to === undefined
  let y = SIZE.margin + (isWhole ? SIZE.title : 0)
  const placed = systems.map((s) => {
    const svg = s.svg.replace('<svg ', `<svg x="${SIZE.margin}" y="${y}" `)
    y += s.height + SIZE.between
    return svg
  })
  const height = y - SIZE.between + SIZE.margin
  const title = escaped(tune.title)
  return el(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `0 0 ${SIZE.width} ${height}`,
      width: SIZE.width,
      height,
      role: 'img',
      'aria-label': tune.title,
    },
    el('style', {}, `${fonts}${DRAWING_CSS}`),
    el('rect', { width: SIZE.width, height, fill: '#fff' }),
    isWhole
      ? `<text x="${SIZE.margin}" y="${SIZE.margin + 22}" style="font-size:24px;font-weight:700">${title}</text>`
      : '',
    ...placed,
  )
}
