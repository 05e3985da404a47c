import { Button, NumberInput, Popover } from '@mantine/core'
import { IconAdjustments } from '@tabler/icons-react'
import { UNITS, type LessonSettings } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import { holds } from '../../ui/holds.ts'
import { Choice } from './Choice.tsx'
import { SpeechOptions } from './SpeechOptions.tsx'
import lessonCss from './lesson.module.css'

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
        <Button
          size="compact-sm"
          variant="default"
          leftSection={<IconAdjustments size={15} />}
          {...holds([
            ...(['unit', 'joining', 'startShare', 'clean', 'tries'] as const).map((k) => t(`teach.${k}`)),
            ...(['minutes', 'language', 'length', 'fingers', 'names', 'alongside'] as const).map((k) =>
              t(`lesson.${k}`),
            ),
          ])}
        >
          {t('teach.options')}
        </Button>
      </Popover.Target>
      <Popover.Dropdown className="lesson-options">
        <div className={lessonCss['speech-options']}>
          <Choice
            label={t('teach.unit')}
            value={settings.unit}
            options={UNITS}
            nameOf={(v) => t(`teach.units.${v}`)}
            onChoice={(unit) => onChange({ ...settings, unit })}
          />
          <Choice
            label={t('teach.joining')}
            value={settings.joining}
            options={['each', 'end'] as const}
            nameOf={(v) => t(`teach.joinings.${v}`)}
            onChoice={(joining) => onChange({ ...settings, joining })}
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
