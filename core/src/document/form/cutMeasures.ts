import type { Measure } from '../tune.ts'

/**
 * The measures, each short one marked as lacking its tail (`cut`) or its head. The first one of a tune is a pickup; so is
 * one that completes a cut measure before it (a repeat in mid-measure), and one of at most half a measure at the beginning
 * of a part. Any other ends early: it counts from one. Common practice, no source.
 */
export function withCuts(measures: readonly Measure[]): readonly Measure[] {
  /** What the measure before lacks at its end. */
  let open = 0
  let changed = false
  const next = measures.map((m, i): Measure => {
    const cut = endsEarly(m, measures[i - 1], i < measures.length - 1, open)
    open = cut ? m.nominal - m.length : 0
    if (cut === (m.cut ?? false)) return m
    changed = true
    const { cut: _, ...rest } = m
    return cut ? { ...rest, cut } : rest
  })
  return changed ? next : measures
}

function endsEarly(m: Measure, before: Measure | undefined, goesOn: boolean, open: number): boolean {
  if (m.length >= m.nominal) return false
  if (!before) return !goesOn
  if (open > 0 && m.length <= open) return false
  const beginsPart = m.repeatStart || before.repeatEnd > 1 || before.barline === 'double'
  return !(goesOn && beginsPart && m.repeatEnd === 1 && m.length <= m.nominal / 2)
}
