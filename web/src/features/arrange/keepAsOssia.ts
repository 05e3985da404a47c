import { layerOfMeasures, type Id, type TuneDoc, type Variant } from '@velvet-porch/core/document'
import type { MeasureRange, EffortVersion } from '@velvet-porch/core/arrange'
import { newId } from '../../newId.ts'
import { change } from '../../state/documents.ts'

/**
 * Keeps a version of measures as an ossia of its arrangement.
 * @param label what undo calls it
 * @param when where it is played of itself; nothing: on request alone
 */
export async function keepAsOssia(
  tune: TuneDoc,
  arrangement: Id,
  version: EffortVersion,
  { from, to }: MeasureRange,
  name: string,
  label: string,
  when: Variant['when'] = {},
): Promise<void> {
  const measures = tune.measures.slice(from, to + 1).map((m) => m.id)
  await change('arrangement', arrangement, label, (draft) => {
    draft.variants.push({
      id: newId(),
      name,
      measures,
      when,
      layer: structuredClone(layerOfMeasures(version.layer, new Set(measures))) as never,
    })
  })
}
