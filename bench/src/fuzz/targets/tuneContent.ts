import type { TuneDoc } from '@velvet-porch/core'

/** A tune as its musician sees it: everything but ids, the text, and what is only suggested. */
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
    measures: tune.measures.map(({ length, metre, repeatStart, repeatEnd, endings }) => ({
      length,
      metre: `${metre.num}/${metre.den}`,
      repeatStart,
      repeatEnd,
      endings: endings.join(),
    })),
    notes: inOrder
      .filter((e) => e.pitch)
      .map((e) => ({
        at: at(e.pos),
        voice: e.voice,
        pitch: [...e.chordTones, e.pitch!].map((p) => `${p.step}${p.alter}${p.octave}`).join(),
        tuplet: e.dur.tupletId ? tuplets.get(e.dur.tupletId) : undefined,
        words: [e.lyric, ...(e.moreLyrics ?? [])].join('/'),
      })),
    sections: tune.sections.map((s) => `${indexOf.get(s.measure)} ${s.name}`),
    tempos: tune.tempos.filter((t) => t.stated).map((t) => `${at(t.pos)} ${t.bpm.toFixed(2)}`),
  }
}
