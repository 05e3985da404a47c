import type { Change } from '@velvet-porch/core/arrange'
import { useCallback } from 'react'
import { useTranslation } from 'react-i18next'

/** What a version does otherwise, in words. */
export function useChangeWords(): (changes: readonly Change[]) => string {
  const { t } = useTranslation()
  return useCallback(
    (changes) =>
      changes
        .map((c) => {
          if (c.kind === 'level') return t('easier.changes.level', { level: c.level })
          if (c.kind === 'ornament') return t(`easier.changes.ornament${c.ornament as 2 | 3}`)
          if (c.kind === 'octave') return t(`easier.changes.octave${c.octave > 0 ? 'Up' : 'Down'}`)
          return t(`easier.changes.${c.kind}`)
        })
        .join(', '),
    [t],
  )
}
