import type { Variant } from '@velvet-porch/core'
import type { useTranslation } from 'react-i18next'
import type { SheetModel } from '../../score/sheet/sheetModel.ts'

/** Which measures a kept version is of, and what it does otherwise. */
export function ossiaWords(
  t: ReturnType<typeof useTranslation>['t'],
  { measures, name }: Variant,
  { numbers, timeline }: Pick<SheetModel, 'numbers' | 'timeline'>,
): string {
  const [from, to] = [measures[0]!, measures.at(-1)!].map((id) => numbers[timeline.indexOf.get(id) ?? -1])
  return t(from === to ? 'easier.ossiaOne' : 'easier.ossia', { from, to, what: name })
}
