import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { present } from '@velvet-porch/core/invariant'
import type { SystemPage } from './pages.ts'
import { chordLabel } from './sheetModel.ts'

/** A line of the sheet as it is read aloud: its measures and their chords. What is played in it the keys go through. */
export function useLineName({ model, system, layers }: SystemPage): string {
  const { t } = useTranslation()
  const names = useNames()
  const indexes = system.measures.map((m) => m.index)
  const numbered = (i: number | undefined) => present(model.numbers[present(i)])
  const [from, to] = [numbered(indexes[0]), numbered(indexes.at(-1))]
  const chords = indexes
    .map((i) => present(model.harmonyIn[i]).map((h) => chordLabel(h, names, layers.names === 'sounding')))
    .map((own) => own.join(' '))
    .filter((own) => own !== '')
    .join(', ')
  const measures = from === to ? t('sheet.measure', { number: from }) : t('sheet.line', { from, to })
  return chords === '' ? measures : t('sheet.lineChords', { measures, chords })
}
