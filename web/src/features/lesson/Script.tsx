import type { MeasureScript } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import css from './Script.module.css'

/** The whole lesson to scroll through; a line leads to its step. */
export function Script({
  script,
  index,
  onStep,
}: {
  script: readonly MeasureScript[]
  index: number
  onStep: (index: number) => void
}) {
  const { t } = useTranslation()
  return (
    <div
      className={css['teach-script']}
      data-testid="script"
      tabIndex={0}
      role="region"
      aria-label={t('teach.script')}
    >
      {script.map(({ title, silent, lines }) => (
        <section key={title}>
          <h2>{title}</h2>
          {silent ? <p className="soft">{silent}.</p> : null}
          <ol>
            {lines.map(({ text, first, steps }) => (
              <li key={first}>
                <button
                  type="button"
                  aria-current={first <= index && index < first + steps ? 'step' : undefined}
                  onClick={() => onStep(first)}
                >
                  {text}
                </button>
              </li>
            ))}
          </ol>
        </section>
      ))}
    </div>
  )
}
