import type { TabNote } from '../../document/tab.ts'
import { OCTAVE } from '../../instrument/setup.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { el, words } from '../markup.ts'
import { bendSvg } from './tabJoins.ts'
import { stringY, type Page } from './tabPage.ts'

/** A wavy line along the strings of a chord that is rolled. */
export function rollSvg(page: Page, chord: readonly TabNote[], x: (tick: Ticks) => number): string {
  const strings = chord.map((n) => n.place.string)
  const [from, to] = [stringY(page, Math.min(...strings)) - 5, stringY(page, Math.max(...strings)) + 5]
  const waves = Math.max(1, Math.round((to - from) / 8))
  return el('path', {
    class: 'jo',
    d: `M${x(chord[0]!.pos.tick) - 10} ${from}${'q3 2 0 4t0 4'.repeat(waves)}`,
  })
}

/** A note on its string with what stands beside it: finger, short notes, bends, signs. */
export function noteSvg(page: Page, n: TabNote, x: (tick: Ticks) => number): string {
  const { string, fret, harmonic, artificial } = n.place
  const plain = artificial ? `${fret}‹${fret + OCTAVE}›` : harmonic ? `‹${fret}›` : String(fret)
  const text = n.attack === 'muted' ? '×' : plain
  const shown = n.optional ? `(${text})` : text
  const [at, y, half] = [x(n.pos.tick), stringY(page, string), 4.1 * shown.length]
  const graces = (n.graces ?? []).map((g) => g.place.fret).join('')
  const signs = [n.accent ? '>' : '', n.palmMute ? 'P' : ''].filter(Boolean).join(' ')
  return [
    el('rect', { class: 'ha', x: at - half - 1, y: y - 6, width: 2 * half + 2, height: 12 }),
    words({ class: n.role === 'melody' ? 'fr me-l' : 'fr', x: at, y: y + 4.2 }, shown),
    graces ? words({ class: 'gr', x: at - half - 2, y: y + 2 }, graces) : '',
    page.options.layers.fingers && n.left !== 0 && n.attack !== 'bottle'
      ? words({ class: 'fi', x: at + half + 3.5, y: y - 2 }, n.left)
      : '',
    n.bend ? bendSvg(n.bend, n.attack, at + half + (page.options.layers.fingers ? 8 : 2), y) : '',
    signs ? words({ class: 'fi', x: at, y: page.rows.top - 6 }, signs) : '',
    n.fermata
      ? el('path', {
          class: 'jo',
          d: `M${at - 6} ${page.rows.top - 5}a6 5.5 0 0 1 12 0M${at - 0.6} ${page.rows.top - 6}h1.2`,
        })
      : '',
    slidesSvg(n, at - half, at + half + (page.options.layers.fingers ? 7 : 0), y),
    n.vibrato ? el('path', { class: 'jo', d: `M${at + half + 3} ${y - 8}q2 -4 4 0t4 0t4 0` }) : '',
  ].join('')
}

/** Strokes beside a fret: slid into from nowhere, slid off to nowhere. */
function slidesSvg(n: TabNote, left: number, right: number, y: number): string {
  const stroke = (x: number, up: boolean) => `M${x} ${y + (up ? 3.5 : -3.5)}l6 ${up ? -7 : 7}`
  const strokes = [
    n.slideFromBelow ? stroke(left - 7, true) : '',
    n.slideFromAbove ? stroke(left - 7, false) : '',
    n.slideOffUp ? stroke(right + 1, true) : '',
    n.slideOffDown ? stroke(right + 1, false) : '',
  ].join('')
  return strokes === '' ? '' : el('path', { class: 'jo', d: strokes })
}

/** Fingers over the thumb, or the sign of a stroke. */
export function pickSvg(onset: readonly TabNote[], x: number, y: number): string {
  const signs = [...new Set(onset.map((n) => n.right))]
  const fingers = signs.filter((s) => s === 'i' || s === 'm' || s === 'a').join('')
  const stroke = signs.find((s) => s === 'down' || s === 'up')
  return [
    fingers ? words({ class: 'pk', x, y }, fingers) : '',
    signs.includes('p') ? words({ class: 'pk', x, y: y + 11 }, 'p') : '',
    stroke
      ? el('path', {
          class: 'jo',
          d: stroke === 'down' ? `M${x - 4} ${y}v-7h8v7` : `M${x - 4} ${y - 8}L${x} ${y}L${x + 4} ${y - 8}`,
        })
      : '',
  ].join('')
}
