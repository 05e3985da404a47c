import { melodyOf, timelineOf } from '../document/form/timeline.ts'
import type { ArrangementDoc, Variant } from '../document/arrangement.ts'
import type { Id } from '../document/ids.ts'
import type { TuneDoc } from '../document/tune.ts'
import { layerOfMeasures, withVariant } from '../document/variants.ts'
import { tidyTab } from './tidyTab.ts'

/** Keeps some measures as they are now as another version of themselves, shown on request. */
export function keptAsOssia(
  doc: ArrangementDoc,
  measures: readonly Id[],
  name: string,
  id: Id,
): ArrangementDoc {
  const layer = layerOfMeasures(doc.base, new Set(measures))
  return { ...doc, variants: [...doc.variants, { id, name, measures, when: {}, layer }] }
}

/**
 * Puts an ossia in the place of the measures of the main version, which become the ossia. A note of the melody that the
 * tune does not have stays where it is and follows the tune no longer.
 */
export function exchanged(tune: TuneDoc, doc: ArrangementDoc, ossia: Id): ArrangementDoc {
  const own = doc.variants.find((v) => v.id === ossia)
  if (!own) return doc
  const known = new Set(melodyOf(tune, timelineOf(tune.measures)).map((n) => n.sourceId))
  const notes = own.layer.notes.map(({ sourceId, ...n }) =>
    sourceId !== undefined && known.has(sourceId) ? { ...n, sourceId } : n,
  )
  const before: Variant = { ...own, layer: layerOfMeasures(doc.base, new Set(own.measures)) }
  const base = withVariant(doc.base, { ...own, layer: { ...own.layer, notes } })
  return tidyTab(tune, { ...doc, base, variants: doc.variants.map((v) => (v === own ? before : v)) })
}
