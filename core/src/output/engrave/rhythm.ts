import { present } from '../../invariant.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Measure } from '../../document/tune.ts'
import { beatLength, missingHead } from '../../music/time/metre.ts'
import { WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { writtenValue } from '../../music/time/writtenValue.ts'
import { el, words } from '../markup.ts'

const STEM = 16

interface Value {
  readonly tick: Ticks
  readonly base: number
  readonly dots: number
  /** Notes in the time of fewer: three for two. */
  readonly tuplet?: number
  readonly beat: number
}

/**
 * When things are struck, as stems under the tab: from each onset to the next; a half note has a short stem, a whole one
 * none; eighths and shorter ones of a beat are beamed.
 * @param y upper end of the stems
 */
export function rhythmSvg(
  m: Measure,
  notes: readonly TabNote[],
  x: (tick: Ticks) => number,
  y: number,
): string {
  const values = valuesOf(m, notes)
  const parts: string[] = []
  const beams = (v: Value) => Math.max(0, Math.log2(v.base) - 2)
  values.forEach((v, i) => {
    const at = x(v.tick)
    if (v.base >= 2)
      parts.push(el('path', { class: 'st', d: `M${at} ${y + (v.base === 2 ? STEM / 2 : 0)}V${y + STEM}` }))
    if (v.dots > 0) parts.push(el('circle', { class: 'do', cx: at + 4, cy: y + STEM - 3, r: 1.3 }))
    const [before, next] = [values[i - 1], values[i + 1]]
    const beamed = (o: Value | undefined, level: number) =>
      o !== undefined && o.beat === v.beat && beams(o) > level
    for (let level = 0; level < beams(v); level++) {
      const line = y + STEM - level * 4
      if (beamed(next, level)) parts.push(beam(at, x(present(next).tick), line))
      else if (!beamed(before, level)) {
        // Alone on its level: a flag, towards a neighbour of its beat where it has one.
        const back = level > 0 && beamed(before, 0)
        parts.push(beam(at, at + (back ? -6 : 6), line))
      }
    }
    if (v.tuplet && values[i - 1]?.tuplet === undefined)
      parts.push(
        words(
          { class: 'fi', x: (at + x(values[Math.min(i + 2, values.length - 1)]!.tick)) / 2, y: y + STEM + 9 },
          v.tuplet,
        ),
      )
  })
  return parts.join('')
}

const beam = (from: number, to: number, y: number): string =>
  el('path', { class: 'bm', d: `M${from} ${y}H${to}` })

function valuesOf(m: Measure, notes: readonly TabNote[]): Value[] {
  const onsets = [...new Set(notes.map((n) => n.pos.tick))].sort((a, b) => a - b)
  const head = missingHead(m)
  return onsets.map((tick, i): Value => {
    const share = ((onsets[i + 1] ?? m.length) - tick) / WHOLE
    const beat = Math.floor((tick + head) / beatLength(m.metre))
    const plain = writtenValue(share)
    const third = writtenValue(share * 1.5)
    const isPlain = (2 - 2 ** -plain.dots) / plain.base === share
    const isThird = Math.abs((2 - 2 ** -third.dots) / third.base - share * 1.5) < 1e-9
    return !isPlain && isThird ? { tick, beat, ...third, tuplet: 3 } : { tick, beat, ...plain }
  })
}
