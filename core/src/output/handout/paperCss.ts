import { FOOT_PX, MARGIN_PX, PAPER_PX, printScale, type HandoutDoc } from './handout.ts'

/** How drawings look on paper: black, white and one grey, so that any printer does. */
export const DRAWING_CSS = `
svg { display: block; overflow: visible; fill: #000; }
svg:not(svg svg) { font-family: 'Figtree Variable', Figtree, sans-serif; }
.draw > svg { width: 100%; height: 100%; }
.tl, .bl, .hl, .jo, .en, .st, .bm, .ba, .ns { fill: none; stroke: #000; }
.tl { stroke: #777; stroke-width: 0.7; } .bl { stroke-width: 1; } .hl { stroke-width: 3; } .jo { stroke-width: 1.1; }
.en { stroke-width: 0.9; } .st { stroke-width: 1.2; } .bm { stroke-width: 2.6; } .ba { stroke-width: 9; stroke-linecap: round; }
.ns { stroke-width: 2.4; } .ha { fill: #fff; }
.fr { font: 500 12.5px 'Fira Mono', monospace; text-anchor: middle; } .me-l { font-weight: 700; }
.gr { font: 400 9px 'Fira Mono', monospace; text-anchor: end; }
.fi { font-size: 8.5px; text-anchor: middle; } .num { font-size: 9px; } .sec { font-size: 12px; font-weight: 700; }
.ch { font-size: 13px; font-weight: 700; } .me { font-size: 15px; font-weight: 700; text-anchor: middle; }
.ct { font-size: 10.5px; text-anchor: middle; } .pk { font-size: 11px; font-style: italic; text-anchor: middle; }
.ly { font-size: 11.5px; } .ju { font-size: 10px; font-style: italic; text-anchor: end; }
.bo { font-size: 10px; text-anchor: middle; } .op { fill: #fff; stroke: #000; stroke-width: 1.1; }
.dl { fill: #fff; font-size: 9px; font-weight: 700; text-anchor: middle; }
`

/** The look of a handout's pages. */
export function paperCss(handout: Pick<HandoutDoc, 'paper' | 'large'>): string {
  const { width, height } = PAPER_PX[handout.paper]
  const scale = printScale(handout)
  const px = (n: number) => `${Math.round(n * scale * 10) / 10}px`
  return `
${DRAWING_CSS}
.page { box-sizing: border-box; width: ${width}px; height: ${height}px; padding: ${MARGIN_PX}px; background: #fff; color: #000;
  font: ${px(13)}/1.4 'Figtree Variable', Figtree, sans-serif; position: relative; overflow: hidden; text-align: left; }
.page .body > * { margin: 0; padding-bottom: ${px(8)}; }
.page h1 { font: 600 ${px(30)}/1.15 'Fraunces Variable', Fraunces, serif; margin: 0; overflow-wrap: anywhere; }
.page h2 { font: 600 ${px(17)}/1.2 'Fraunces Variable', Fraunces, serif; margin: 0; padding-top: ${px(6)}; }
.page h3 { font-size: ${px(13)}; margin: 0 0 ${px(2)}; display: flex; gap: ${px(10)}; align-items: baseline; }
.page h3 small { font-weight: 400; font-size: ${px(11)}; }
.page p { margin: 0; overflow-wrap: anywhere; }
.page .by { font-style: italic; } .page .sub { padding-left: ${px(14)}; font-size: ${px(12)}; }
.page .facts { border-block: 1px solid #000; padding-block: ${px(4)}; margin-bottom: ${px(6)}; }
.page .boxes { display: flex; flex-wrap: wrap; gap: ${px(6)} ${px(22)}; }
.page figure { margin: 0; } .page figcaption { font-weight: 700; text-align: center; }
.page figure svg { width: ${px(92)}; height: auto; } .page .pattern { font-size: ${px(10)}; text-align: center; max-width: ${px(100)}; }
.page .frames { gap: ${px(14)} ${px(30)}; } .page .frames figcaption { font-size: ${px(19)}; }
.page .frames figure svg { width: ${px(138)}; } .page .frames .pattern { font-size: ${px(14)}; max-width: ${px(148)}; }
.page .strum { font-weight: 600; display: flex; flex-wrap: wrap; gap: ${px(4)} ${px(9)}; align-items: end; }
.page .strum span { display: grid; justify-items: center; gap: ${px(1)}; min-width: ${px(14)}; }
.page .strum svg { width: ${px(12)}; height: ${px(26)}; } .page .strum small { font-size: ${px(11)}; }
.page .steps p { padding-left: ${px(12)}; text-indent: -${px(12)}; } .page .caption { font-weight: 600; }
.page .item { display: flex; justify-content: space-between; gap: ${px(16)}; border-bottom: 1px dotted #777; }
.page .care { font-size: ${px(11.5)}; border-top: 1px solid #000; padding-top: ${px(5)}; }
.page .form { font-weight: 600; }
.page .sung { display: flex; flex-wrap: wrap; } .page .sung span { white-space: pre; }
.page .sung i { display: block; font-style: normal; font-weight: 700; font-size: ${px(12)}; padding-right: ${px(8)}; }
.page .part p { line-height: 1.25; } .page .part h3 { margin-top: ${px(4)}; } .page .bars { font-weight: 700; font-size: ${px(12)}; }
.page .who { font-size: ${px(10)}; align-self: end; padding-right: ${px(8)}; letter-spacing: 0.04em; }
.page .remark { font-style: italic; white-space: pre-wrap; font-size: ${px(11.5)}; }
.page .columns { columns: 2; column-gap: ${px(24)}; } .page .columns .part { break-inside: avoid; padding-bottom: ${px(6)}; }
.page .chords { display: grid; grid-template-columns: repeat(4, 1fr); border-left: 1px solid #000; }
.page .chords span { border-right: 1px solid #000; padding: ${px(2)} ${px(8)}; font-weight: 600; }
.page footer { position: absolute; left: ${MARGIN_PX}px; right: ${MARGIN_PX}px; bottom: ${MARGIN_PX - FOOT_PX}px; height: ${FOOT_PX}px;
  display: flex; justify-content: space-between; gap: 20px; font-size: 9.5px; align-items: end; }
.page footer span:last-child { white-space: nowrap; }
`
}

/** What a printer needs to know: the sheet, no margin of its own, a page a sheet. */
export const printCss = ({ paper }: Pick<HandoutDoc, 'paper'>): string =>
  `@page { size: ${paper === 'a4' ? 'A4' : 'letter'}; margin: 0 } .page { break-after: page } .page:last-child { break-after: auto }`
