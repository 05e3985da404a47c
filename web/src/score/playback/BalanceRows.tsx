import { SegmentedControl, Text } from '@mantine/core'
import { LOUDNESSES } from '@velvet-porch/core/output/sound'
import { useSyncExternalStore } from 'react'
import { useTranslation } from 'react-i18next'
import { player } from './player.ts'
import css from './PlayControl.module.css'

const VOICES = ['melody', 'harmony', 'bass', 'fill'] as const

/** How loud each voice is, in words; it is heard at once. */
export function BalanceRows() {
  const { t } = useTranslation()
  const { balance } = useSyncExternalStore(player.subscribe, player.snapshot)
  return (
    <div className={css.balance} role="group" aria-label={t('play.balance')}>
      {VOICES.map((voice) => (
        <div key={voice} className={css.voice}>
          <Text size="xs" id={`balance-${voice}`}>
            {t(`play.voice.${voice}`)}
          </Text>
          <SegmentedControl
            size="xs"
            aria-labelledby={`balance-${voice}`}
            data={LOUDNESSES.map((value) => ({ value, label: t(`play.loudness.${value}`) }))}
            value={balance[voice] ?? 'full'}
            onChange={(value) => player.set({ balance: { ...balance, [voice]: value } })}
          />
        </div>
      ))}
    </div>
  )
}
