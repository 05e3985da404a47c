import { Button } from '@mantine/core'
import { IconCheck } from '@tabler/icons-react'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { useLocation, useNavigate, useParams } from 'react-router'
import { endGuide, guideTook, useGuide } from '../../state/guide.ts'
import { useOpenScore } from '../../state/openScore.ts'
import { GUIDE_STEPS } from '../../state/prefs.ts'
import { placeOf } from '../rail/places.ts'
import css from './Guide.module.css'

/** The first steps, in a line over the stage: which is next, and what to press for it, which is lit on the page. */
export function Guide() {
  const { t } = useTranslation()
  const step = useGuide()
  const { id } = useParams()
  const { pathname } = useLocation()
  const go = useNavigate()
  // Who has ended them is not drawn anew with every note that is written.
  const score = useOpenScore(step ? id : undefined)
  const [tune, tab] = [score?.tune !== undefined, score?.arrangement !== undefined]
  useEffect(() => {
    if (step && tune) guideTook('bring')
    if (step && tab) guideTook('tab')
  }, [step, tune, tab])
  useEffect(() => {
    // What is to be pressed next stands out by this.
    if (step) document.documentElement.dataset['guideStep'] = step
    return () => {
      delete document.documentElement.dataset['guideStep']
    }
  }, [step])
  if (!step) return null
  const at = step === 'done' ? GUIDE_STEPS.length : GUIDE_STEPS.indexOf(step)
  const place = placeOf(pathname)
  const away = step === 'bring' ? place !== 'shelf' : step !== 'done' && id === undefined
  const end = () => {
    endGuide()
    // What was pressed is gone: the keyboard goes on from the stage.
    document.getElementById('stage')?.focus()
  }
  return (
    <aside className={`${css.guide} no-print`} aria-label={t('guide.title')} data-testid="guide">
      <ol className={css.steps}>
        {GUIDE_STEPS.map((s, i) => (
          <li key={s} aria-current={s === step ? 'step' : undefined} data-taken={i < at || undefined}>
            <span className={css.number} aria-hidden>
              {i < at ? <IconCheck size={13} stroke={3} /> : i + 1}
            </span>
            {t(`guide.step.${s}`)}
          </li>
        ))}
      </ol>
      <p role="status">
        {t(
          away
            ? 'guide.toShelf'
            : step === 'print' && place === 'handout'
              ? 'guide.say.printHere'
              : `guide.say.${step}`,
        )}
      </p>
      {away ? (
        <Button size="compact-sm" onClick={() => void go('/')}>
          {t('rail.shelf')}
        </Button>
      ) : null}
      <Button size="compact-sm" variant="default" onClick={end}>
        {t('guide.end')}
      </Button>
    </aside>
  )
}
