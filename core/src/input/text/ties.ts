import type { ReadMeasure, ReadSign } from './readTab.ts'

/**
 * Tabs put a note that is tied over a bar line in brackets: the fret that its string had last, at the beginning of the next
 * measure, that nobody plucks.
 */
export function tiedOver(measures: readonly ReadMeasure[]): ReadMeasure[] {
  const last = new Map<number, { readonly sign: ReadSign; readonly measure: number }>()
  return measures.map((m, i) => {
    const signs = m.signs.map((s) => {
      const before = last.get(s.string)
      const tied =
        s.optional &&
        s.tick === 0 &&
        !s.harmonic &&
        !s.muted &&
        s.right === undefined &&
        before?.measure === i - 1 &&
        before.sign.fret === s.fret &&
        !before.sign.muted
      return tied ? { string: s.string, column: s.column, end: s.end, tick: s.tick, held: true as const } : s
    })
    for (const sign of [...signs].sort((a, b) => a.tick - b.tick || a.column - b.column))
      if (sign.held) last.set(sign.string, { sign: last.get(sign.string)?.sign ?? sign, measure: i })
      else last.set(sign.string, { sign, measure: i })
    return { ...m, signs }
  })
}
