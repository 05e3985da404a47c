import { currentPrefs, GUIDE_STATES, setPrefs, usePrefs, type GuideStep } from './prefs.ts'

/** The step to be taken next, or `done`; undefined where the first steps are not shown. */
export function useGuide(): GuideStep | 'done' | undefined {
  const { guide } = usePrefs()
  return guide === 'unseen' || guide === 'ended' ? undefined : guide
}

/** Begins the first steps where they were never seen. */
export function beginGuide(): void {
  if (currentPrefs().guide === 'unseen') setPrefs({ guide: 'bring' })
}

/** Shows the first steps again, from the first one. */
export const callGuide = (): void => setPrefs({ guide: 'bring' })

export const endGuide = (): void => setPrefs({ guide: 'ended' })

/** Notes that a step was taken: the next one is lit. A step that is behind already lights nothing. */
export function guideTook(step: GuideStep): void {
  const { guide } = currentPrefs()
  const [at, taken] = [GUIDE_STATES.indexOf(guide), GUIDE_STATES.indexOf(step)]
  if (guide !== 'unseen' && guide !== 'ended' && taken >= at) setPrefs({ guide: GUIDE_STATES[taken + 1]! })
}
