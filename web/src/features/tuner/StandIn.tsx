import { Group, SegmentedControl, Slider, Switch, Text } from '@mantine/core'
import { useTranslation } from 'react-i18next'

/** The string that stands in for one before a microphone: which it is, how far off, and how noisy the room. */
export interface Pretended {
  readonly string: number
  readonly cents: number
  /** Amplitude, 0 to 1. */
  readonly noise: number
}

/** A noisy room. */
const NOISE = 0.02

interface Props {
  readonly strings: readonly number[]
  readonly pretended: Pretended
  readonly onChange: (pretended: Pretended) => void
}

/** Sets the simulated string. */
export function StandIn({ strings, pretended, onChange }: Props) {
  const { t } = useTranslation()
  return (
    <section aria-label={t('tuner.simulated')}>
      <Text size="sm" mb="xs">
        {t('tuner.standIn')}
      </Text>
      <Group gap="xl" align="end">
        <SegmentedControl
          size="xs"
          aria-label={t('tuner.standInString')}
          data={strings.map((s) => ({ value: String(s), label: String(s) }))}
          value={String(pretended.string)}
          onChange={(value) => onChange({ ...pretended, string: Number(value) })}
        />
        <div style={{ width: 220 }}>
          <Text size="xs" id="stand-in-cents">
            {t('tuner.standInCents', { cents: pretended.cents })}
          </Text>
          <Slider
            thumbProps={{ 'aria-labelledby': 'stand-in-cents' }}
            min={-49}
            max={49}
            value={pretended.cents}
            label={null}
            onChange={(cents) => onChange({ ...pretended, cents })}
          />
        </div>
        <Switch
          label={t('tuner.standInNoise')}
          checked={pretended.noise > 0}
          onChange={(e) => onChange({ ...pretended, noise: e.currentTarget.checked ? NOISE : 0 })}
        />
      </Group>
    </section>
  )
}
