import type { Attack, TabNote } from '../../document/tab.ts'
import { bendText } from '../notation/bendText.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { el, words } from '../markup.ts'

const LETTERS: Readonly<Record<string, string>> = { hammer: 'h', pull: 'p', release: 'r' }

/** A slur with its letter, or a slide's line, from the note before on the string; into the measure from its left edge. */
export function joinSvg(
  to: TabNote,
  join: { readonly from: TabNote; readonly kind: string } | undefined,
  x: (tick: Ticks) => number,
  yOf: (string: number) => number,
): string {
  if (!join || join.kind === 'bend') return ''
  const y = yOf(to.place.string)
  const right = x(to.pos.tick) - 5
  const left = join.from.pos.measure === to.pos.measure ? x(join.from.pos.tick) + 6 : x(0) - 12
  if (join.kind === 'slide') {
    const way = to.place.fret > join.from.place.fret ? 3 : -3
    return el('path', { class: 'jo', d: `M${left + 1} ${y + way}L${right - 1} ${y - way}` })
  }
  const mid = (left + right) / 2
  return (
    el('path', { class: 'jo', d: `M${left - 2} ${y - 7}Q${mid} ${y - 13} ${right + 2} ${y - 7}` }) +
    words({ class: 'fi', x: mid, y: y - 11 }, LETTERS[join.kind] ?? '')
  )
}

/** An arrow up with the whole steps of a bend. */
export function bendSvg(bend: number, attack: Attack, x: number, y: number): string {
  const tip = attack === 'bend' ? x + 7 : x + 2
  const way = attack === 'bend' ? `M${x} ${y}Q${tip} ${y} ${tip} ${y - 12}` : `M${tip} ${y}V${y - 12}`
  return (
    el('path', { class: 'jo', d: `${way}m-2.5 3l2.5 -4l2.5 4` }) +
    words({ class: 'fi', x: tip, y: y - 15 }, bendText(bend))
  )
}
