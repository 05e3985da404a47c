import { SegmentedControl, Text } from '@mantine/core'
import { WISHES, type Preferences } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import css from './WhatMatters.module.css'

/** How much each wish weighs; moving one orders the options anew at once. */
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
        {WISHES.filter((w) => w !== 'singer' || sings).map((wish) => (
          <div key={wish}>
            <Text size="xs">{t(`fit.wish.${wish}`)}</Text>
            <SegmentedControl
              size="xs"
              aria-label={t(`fit.wish.${wish}`)}
              value={String(preferences[wish])}
              onChange={(v) => onPreferences({ ...preferences, [wish]: Number(v) as 0 | 1 | 2 | 3 })}
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
