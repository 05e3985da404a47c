import type { TFunction } from 'i18next'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { clipOf, type Clip, type EditCommand } from '@velvet-porch/core/edit'
import type { MarkedMeasures } from '../sheet/selection.ts'
import type { Action } from '../../state/actions.ts'
import { hold } from './clipboard.ts'

/** Measures by key, in tab and staff alike. */
export function measureActions(
  t: TFunction,
  tune: TuneDoc,
  doc: ArrangementDoc | undefined,
  range: MarkedMeasures | undefined,
  run: (edit: EditCommand) => Promise<boolean>,
  held: Clip | undefined,
): Action[] {
  if (!range) return []
  const { from, to } = range
  const count = to - from + 1
  const copy = () => hold(clipOf({ tune, ...(doc ? { arrangement: doc } : {}) }, from, to))
  const paste = held ? () => void run({ do: 'paste', before: to + 1, clip: held }) : undefined
  return [
    {
      id: 'write.insert',
      label: t('write.measures.after'),
      keys: 'Insert',
      run: () => void run({ do: 'insert', before: to + 1, count: 1 }),
    },
    { id: 'write.copy', label: t('write.measures.copy', { count }), keys: 'Mod+C', run: copy },
    {
      id: 'write.cut',
      label: t('write.measures.delete', { count }),
      keys: 'Mod+X',
      run: () => {
        copy()
        void run({ do: 'delete', from, to })
      },
    },
    ...(paste
      ? [{ id: 'write.paste', label: t('write.measures.pasteAfter'), keys: 'Mod+V', run: paste }]
      : []),
    ...(from > 0
      ? [
          {
            id: 'write.earlier',
            label: t('write.measures.earlier'),
            keys: 'Mod+Shift+ArrowLeft',
            run: () => void run({ do: 'move', from, to, before: from - 1 }),
          },
        ]
      : []),
    ...(to + 1 < tune.measures.length
      ? [
          {
            id: 'write.later',
            label: t('write.measures.later'),
            keys: 'Mod+Shift+ArrowRight',
            run: () => void run({ do: 'move', from, to, before: to + 2 }),
          },
        ]
      : []),
  ]
}
