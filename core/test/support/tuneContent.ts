import type { TuneDoc } from '../../src/document/index.ts'

/** A tune as its musician sees it: everything but ids and the text. */
export function contentOf(tune: TuneDoc) {
  const indexOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const tuplets = new Map(tune.tuplets.map((t) => [t.id, `${t.actual}:${t.normal}`]))
  const at = (pos: { measure: string; tick: number }) => `${indexOf.get(pos.measure)}+${pos.tick}`
  const inOrder = [...tune.events].sort(
    (a, b) =>
      a.voice - b.voice ||
      indexOf.get(a.pos.measure)! - indexOf.get(b.pos.measure)! ||
      a.pos.tick - b.pos.tick,
  )
  return {
    title: tune.title,
    composer: tune.composer,
    measures: tune.measures.map(({ id: _, ...m }) => m),
    events: inOrder.map(({ id: _, pos, dur, tieTo, ...e }) => ({
      ...e,
      at: at(pos),
      ticks: dur.ticks,
      tuplet: dur.tupletId ? tuplets.get(dur.tupletId) : undefined,
      tied: tieTo !== undefined,
    })),
    chords: tune.chords.filter((c) => c.origin !== 'suggested').map((c) => `${at(c.pos)} ${c.symbol}`),
    sections: tune.sections.map((s) => `${indexOf.get(s.measure)} ${s.name}`),
    tempos: tune.tempos.filter((t) => t.stated).map((t) => `${at(t.pos)} ${t.bpm}`),
  }
}
