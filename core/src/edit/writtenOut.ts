import { unfold } from '../document/form/unfold.ts'
import { withVariant } from '../document/variants.ts'
import type { Measure, Section, TuneDoc } from '../document/tune.ts'
import { clipOf, plainMeasure, unmarked, withFreshIds } from './clip.ts'
import type { Score } from '../document/score.ts'
import { freshIds } from './freshIds.ts'
import { spliced } from './measures.ts'
import { copiedLines, withLines } from './songLines.ts'
import { tidyTab } from './tidyTab.ts'

/**
 * A score with its form written out: every measure as often as it is played, no signs; what was only for one pass stands
 * where that pass is. The first playing of a measure keeps its ids.
 */
export function writtenOut(score: Score): Score {
  const { tune, arrangement } = score
  const { order } = unfold(tune.measures)
  if (order.every((o, i) => o.measure === i) && order.length === tune.measures.length) return unsigned(score)
  const seen = new Set<number>()
  const first = order[0]!.measure
  seen.add(first)
  let out = only(score, first, order[0]!.pass)
  const names = new Map(tune.sections.map((s) => [s.measure, s.name]))
  const sections: Section[] = []
  order.forEach(({ measure, pass }, i) => {
    const source = tune.measures[measure]!
    if (i > 0) {
      // Lines of words go over several measures: they are laid when all are there.
      const { lines: _, ...clip } = unmarked(clipOf(forPass(score, measure, pass), measure, measure))
      out = spliced(out, i, seen.has(measure) ? withFreshIds(clip, wide(tune, out)) : clip)
      seen.add(measure)
    }
    const name = names.get(source.id)
    if (name !== undefined)
      sections.push({ id: `s${sections.length + 1}`, name, measure: out.tune.measures[i]!.id })
  })
  const last = out.tune.measures.length - 1
  const measures = out.tune.measures.map((m, i): Measure => (i === last ? { ...m, barline: 'final' } : m))
  const copied = out.arrangement?.base.locks ?? []
  const ids = new Set(copied.map((l) => l.id))
  const locks = [...(arrangement?.base.locks ?? []).filter((l) => !ids.has(l.id)), ...copied]
  const played = order.map((o) => tune.measures[o.measure]!.id)
  const copies = copiedLines(
    tune.song?.lines ?? [],
    played,
    measures.map((m) => m.id),
  )
  const { line } = freshIds(tune)
  const page: TuneDoc = { ...out.tune, measures, sections }
  const written = withLines(
    page,
    copies.map((l) => ({ id: line(), ...l })),
  )
  if (!out.arrangement) return { tune: written }
  const tab = { ...out.arrangement, variants: [], base: { ...out.arrangement.base, locks } }
  return { tune: written, arrangement: tidyTab(written, tab) }
}

/** Ids are fresh against what is written out already and what is still to come. */
function wide(tune: Score['tune'], out: Score): Score['tune'] {
  return {
    ...tune,
    measures: [...tune.measures, ...out.tune.measures],
    events: [...tune.events, ...out.tune.events],
    chords: [...tune.chords, ...out.tune.chords],
    tuplets: [...tune.tuplets, ...out.tune.tuplets],
  }
}

/** The score as it is on one pass: variants for that pass in their place. */
function forPass(score: Score, measure: number, pass: number): Score {
  const { tune, arrangement } = score
  const variant = arrangement?.variants.find(
    (v) => v.when.pass === pass && v.measures.includes(tune.measures[measure]!.id),
  )
  return arrangement && variant
    ? { tune, arrangement: { ...arrangement, base: withVariant(arrangement.base, variant) } }
    : score
}

/** A score of one measure alone. */
function only(score: Score, measure: number, pass: number): Score {
  const { tune, arrangement } = score
  const clip = unmarked(clipOf(forPass(score, measure, pass), measure, measure))
  const { layer, ...page } = clip
  const [opening] = tune.tempos
  const own =
    clip.tempos.length > 0
      ? clip.tempos
      : opening
        ? [{ ...opening, pos: { measure: clip.measures[0]!.id, tick: 0 } }]
        : []
  return {
    tune: { ...tune, ...page, tempos: own, sections: [] },
    ...(arrangement
      ? {
          arrangement: {
            ...arrangement,
            base: layer ?? { notes: [], grips: [], spans: [], locks: [] },
          },
        }
      : {}),
  }
}

/** Nothing is repeated: signs that lead nowhere go. */
function unsigned(score: Score): Score {
  const last = score.tune.measures.length - 1
  const measures = score.tune.measures.map((m, i): Measure => ({
    ...plainMeasure(m),
    barline: i === last ? 'final' : m.barline,
  }))
  return { ...score, tune: { ...score.tune, measures } }
}
