import type { ArrangementDoc } from '@velvet-porch/core/document'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { useActions } from '../../state/actions.ts'
import { step } from '../../state/documents.ts'
import type { BenchArranger } from './useArranger.ts'

/** Offers what can be done on the bench in the palette and by key. */
export function useArrangeActions(
  tuneId: string,
  arranger: BenchArranger,
  doc: ArrangementDoc | null | undefined,
  togglePlay: () => void,
  compare: (() => void) | undefined,
  write: (() => void) | undefined,
): void {
  const { t } = useTranslation()
  const go = useNavigate()
  const { again } = arranger
  const hasDoc = Boolean(doc)
  useActions(
    useMemo(
      () => [
        { id: 'play', label: t('play.play'), keys: 'Space', run: togglePlay },
        {
          id: 'undo',
          label: t('arrange.undo', { label: '' }).replace(/: $/, ''),
          keys: 'Mod+Z',
          writes: true,
          run: () => void step(tuneId, 'undo'),
        },
        {
          id: 'redo',
          label: t('arrange.redo', { label: '' }).replace(/: $/, ''),
          keys: 'Mod+Shift+Z',
          writes: true,
          run: () => void step(tuneId, 'redo'),
        },
        ...(compare ? [{ id: 'compare', label: t('arrange.compare.action'), keys: 'B', run: compare }] : []),
        ...(write
          ? [{ id: 'write', label: t('write.openHint'), keys: 'W', writes: true as const, run: write }]
          : []),
        { id: 'tune', label: t('rail.tune'), keys: 'T', run: () => void go(`/tunes/${tuneId}/tune`) },
        ...(hasDoc
          ? [
              { id: 'again', label: t('arrange.again'), writes: true as const, run: () => void again() },
              {
                id: 'print',
                label: t('arrange.print'),
                keys: 'Mod+P',
                run: () => void go(`/tunes/${tuneId}/print`),
              },
            ]
          : []),
      ],
      [t, go, tuneId, togglePlay, again, hasDoc, compare, write],
    ),
  )
}
