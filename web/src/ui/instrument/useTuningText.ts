import { tuningId, type InstrumentKind } from '@velvet-porch/core/instrument'
import type { Midi } from '@velvet-porch/core/music'
import { useCallback } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../names/useNames.ts'

/** A tuning by its name, or by its notes from the lowest string where it has none. */
export function useTuningText() {
  const { t } = useTranslation()
  const names = useNames()
  return useCallback(
    (kind: InstrumentKind, tuning: readonly Midi[]): string => {
      const id = tuningId(kind, tuning)
      return id
        ? t(`instrument.tunings.${id}`)
        : tuning
            .map((p) => names.pitch(p))
            .reverse()
            .join(' ')
    },
    [t, names],
  )
}
