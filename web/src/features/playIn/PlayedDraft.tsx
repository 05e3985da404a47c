import { measureNumbers, type Score } from '@velvet-porch/core/document'
import type { PlayedNote } from '@velvet-porch/core/input/audio'
import { keyIn, spellInKey, measureLength } from '@velvet-porch/core/music'
import { useTranslation } from 'react-i18next'
import { usePrefs } from '../../state/prefs.ts'
import { useNames } from '../../ui/names/useNames.ts'
import css from './playIn.module.css'

/** The notes of a draft, measure by measure; doubtful ones have a mark. */
export function PlayedDraft({ played, score }: { played: readonly PlayedNote[]; score: Score }) {
  const { t } = useTranslation()
  const names = useNames()
  const { naming } = usePrefs()
  const { tune, arrangement } = score
  const [first] = tune.measures
  if (!first) return null
  const nominal = measureLength(first.metre)
  const numbers = measureNumbers(tune.measures)
  const doubtful = played.filter((n) => n.isDoubtful).length
  return (
    <section aria-label={t('playIn.heardTitle')} data-testid="played">
      <p role="status">
        {t('playIn.heard', { count: played.length, key: keyIn(naming, first.key) })}{' '}
        {doubtful > 0 ? t('playIn.doubtful', { count: doubtful }) : t('playIn.noDoubt')}{' '}
        {arrangement ? t('playIn.withTab') : ''}
      </p>
      <ol className={css['played-measures']}>
        {tune.measures.map((m, i) => (
          <li key={m.id} value={numbers[i]}>
            {played
              .filter((n) => Math.floor(n.at / nominal) === i)
              .map((n) => (
                <span key={n.at} data-doubtful={n.isDoubtful || undefined}>
                  {names.note(spellInKey(n.midi, first.key))}
                  {n.isDoubtful ? '?' : ''}
                </span>
              ))}
          </li>
        ))}
      </ol>
    </section>
  )
}
