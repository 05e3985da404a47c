import { fretsText } from '@velvet-porch/core/chords'
import type { Habit, TasteFeature, TasteShape } from '@velvet-porch/core/document'
import type { Case, TasteSays, TasteScope } from '@velvet-porch/core/taste'
import type { TFunction } from 'i18next'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'

/** Strengths of a price, as somebody chooses them. */
export const STRENGTHS = { mild: 1.5, clear: 3, strong: 6 } as const
export type Strength = keyof typeof STRENGTHS

/** The nearest strength of a price, whichever way it goes. */
export const strengthOf = (price: number): Strength => {
  const size = Math.abs(price)
  return size < 2.2 ? 'mild' : size < 4.5 ? 'clear' : 'strong'
}

/** The fingers of a shape as a teacher says them, from the lowest string: 3-2-4. */
const fingersText = ({ fingers }: TasteShape): string =>
  fingers
    .filter((f) => f !== 0)
    .reverse()
    .join('-')

/** A habit in the words of its setting. */
function habitWords(t: TFunction, { key, value }: Habit): { what: string; choice: string } {
  const choice = {
    picking: () => t(`school.pickings.${value as 'flatPick'}`),
    strokes: () => t(`school.strokeRules.${value as 'byBeat'}`),
    root: () => t(`school.roots.${value as 'always'}`),
    repeats: () => t(`school.repeatRules.${value as 'alike'}`),
    hand: () => t(`school.hands.${value as 'free'}`),
    harmony: () => t(`school.sides.${value as 'below'}`),
    runs: () => t(`school.runRules.${value as 'never'}`),
    liftOff: () => t(`school.liftRules.${value as 'never'}`),
    ornament: () => t(`ornament.short.${value as 0}`),
  }[key]()
  return { what: key === 'ornament' ? t('taste.ornaments') : t(`school.${key}`), choice }
}

/** Most cases that are named. */
const NAMED = 4

/** A taste in words. */
export function useTasteWords() {
  const { t } = useTranslation()
  return useMemo(
    () => ({
      feature: (feature: TasteFeature, wanted: boolean) =>
        wanted ? t(`taste.wanted.${feature}`) : t(`taste.avoided.${feature}`),
      says: (says: TasteSays): string =>
        says.kind === 'habit'
          ? t('taste.habit', habitWords(t, says.habit))
          : says.kind === 'price'
            ? says.price < 0
              ? t(`taste.wanted.${says.feature}`)
              : t(`taste.avoided.${says.feature}`)
            : t('taste.shape', {
                chord: says.shape.chord,
                fingers: fingersText(says.shape),
                frets: fretsText(says.shape.frets),
              }),
      scope: (scope: TasteScope) =>
        scope.kind === 'always'
          ? t('taste.scope.always')
          : t(`taste.scope.${scope.kind}`, { name: scope.name }),
      /** Where it was chosen: a tune with its measures, and the next. */
      cases: (cases: readonly Case[]) => {
        const tunes = new Map<string, { title: string; measures: number[] }>()
        for (const { tune, title, measure } of cases) {
          const own = tunes.get(tune) ?? { title, measures: [] }
          own.measures.push(measure)
          tunes.set(tune, own)
        }
        const all = [...tunes.values()].map(({ title, measures }) =>
          t('taste.case', { title, list: [...new Set(measures)].join(', '), count: measures.length }),
        )
        const more = all.length - NAMED
        return all.slice(0, NAMED).join('; ') + (more > 0 ? ` ${t('taste.moreCases', { count: more })}` : '')
      },
    }),
    [t],
  )
}
