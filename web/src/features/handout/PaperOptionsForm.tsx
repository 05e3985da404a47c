import { Chip, Group, NumberInput, SegmentedControl, Switch } from '@mantine/core'
import { PAPERS, type HandoutDoc, type PaperLayers } from '@velvet-porch/core/output/handout'
import { useTranslation } from 'react-i18next'
import { Choice } from '../lesson/Choice.tsx'
import { SpeechOptions } from '../lesson/SpeechOptions.tsx'

const LAYERS = ['staff', 'fingers', 'picking', 'counts', 'strings', 'rhythm', 'lyrics'] as const
const CHORDS = ['shapes', 'sounding', 'none'] as const

/** Sheet, print, layers of the tab, and how the handout speaks. */
export function PaperOptionsForm({
  handout,
  onChange,
}: {
  handout: HandoutDoc
  onChange: (part: Partial<HandoutDoc>) => void
}) {
  const { t } = useTranslation()
  const { layers, settings, paper, large } = handout
  const shown = LAYERS.filter((l) => layers[l])
  return (
    <>
      <section aria-label={t('handout.paper')}>
        <h2>{t('handout.paper')}</h2>
        <Group gap="sm">
          <SegmentedControl
            size="xs"
            aria-label={t('handout.paper')}
            value={paper}
            onChange={(v) => onChange({ paper: v })}
            data={PAPERS.map((value) => ({ value, label: t(`handout.papers.${value}`) }))}
          />
          <Switch
            size="sm"
            label={t('handout.large')}
            checked={large}
            onChange={(e) => onChange({ large: e.currentTarget.checked })}
          />
        </Group>
      </section>
      <section aria-label={t('handout.tab')}>
        <h2>{t('handout.tab')}</h2>
        <Chip.Group
          multiple
          value={[...shown]}
          onChange={(on) =>
            onChange({
              layers: {
                ...layers,
                ...Object.fromEntries(LAYERS.map((l) => [l, on.includes(l)])),
              } as PaperLayers,
            })
          }
        >
          <Group gap={5}>
            {LAYERS.map((l) => (
              <Chip key={l} size="xs" value={l}>
                {t(`handout.layerNames.${l}`)}
              </Chip>
            ))}
          </Group>
        </Chip.Group>
        <Choice
          label={t('handout.chords')}
          value={layers.chords}
          options={CHORDS}
          nameOf={(v) => t(`handout.chordNames.${v}`)}
          onChoice={(chords) => onChange({ layers: { ...layers, chords } })}
        />
      </section>
      <section aria-label={t('lesson.speech')}>
        <h2>{t('lesson.speech')}</h2>
        <SpeechOptions settings={settings} onChange={(next) => onChange({ settings: next })} />
        <NumberInput
          size="xs"
          mt="xs"
          label={t('lesson.minutes')}
          min={5}
          max={120}
          step={5}
          clampBehavior="strict"
          value={settings.minutes}
          onChange={(v) =>
            Number(v) >= 5 && onChange({ settings: { ...settings, minutes: Math.round(Number(v)) } })
          }
        />
      </section>
    </>
  )
}
