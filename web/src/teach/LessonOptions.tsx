import { Button, NumberInput, Popover, Select } from '@mantine/core'
import { IconAdjustments } from '@tabler/icons-react'
import { UNITS, type LessonSettings } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import { SpeechOptions } from './SpeechOptions.tsx'

/** How this teacher teaches: the unit, when pieces are joined, how it is practised, how the lesson speaks. */
export function LessonOptions({
  settings,
  onChange,
}: {
  settings: LessonSettings
  onChange: (settings: LessonSettings) => void
}) {
  const { t } = useTranslation()
  const { way } = settings
  const number = (
    label: string,
    value: number,
    least: number,
    most: number,
    step: number,
    set: (n: number) => LessonSettings,
  ) => (
    <NumberInput
      size="xs"
      label={label}
      min={least}
      max={most}
      step={step}
      value={value}
      onChange={(v) => Number(v) >= least && Number(v) <= most && onChange(set(Number(v)))}
    />
  )
  return (
    <Popover width={330} position="bottom-end" withinPortal={false}>
      <Popover.Target>
        <Button size="compact-sm" variant="default" leftSection={<IconAdjustments size={15} />}>
          {t('teach.options')}
        </Button>
      </Popover.Target>
      <Popover.Dropdown className="lesson-options">
        <div className="speech-options">
          <Select
            size="xs"
            label={t('teach.unit')}
            value={settings.unit}
            onChange={(v) => v && onChange({ ...settings, unit: v as LessonSettings['unit'] })}
            data={UNITS.map((value) => ({ value, label: t(`teach.units.${value}`) }))}
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
          />
          <Select
            size="xs"
            label={t('teach.joining')}
            value={settings.joining}
            onChange={(v) => v && onChange({ ...settings, joining: v as LessonSettings['joining'] })}
            data={(['each', 'end'] as const).map((value) => ({ value, label: t(`teach.joinings.${value}`) }))}
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
          />
          {number(t('teach.startShare'), Math.round(way.startShare * 100), 30, 100, 5, (n) => ({
            ...settings,
            way: { ...way, startShare: n / 100 },
          }))}
          {number(t('teach.clean'), way.clean, 1, 10, 1, (n) => ({ ...settings, way: { ...way, clean: n } }))}
          {number(t('teach.tries'), way.tries, 1, 10, 1, (n) => ({ ...settings, way: { ...way, tries: n } }))}
          {number(t('lesson.minutes'), settings.minutes, 5, 120, 5, (n) => ({ ...settings, minutes: n }))}
        </div>
        <SpeechOptions settings={settings} onChange={onChange} />
      </Popover.Dropdown>
    </Popover>
  )
}
