import { SegmentedControl } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import css from './Progression.module.css'

/** The voice of a progression that is to move by step. */
export type Lead = 'melody' | 'bass'

interface Props {
  readonly lead: Lead | undefined
  readonly onLead: (lead: Lead | undefined) => void
}

/** Whether the top or the bottom of a progression leads, or neither. */
export function LeadChoice({ lead, onLead }: Props) {
  const { t } = useTranslation()
  return (
    <div className={css['path-lead']}>
      <span id="lead-label">{t('path.lead')}</span>
      <SegmentedControl<Lead | 'none'>
        aria-labelledby="lead-label"
        data={(['none', 'melody', 'bass'] as const).map((x) => ({ value: x, label: t(`path.leads.${x}`) }))}
        value={lead ?? 'none'}
        onChange={(value) => onLead(value === 'none' ? undefined : value)}
      />
    </div>
  )
}
