import { SegmentedControl, Text } from '@mantine/core'
import {
  LOUDNESSES,
  OWN_PARTS,
  ownPartOf,
  withOwnPart,
  type Loudness,
  type OwnPart,
} from '@velvet-porch/core/output/sound'
import { useSyncExternalStore } from 'react'
import { useTranslation } from 'react-i18next'
import { player } from './player.ts'
import css from './PlayControl.module.css'

const VOICES = ['melody', 'harmony', 'bass', 'fill', 'metronome', 'counting'] as const

/** Heard unless it is set otherwise: notes; the metronome and the counting are off. */
const USUAL: Readonly<Record<string, Loudness>> = { metronome: 'off', counting: 'off' }

/** Whose part is silent, and how loud each voice is, in words; it is heard at once. */
export function BalanceRows() {
  const { t } = useTranslation()
  const { balance } = useSyncExternalStore(player.subscribe, player.snapshot)
  return (
    <div className={css.balance} role="group" aria-label={t('play.balance')}>
      <Text size="xs" id="own-part">
        {t('play.ownPart')}
      </Text>
      <SegmentedControl
        size="xs"
        fullWidth
        mb={8}
        aria-labelledby="own-part"
        data={OWN_PARTS.map((value) => ({ value, label: t(`play.own.${value}`) }))}
        value={ownPartOf(balance) ?? ''}
        onChange={(own) => player.set({ balance: withOwnPart(balance, own as OwnPart) })}
      />
      {VOICES.map((voice) => (
        <div key={voice} className={css.voice}>
          <Text size="xs" id={`balance-${voice}`}>
            {t(`play.voice.${voice}`)}
          </Text>
          <SegmentedControl
            size="xs"
            aria-labelledby={`balance-${voice}`}
            data={LOUDNESSES.map((value) => ({ value, label: t(`play.loudness.${value}`) }))}
            value={balance[voice] ?? USUAL[voice] ?? 'full'}
            onChange={(value) => player.set({ balance: { ...balance, [voice]: value } })}
          />
        </div>
      ))}
    </div>
  )
}
