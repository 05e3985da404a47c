import { Button, Group } from '@mantine/core'
import {
  cautionWords,
  fill,
  knownIn,
  lessonPlan,
  planText,
  recipeIn,
  toLearnIn,
  type Lesson,
  type LearningStep,
} from '@velvet-porch/core/lesson'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import lessonCss from './lesson.module.css'
import css from './PlanView.module.css'

/** Lessons of some minutes, one after the other, until the tune is learnt; and what to take care of. */
export function PlanView({ lesson, onStep }: { lesson: Lesson; onStep: (step: LearningStep) => void }) {
  const { t } = useTranslation()
  const [from, setFrom] = useState<readonly number[]>([])
  const { phrasing, settings, student } = lesson
  const order = toLearnIn(lesson)
  const known = knownIn(lesson)
  const at = from.at(-1) ?? 0
  const { items, next } = lessonPlan(order, (piece) => recipeIn(lesson, piece), settings.minutes, at)
  return (
    <div className={lessonCss['teach-view']} data-testid="plan">
      <h2>{t('teach.planOf', { number: from.length + 1, minutes: settings.minutes })}</h2>
      {student ? (
        <p className="soft" data-testid="known">
          {known.length > 0
            ? t('teach.known', { list: known.map((p) => p.number).join(', ') })
            : t('teach.noneKnown')}
          {student.tries === undefined ? '' : ` ${t('teach.triesTold', { n: student.tries })}`}
        </p>
      ) : null}
      <ol className={`${lessonCss['teach-list']} ${css['teach-plan']}`}>
        {items.map((item, i) => (
          <li key={i}>
            {item.what.kind === 'warmUp' || item.what.kind === 'rest' || item.what.kind === 'again' ? (
              <span>{planText(item, phrasing)}</span>
            ) : (
              <button type="button" onClick={() => onStep(item.what as LearningStep)}>
                {planText(item, phrasing)}
              </button>
            )}
            <span className="soft">{fill(phrasing.paper.learn.minutes, { n: item.minutes })}</span>
          </li>
        ))}
      </ol>
      <Group gap={8}>
        <Button
          size="compact-sm"
          variant="default"
          disabled={from.length === 0}
          onClick={() => setFrom(from.slice(0, -1))}
        >
          {t('teach.lessonBefore')}
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          disabled={next >= order.length}
          // A piece that is longer than a lesson is gone on with.
          onClick={() => setFrom([...from, Math.max(next, at + 1)])}
        >
          {t('teach.lessonAfter')}
        </Button>
      </Group>
      <ul className={css['teach-care']}>
        {cautionWords(lesson).map((text) => (
          <li key={text}>{text}.</li>
        ))}
      </ul>
    </div>
  )
}
