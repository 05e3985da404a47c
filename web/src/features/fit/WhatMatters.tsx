import { SegmentedControl, Text } from '@mantine/core'
import { PRIORITIES, type Preferences } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import css from './WhatMatters.module.css'

/** How much each priority weighs; moving one orders the options anew at once. */
export function WhatMatters({
  preferences,
  onPreferences,
  sings,
}: {
  preferences: Preferences
  onPreferences: (next: Preferences) => void
  sings: boolean
}) {
  const { t } = useTranslation()
  return (
    <details className="reasons" data-testid="matters">
      <summary>{t('fit.matters')}</summary>
      <div className={css['fit-matters']}>
        {PRIORITIES.filter((w) => w !== 'singer' || sings).map((priority) => (
          <div key={priority}>
            <Text size="xs">{t(`fit.priority.${priority}`)}</Text>
            <SegmentedControl
              size="xs"
              aria-label={t(`fit.priority.${priority}`)}
              value={String(preferences[priority])}
              onChange={(v) => onPreferences({ ...preferences, [priority]: Number(v) as 0 | 1 | 2 | 3 })}
              data={[0, 1, 2, 3].map((n) => ({
                value: String(n),
                label: t(`fit.weight.${n as 0 | 1 | 2 | 3}`),
              }))}
            />
          </div>
        ))}
      </div>
    </details>
  )
}
