import { Button, Group } from '@mantine/core'
import type { TasteFeature } from '@velvet-porch/core/document'
import type { TasteDoc } from '@velvet-porch/core/taste'
import { useTranslation } from 'react-i18next'
import { changeTaste } from '../../state/tastes.ts'
import { fitInWorker } from '../../workers/benchWorker.ts'
import { useAnswer } from '../../workers/useAnswer.ts'
import { useTasteWords } from './useTasteWords.ts'

/** How sure a price is, from its size over its deviation. */
const surenessOf = (sure: number) => (sure > 4 ? 'very' : sure > 2.5 ? 'quite' : 'fairly')

/** The corrections that a taste was learned from, what they come to, and that they can be forgotten. */
export function Learned({ taste }: { taste: TasteDoc }) {
  const { t } = useTranslation()
  const words = useTasteWords()
  const { comparisons, declined } = taste
  const { answer: fit } = useAnswer('tasteFit', fitInWorker, [comparisons] as const)
  const ways = comparisons.filter((c) => c.kind === 'way').length
  const made = Object.entries(fit?.prices ?? {}).map(([feature, price]) =>
    t('taste.sure', {
      what: words.feature(feature as TasteFeature, price < 0),
      sure: t(`taste.sureness.${surenessOf(fit?.sureness[feature as TasteFeature] ?? 0)}`),
    }),
  )
  return (
    <section data-testid="taste-learned">
      <h2>{t('taste.learned')}</h2>
      <p>{t('taste.learnedCount', { count: comparisons.length })}</p>
      {fit && (ways > 0 || made.length > 0) ? (
        <p className="soft">
          {made.length > 0 ? t('taste.madeOf', { list: made.join('; ') }) : t('taste.madeNothing')}{' '}
          {ways > 0 ? t('taste.agrees', { house: fit.agrees.house, own: fit.agrees.taste, all: ways }) : ''}
        </p>
      ) : null}
      <Group gap="xs">
        {comparisons.length > 0 ? (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => void changeTaste(taste.id, (doc) => ({ ...doc, comparisons: [] }))}
          >
            {t('taste.forgetAll')}
          </Button>
        ) : null}
        {declined.length > 0 ? (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => void changeTaste(taste.id, (doc) => ({ ...doc, declined: [] }))}
          >
            {t('taste.declined')}
          </Button>
        ) : null}
      </Group>
    </section>
  )
}
