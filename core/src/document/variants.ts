import type { ArrangementDoc, Layer, Variant } from './arrangement.ts'
import type { Id } from './ids.ts'
import { regionAt } from './regions.ts'
import type { TuneDoc } from './tune.ts'

/** The notes, grips and spans of some measures of a layer. */
export function layerOfMeasures(layer: Layer, measures: ReadonlySet<Id>): Layer {
  const notes = layer.notes.filter((n) => measures.has(n.pos.measure))
  const ids = new Set(notes.map((n) => n.id))
  return {
    notes,
    grips: layer.grips.filter((g) => measures.has(g.pos.measure)),
    spans: layer.spans.filter((s) => ids.has(s.to)),
    locks: [],
  }
}

/** A layer in which a variant's measures are played as the variant has them. */
export function withVariant(base: Layer, { measures, layer }: Pick<Variant, 'measures' | 'layer'>): Layer {
  const own = new Set(measures)
  const gone = new Set(base.notes.filter((n) => own.has(n.pos.measure)).map((n) => n.id))
  return {
    notes: inOrder(base.notes, layer.notes, own),
    grips: inOrder(base.grips, layer.grips, own),
    spans: [...base.spans.filter((s) => !gone.has(s.to)), ...layer.spans],
    locks: base.locks,
  }
}

/**
 * The other versions of measures that somebody plays throughout: those that are theirs, and those for the level at which
 * all of their measures are arranged.
 */
export function variantsOf(
  tune: Pick<TuneDoc, 'measures'>,
  { variants, regions }: Pick<ArrangementDoc, 'variants' | 'regions'>,
  student: Id | undefined,
): Variant[] {
  const levelOf = (measure: Id) => regions[regionAt(tune, regions, measure)]?.level
  return variants.filter(({ when, measures }) => {
    if (when.student !== undefined) return when.student === student
    return when.level !== undefined && measures.every((m) => levelOf(m) === when.level)
  })
}

/** The base's items with those of some measures replaced, in the order of the measures on the page. */
function inOrder<T extends { readonly pos: { readonly measure: Id } }>(
  base: readonly T[],
  own: readonly T[],
  measures: ReadonlySet<Id>,
): T[] {
  const at = base.findIndex((x) => measures.has(x.pos.measure))
  const rest = base.filter((x) => !measures.has(x.pos.measure))
  if (at < 0) return [...rest, ...own]
  return [...rest.slice(0, at), ...own, ...rest.slice(at)]
}
