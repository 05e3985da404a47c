import type { TuneDoc } from './tune.ts'

/** The first measures of a tune, with what stands in them; a tune that is shorter stays as it is. */
export function opening(tune: TuneDoc, measures: number): TuneDoc {
  if (tune.measures.length <= measures) return tune
  const kept = tune.measures.slice(0, measures)
  const ids = new Set(kept.map((m) => m.id))
  const inside = <T extends { readonly pos: { readonly measure: string } }>(list: readonly T[]) =>
    list.filter((x) => ids.has(x.pos.measure))
  const events = inside(tune.events)
  const known = new Set(events.map((e) => e.id))
  return {
    ...tune,
    measures: kept,
    events: events.map(({ tieTo, ...e }) => (tieTo !== undefined && known.has(tieTo) ? { ...e, tieTo } : e)),
    chords: inside(tune.chords),
    sections: tune.sections.filter((s) => ids.has(s.measure)),
    tempos: inside(tune.tempos),
  }
}
