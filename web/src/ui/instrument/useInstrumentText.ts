import { tuningId } from '@velvet-porch/core/instrument'
import { useTranslation } from 'react-i18next'
import type { useInstrument } from './useInstrument.ts'

/** Instrument, tuning and capo in a line. */
export function useInstrumentText(instrument: ReturnType<typeof useInstrument>): string {
  const { t } = useTranslation()
  const { kind, setup, capo, tuningText } = instrument
  const id = tuningId(kind, setup.tuning)
  return [
    t(`instrument.kinds.${kind}`),
    id ? t(`instrument.tunings.${id}`) : tuningText,
    ...(capo > 0 ? [t('arrange.capoAt', { capo })] : []),
  ].join(' · ')
}
