import { present } from '@velvet-porch/core/invariant'
import type { SystemLayout } from '@velvet-porch/core/output/layout'
import { derived, type Derived } from './derived.ts'
import type { SheetModel } from './sheetModel.ts'
import type { Rows } from './metrics.ts'
import type { Lit, TabLayers } from './TabLayer.tsx'

/** How every system of a page is drawn. */
export interface PageLook {
  /** What stands under what, and how high it is. */
  readonly rows: Rows
  readonly layers: TabLayers
  readonly lit: Lit | undefined
}

/** What one system is drawn from. */
export interface SystemPage extends PageLook {
  readonly model: SheetModel
  readonly system: SystemLayout
}

/** Makes the pages of a sheet, each from those before: a system in which nothing changed keeps its page. */
export function pageMaker(): (
  model: SheetModel,
  systems: readonly SystemLayout[],
  look: PageLook,
) => readonly SystemPage[] {
  let before: Derived<SystemPage> | undefined
  return (model, systems, look) => {
    const { rows, layers, lit } = look
    const from = systems.map((system) => [
      system,
      rows,
      layers,
      ...system.measures.flatMap(({ index }) => [model.prints[index], ...litIn(model, index, lit)]),
    ])
    before = derived(before, from, (i) => ({ model, system: systems[i]!, ...look }))
    return before.made
  }
}

/** What is marked out in a measure. */
function litIn({ tune, notes }: SheetModel, index: number, lit: Lit | undefined): readonly unknown[] {
  if (!lit) return []
  const ids = [tune.measures[index]!.id, ...(notes.get(index) ?? []).map((n) => n.id)]
  const faults = (lit.faults?.[index] ?? []).flatMap((f) => [f.start, f.kind, JSON.stringify(f.says)])
  const chosen = lit.chosen ? ids.filter((id) => present(lit.chosen).has(id)) : []
  return [lit.changed, ...ids.filter((id) => lit.locked.has(id)), null, ...chosen, null, ...faults]
}
