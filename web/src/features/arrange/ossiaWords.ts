import { present } from '@velvet-porch/core/invariant'
import type { TFunction } from 'i18next'
import type { Variant } from '@velvet-porch/core/document'
import type { SheetModel } from '../../score/sheet/sheetModel.ts'

/** Which measures a kept version is of, and what it does otherwise. */
export function ossiaWords(
  t: TFunction,
  { measures, name }: Variant,
  { numbers, timeline }: Pick<SheetModel, 'numbers' | 'timeline'>,
): string {
  const [from, to] = [measures[0]!, measures.at(-1)!].map(
    (id) => numbers[timeline.indexOf.get(id) ?? -1] ?? 0,
  )
  const values = { from: present(from), to: present(to), what: name }
  return from === to ? t('easier.ossiaOne', values) : t('easier.ossia', values)
}
