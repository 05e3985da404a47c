import { Button, CloseButton, Group } from '@mantine/core'
import { countText, stepSentences, type Lesson, type LessonStep } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import css from './StepView.module.css'

/** More letters than these are set smaller, so that all of them are in view. */
const MANY = 140

/** One step large: its measure, its count, what is done in words. */
export function StepView({
  lesson,
  index,
  beats,
  onBounds,
}: {
  lesson: Lesson
  index: number
  /** The first and the last beat that the lesson is kept to; absent where it is the whole tune. */
  beats: { readonly from: LessonStep; readonly to: LessonStep } | undefined
  /** The lesson begins or ends at the beat that is shown, or goes over the whole tune again. */
  onBounds: (change: 'from' | 'to' | 'whole') => void
}) {
  const { t } = useTranslation()
  const { steps, script, phrasing, nameOf } = lesson
  const step = steps[index]!
  const sentences = stepSentences(step, phrasing.words, nameOf)
  const count = countText(step.count, phrasing.words)
  const own = script.find((s) => s.measure === step.measure && s.pass === step.pass)
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
        <Group gap={4}>
          <Button size="compact-xs" variant="default" onClick={() => onBounds('from')}>
            {t('teach.bounds.from')}
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => onBounds('to')}>
            {t('teach.bounds.to')}
          </Button>
          {beats ? (
            <>
              <span data-testid="bounds">
                {t('teach.bounds.said', {
                  from: phrasing.numbers[beats.from.measure]!,
                  fromBeat: beats.from.count.beat,
                  to: phrasing.numbers[beats.to.measure]!,
                  toBeat: beats.to.count.beat,
                })}
              </span>
              <CloseButton size="xs" aria-label={t('teach.bounds.whole')} onClick={() => onBounds('whole')} />
            </>
          ) : null}
        </Group>
      </div>
      <div className={css['teach-said']}>
        <div className={css['teach-count']} data-testid="count" data-long={count.length > 2 || undefined}>
          {count}
        </div>
        <ul data-many={sentences.join('').length > MANY || undefined}>
          {sentences.map((s) => (
            <li key={s}>{s}.</li>
          ))}
        </ul>
      </div>
      {own?.silent ? <p className="soft">{own.silent}.</p> : null}
    </section>
  )
}
