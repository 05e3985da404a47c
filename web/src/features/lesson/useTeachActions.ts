import type { LessonStep } from '@velvet-porch/core/lesson'
import { useCallback, useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useActions } from '../../state/actions.ts'

/** Offers the lesson by key, as a pedal would send them; gives back what goes on or back by steps. */
export function useTeachActions(
  steps: readonly LessonStep[],
  index: number,
  setIndex: (next: (now: number) => number) => void,
  toggle: () => void,
  toScript: () => void,
  /** The first and the last step that the lesson is kept to. */
  [first, last]: readonly [number, number],
): (by: 1 | -1) => void {
  const { t } = useTranslation()
  const go = useCallback(
    (by: 1 | -1) => setIndex((now) => Math.max(first, Math.min(last, Math.min(now, last) + by))),
    [setIndex, first, last],
  )
  const measure = steps[index]?.measure ?? 0
  useActions(
    useMemo(() => {
      const toMeasure = (by: 1 | -1) => () => {
        const first =
          by > 0
            ? steps.findIndex((s) => s.measure > measure)
            : steps.findIndex((s) => s.measure === steps.findLast((x) => x.measure < measure)?.measure)
        if (first >= 0) setIndex(() => first)
      }
      return [
        { id: 'teach.next', label: t('teach.keys.next'), keys: 'PageDown', run: () => go(1) },
        { id: 'teach.back', label: t('teach.keys.back'), keys: 'PageUp', run: () => go(-1) },
        { id: 'teach.nextByArrow', label: t('teach.keys.next'), keys: 'ArrowRight', run: () => go(1) },
        { id: 'teach.backByArrow', label: t('teach.keys.back'), keys: 'ArrowLeft', run: () => go(-1) },
        {
          id: 'teach.nextMeasure',
          label: t('teach.keys.nextMeasure'),
          keys: 'Shift+ArrowRight',
          run: toMeasure(1),
        },
        {
          id: 'teach.lastMeasure',
          label: t('teach.keys.lastMeasure'),
          keys: 'Shift+ArrowLeft',
          run: toMeasure(-1),
        },
        { id: 'teach.play', label: t('teach.hear'), keys: 'Space', run: toggle },
        { id: 'teach.script', label: t('teach.keys.script'), keys: 'S', run: toScript },
      ]
    }, [t, steps, measure, go, setIndex, toggle, toScript]),
  )
  return go
}
