import { useElementSize, useMergedRef } from '@mantine/hooks'
import { Fragment, useCallback, useEffect, useRef, type ReactNode, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetModel, SheetPosition } from './sheetModel.ts'
import { SpokenPosition } from './SpokenPosition.tsx'
import { SystemView, type Clicked } from './SystemView.tsx'
import type { Lit, TabLayers } from './TabLayer.tsx'
import css from './Sheet.module.css'
import type { SheetSelection, SheetView, SheetWriting } from './selection.ts'
import { nearestPosition, sheetKeys } from './sheetKeys.ts'
import { useSystems } from './useSystems.ts'
import { usePlayCursor, type MoveCursor } from './usePlayCursor.ts'

interface Props {
  readonly model: SheetModel
  readonly layers: TabLayers
  readonly selection?: SheetSelection
  readonly cursor?: MoveCursor | undefined
  readonly view?: SheetView
  readonly lit?: Lit | undefined
  /** Present while the sheet is written on. */
  readonly writing?: SheetWriting | undefined
  /** What stands beneath each system, by the indexes of its first and last measure. */
  readonly under?: ((from: number, to: number) => ReactNode) | undefined
}

const AS_DESIGNED: SheetView = {}

const NOTHING = () => undefined
const NOTHING_CHOSEN: SheetSelection = {}

/** The score page: systems on paper, walked by keys, clicked by mouse, followed by the play cursor. */
export function Sheet({
  model,
  layers,
  selection = NOTHING_CHOSEN,
  cursor,
  view = AS_DESIGNED,
  lit,
  writing,
  under,
}: Props) {
  const { t } = useTranslation()
  const { position, onPosition, marked, onMark } = selection
  const { printing = false, runsOn = false, zoom = 1 } = view
  const root = useRef<HTMLDivElement>(null)
  const { ref: sizeRef, width } = useElementSize<HTMLDivElement>()
  const ref = useMergedRef(root, sizeRef)
  const { systems, pages } = useSystems(model, layers, width, view, lit)
  const systemOf = useCallback(
    (measure: number) => systems.findIndex((s) => measure <= s.measures.at(-1)!.index),
    [systems],
  )
  const onCell = writing?.onCell
  const pick = useCallback(
    (next: SheetPosition, extend: boolean, at?: Clicked) => {
      if (extend && onMark) {
        const anchor = position?.measure ?? next.measure
        onMark({ from: Math.min(anchor, next.measure), to: Math.max(anchor, next.measure) })
      } else if (onCell && at) {
        onMark?.(undefined)
        onCell({ ...next, string: at.string }, at.stepsBelow)
      } else onPosition?.(nearestPosition(model, next))
    },
    [model, onCell, onMark, onPosition, position],
  )
  const steadyPick = useSteady(pick)
  usePlayCursor(root, model, systems, systemOf, zoom, cursor)
  useKeepInView(root, position, systemOf)
  const onKey = sheetKeys({ model, selection, writing, systems, systemOf, pick })
  return (
    <div
      className={printing ? undefined : runsOn ? `sheet ${css['runs-on']}` : 'sheet'}
      tabIndex={onPosition ? 0 : undefined}
      role="group"
      data-sheet
      aria-label={t('sheet.label', { title: model.tune.title })}
      aria-describedby={onPosition ? 'sheet-help' : undefined}
      onKeyDown={onPosition ? onKey : undefined}
    >
      {onPosition ? (
        <span id="sheet-help" hidden>
          {t('sheet.help')}
        </span>
      ) : null}
      <div ref={ref} className={css.systems} style={zoom === 1 ? undefined : { zoom }} data-testid="systems">
        {pages.map((page) => {
          const { system } = page
          const [first, last] = [system.measures[0]!.index, system.measures.at(-1)!.index]
          const holds = (measure: number) => measure >= first && measure <= last
          return (
            <Fragment key={system.index}>
              <SystemView
                page={page}
                zoom={zoom}
                always={printing}
                position={position && holds(position.measure) ? position : undefined}
                marked={
                  marked && marked.from <= last && marked.to >= first ? `${marked.from}-${marked.to}` : ''
                }
                onPick={onPosition ? steadyPick : NOTHING}
                step={writing?.step}
                cell={writing?.cell && holds(writing.cell.measure) ? writing.cell : undefined}
              />
              {under?.(first, last)}
            </Fragment>
          )
        })}
        <div
          className={css['play-cursor']}
          data-testid="play-cursor"
          style={{ position: 'absolute', width: 2, display: 'none', background: 'var(--rust)' }}
        />
      </div>
      {onPosition ? <SpokenPosition model={model} position={position} cell={writing?.cell} /> : null}
    </div>
  )
}

/** A function that stays the same one, and does what the latest one does. */
function useSteady<A extends unknown[]>(latest: (...args: A) => void): (...args: A) => void {
  const ref = useRef(latest)
  useEffect(() => {
    ref.current = latest
  })
  return useCallback((...args: A) => ref.current(...args), [])
}

function useKeepInView(
  root: RefObject<HTMLDivElement | null>,
  position: SheetPosition | undefined,
  systemOf: (m: number) => number,
): void {
  const index = position ? systemOf(position.measure) : -1
  const first = useRef(true)
  useEffect(() => {
    if (first.current) {
      first.current = false
      return
    }
    root.current
      ?.querySelector(`[data-system="${index}"]`)
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [root, index])
}
