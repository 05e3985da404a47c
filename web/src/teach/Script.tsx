import type { LessonStep, MeasureScript } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'

/** The whole lesson to scroll through; a line leads to its step. */
export function Script({
  script,
  steps,
  index,
  onStep,
}: {
  script: readonly MeasureScript[]
  steps: readonly LessonStep[]
  index: number
  onStep: (index: number) => void
}) {
  const { t } = useTranslation()
  return (
    <div
      className="teach-script"
      data-testid="script"
      tabIndex={0}
      role="region"
      aria-label={t('teach.script')}
    >
      {script.map(({ measure, title, silent, lines }) => {
        const first = steps.findIndex((s) => s.measure === measure)
        return (
          <section key={measure}>
            <h2>{title}</h2>
            {silent ? <p className="soft">{silent}.</p> : null}
            <ol>
              {lines.map((line, i) => (
                <li key={i}>
                  <button
                    type="button"
                    aria-current={first + i === index ? 'step' : undefined}
                    onClick={() => onStep(first + i)}
                  >
                    {line}
                  </button>
                </li>
              ))}
            </ol>
          </section>
        )
      })}
    </div>
  )
}
