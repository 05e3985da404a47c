import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useActions } from '../../state/actions.ts'
import { step } from '../../state/documents.ts'

/** Offers what can be done with a tune in the palette and by key. */
export function useTuneActions(tuneId: string, toggle: () => void): void {
  const { t } = useTranslation()
  useActions(
    useMemo(
      () => [
        {
          id: 'undo',
          label: t('arrange.undo', { label: t('tune.text') }),
          keys: 'Mod+Z',
          writes: true,
          run: () => void step(tuneId, 'undo'),
        },
        { id: 'write', label: t('write.openHint'), keys: 'W', writes: true, run: toggle },
        {
          id: 'redo',
          label: t('arrange.redo', { label: t('tune.text') }),
          keys: 'Mod+Shift+Z',
          writes: true,
          run: () => void step(tuneId, 'redo'),
        },
      ],
      [t, tuneId, toggle],
    ),
  )
}
