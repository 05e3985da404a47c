import { countText, stepSentences, type Lesson } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import css from './StepView.module.css'

/** One step large: its measure, its count, what is done in words. */
export function StepView({ lesson, index }: { lesson: Lesson; index: number }) {
  const { t } = useTranslation()
  const { steps, script, phrasing, nameOf } = lesson
  const step = steps[index]!
  const own = script.find((s) => s.measure === step.measure)
  return (
    <section
      className={css['teach-step']}
      tabIndex={0}
      aria-label={t('teach.stepsOf')}
      aria-live="polite"
      data-testid="step"
    >
      <div className={css['teach-where']}>
        <h2>{own?.title}</h2>
        <span>{t('teach.where', { step: index + 1, count: steps.length })}</span>
      </div>
      <div className={css['teach-count']} data-testid="count">
        {countText(step.count, phrasing.words)}
      </div>
      <ul>
        {stepSentences(step, phrasing.words, nameOf).map((s) => (
          <li key={s}>{s}.</li>
        ))}
      </ul>
      {own?.silent ? <p className="soft">{own.silent}.</p> : null}
    </section>
  )
}
