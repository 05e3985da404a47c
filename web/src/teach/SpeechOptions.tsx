import { Select } from '@mantine/core'
import { LANGUAGES, NOTE_NAMINGS, type LessonSettings, type Speech } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'

/** How a lesson speaks: language, length, fingers, note names. */
export function SpeechOptions({
  settings,
  onChange,
}: {
  settings: LessonSettings
  onChange: (settings: LessonSettings) => void
}) {
  const { t } = useTranslation()
  const speak = (part: Partial<Speech>) => onChange({ ...settings, speech: { ...settings.speech, ...part } })
  return (
    <div className="speech-options">
      <Select
        size="xs"
        label={t('lesson.language')}
        value={settings.speech.language}
        onChange={(v) => v && speak({ language: v as Speech['language'] })}
        data={LANGUAGES.map((value) => ({ value, label: t(`lesson.languages.${value}`) }))}
        allowDeselect={false}
        comboboxProps={{ withinPortal: false }}
      />
      <Select
        size="xs"
        label={t('lesson.length')}
        value={settings.speech.length}
        onChange={(v) => v && speak({ length: v as Speech['length'] })}
        data={(['full', 'short'] as const).map((value) => ({ value, label: t(`lesson.lengths.${value}`) }))}
        allowDeselect={false}
        comboboxProps={{ withinPortal: false }}
      />
      <Select
        size="xs"
        label={t('lesson.fingers')}
        value={settings.speech.fingers}
        onChange={(v) => v && speak({ fingers: v as Speech['fingers'] })}
        data={(['names', 'numbers'] as const).map((value) => ({
          value,
          label: t(`lesson.fingerNames.${value}`),
        }))}
        allowDeselect={false}
        comboboxProps={{ withinPortal: false }}
      />
      <Select
        size="xs"
        label={t('lesson.names')}
        value={settings.names}
        onChange={(v) => v && onChange({ ...settings, names: v as LessonSettings['names'] })}
        data={(['none', ...NOTE_NAMINGS] as const).map((value) => ({
          value,
          label: t(`lesson.noteNames.${value}`),
        }))}
        allowDeselect={false}
        comboboxProps={{ withinPortal: false }}
      />
    </div>
  )
}
