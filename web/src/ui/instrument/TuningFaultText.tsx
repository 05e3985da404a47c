import type { TuningFault } from '@velvet-porch/core/instrument'
import { useTranslation } from 'react-i18next'

/** What is wrong with notes that were typed as a tuning, with the way out. */
export function TuningFaultText({ fault }: { fault: TuningFault }) {
  const { t } = useTranslation()
  if (fault.kind === 'count')
    return <>{t('instrument.fault.count', { strings: fault.strings, found: fault.found })}</>
  if (fault.kind === 'notNote')
    return <>{t('instrument.fault.notNote', { text: fault.text, string: fault.string })}</>
  const n = Math.abs(fault.semitones)
  return <>{t(`instrument.fault.${fault.kind}`, { text: fault.text, string: fault.string, n })}</>
}
