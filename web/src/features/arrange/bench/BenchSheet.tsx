import { memo, useMemo } from 'react'
import type { usePlaying } from '../../../score/playback/usePlaying.ts'
import { Sheet } from '../../../score/sheet/Sheet.tsx'
import type { SheetWriting } from '../../../score/sheet/selection.ts'
import type { SheetModel, SheetPosition } from '../../../score/sheet/sheetModel.ts'
import type { Lit } from '../../../score/sheet/TabLayer.tsx'
import { usePrefs } from '../../../state/prefs.ts'
import { useBench, useSetBench } from './BenchContext.ts'
import { BesideSheet } from './BesideSheet.tsx'
import type { BesidePage } from './useBesidePage.ts'

const Page = memo(Sheet)

interface Props {
  readonly model: SheetModel
  readonly position: SheetPosition | undefined
  readonly cursor: ReturnType<typeof usePlaying>['cursor']
  readonly lit: Lit
  /** Present while the sheet is written on. */
  readonly writing: SheetWriting | undefined
  readonly beside: BesidePage | undefined
}

/** The sheet of the bench, alone or beside a kept version. */
export function BenchSheet({ model, position, cursor, lit, writing, beside }: Props) {
  const { sheet } = usePrefs()
  const marked = useBench((s) => s.marked)
  const heard = useBench((s) => s.heard)
  const onPosition = useSetBench('position')
  const onMark = useSetBench('marked')
  const onHear = useSetBench('heard')
  const setBeside = useSetBench('beside')
  // Side by side, both have the same measures on a line.
  const perLine = beside ? sheet.perLine || 1 : sheet.perLine
  const runsOn = sheet.layout === 'line' && !beside
  const view = useMemo(() => ({ perLine, runsOn, zoom: sheet.zoom / 100 }), [perLine, runsOn, sheet.zoom])
  const selection = useMemo(
    () => ({ position, onPosition, marked, onMark }),
    [position, onPosition, marked, onMark],
  )
  const page = (
    <Page
      model={model}
      layers={sheet}
      view={view}
      selection={selection}
      cursor={beside && heard === 'version' ? undefined : cursor}
      lit={lit}
      writing={writing}
    />
  )
  if (!beside) return page
  return (
    <BesideSheet
      version={beside.version}
      changes={new Set([...beside.changed, ...beside.lit.changed]).size}
      heard={heard}
      onHear={onHear}
      onClose={() => setBeside(undefined)}
      bench={page}
      kept={
        <Page
          model={beside.model}
          layers={sheet}
          view={view}
          cursor={heard === 'version' ? cursor : undefined}
          lit={beside.lit}
        />
      }
    />
  )
}
