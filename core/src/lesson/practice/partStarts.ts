import type { TuneDoc } from '../../document/tune.ts'

/** Measures that begin a part: of the tune, of a section, of a repeat or an ending, and what follows one. */
export function partStarts({ measures, sections }: TuneDoc): number[] {
  const named = new Set(sections.map((s) => s.measure))
  return measures.flatMap((m, i) => {
    const before = measures[i - 1]
    const begins =
      !before ||
      m.repeatStart ||
      before.repeatEnd > 1 ||
      named.has(m.id) ||
      m.endings.join() !== before.endings.join()
    // What completes a pickup stays with it.
    const afterPickup =
      before !== undefined && i === 1 && before.length < before.nominal && before.repeatEnd === 1
    return begins && !afterPickup ? [i] : []
  })
}
