import { LANGUAGES } from '@velvet-porch/core/messages'
import { NOTE_NAMINGS } from '@velvet-porch/core/music'
import { ALONGSIDE, type LessonSettings, type Speech } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import { Choice } from './Choice.tsx'
import lessonCss from './lesson.module.css'

/** How a lesson speaks: language, length, fingers, note names. */
export function SpeechOptions({
  settings,
  onChange,
}: {
  settings: LessonSettings
  onChange: (settings: LessonSettings) => void
}) {
  const { t } = useTranslation()
  const { speech, names, alongside = 'none' } = settings
  const speak = (part: Partial<Speech>) => onChange({ ...settings, speech: { ...speech, ...part } })
  return (
    <div className={lessonCss['speech-options']}>
      <Choice
        label={t('lesson.language')}
        value={speech.language}
        options={LANGUAGES}
        nameOf={(v) => t(`lesson.languages.${v}`)}
        onChoice={(language) => speak({ language })}
      />
      <Choice
        label={t('lesson.length')}
        value={speech.length}
        options={['full', 'short'] as const}
        nameOf={(v) => t(`lesson.lengths.${v}`)}
        onChoice={(length) => speak({ length })}
      />
      <Choice
        label={t('lesson.fingers')}
        value={speech.fingers}
        options={['names', 'numbers'] as const}
        nameOf={(v) => t(`lesson.fingerNames.${v}`)}
        onChoice={(fingers) => speak({ fingers })}
      />
      <Choice
        label={t('lesson.names')}
        value={names}
        options={['none', ...NOTE_NAMINGS] as const}
        nameOf={(v) => t(`lesson.noteNames.${v}`)}
        onChoice={(next) => onChange({ ...settings, names: next })}
      />
      <Choice
        label={t('lesson.alongside')}
        value={alongside}
        options={ALONGSIDE}
        nameOf={(v) => t(`lesson.alongsides.${v}`)}
        onChoice={(next) => onChange({ ...settings, alongside: next })}
      />
    </div>
  )
}
