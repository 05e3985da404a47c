import type { TFunction } from 'i18next'
import { useCallbackRef, useElementSize } from '@mantine/hooks'
import { IconChevronDown } from '@tabler/icons-react'
import { USUAL_TEMPO } from '@velvet-porch/core/music'
import type { ArrangementDoc } from '@velvet-porch/core/document'
import { effortOf, tuneEffort, type MeasureEffort } from '@velvet-porch/core/hand'
import { isEqual } from 'es-toolkit'
import { memo, useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import { alongSeries } from '../../ui/alongSeries.ts'
import { TempoGoal } from './TempoGoal.tsx'
import css from './EffortRibbon.module.css'

/** Narrower cells show their height alone. */
const CELL_FOR_NUMBER_PX = 19

interface Props {
  readonly model: SheetModel
  readonly doc: ArrangementDoc | null
  readonly position: SheetPosition | undefined
  readonly onPosition: (position: SheetPosition) => void
}

/**
 * The tune's effort in one quiet line. It unfolds to one cell a measure: height and number for effort, a sign for its main part, a bar
 * over measures whose ceiling lies under the goal; click to go there.
 */
export function EffortRibbon({ model, doc, position, onPosition }: Props) {
  const efforts = useMemo(
    () => (model.layer && model.setup ? effortOf(model.tune, model.setup, model.layer, model.timeline) : []),
    [model],
  )
  const goal = doc?.goalBpm ?? model.tune.tempos[0]?.bpm ?? USUAL_TEMPO
  const { effortShown } = usePrefs()
  // The same function as long as the ribbon stands: the cells need not be made anew for it.
  const go = useCallbackRef((measure: number) =>
    onPosition(model.positions.find((s) => s.measure === measure) ?? { measure, tick: 0 }),
  )
  return (
    <>
      {doc && efforts.length > 0 ? (
        <EffortLine
          efforts={efforts}
          goal={goal}
          open={effortShown}
          onOpen={(open) => setPrefs({ effortShown: open })}
        />
      ) : null}
      {effortShown ? (
        <EffortCells
          efforts={efforts}
          numbers={model.numbers}
          goal={goal}
          chosen={position?.measure}
          onMeasure={go}
        />
      ) : null}
      {effortShown && doc && efforts.length > 0 ? (
        <Summary efforts={efforts} model={model} doc={doc} goal={goal} onMeasure={go} />
      ) : null}
    </>
  )
}

/** One cell a measure. */
function EffortCells({
  efforts,
  numbers,
  goal,
  chosen,
  onMeasure,
}: {
  readonly efforts: readonly MeasureEffort[]
  readonly numbers: readonly number[]
  readonly goal: number
  readonly chosen: number | undefined
  readonly onMeasure: (measure: number) => void
}) {
  const { t } = useTranslation()
  const { ref, width } = useElementSize<HTMLDivElement>()
  const most = Math.max(3, ...efforts.map((e) => e.effort))
  const numbered = width / Math.max(1, efforts.length) >= CELL_FOR_NUMBER_PX
  // One stop of the Tab key for all cells: the arrow keys go along them.
  const stop = efforts.find((e) => e.measure === chosen)?.measure ?? efforts[0]?.measure
  return (
    <div
      ref={ref}
      className="effort"
      role="group"
      aria-label={t('effort.label')}
      data-series
      onKeyDown={alongSeries}
    >
      {efforts.map((e) => (
        <EffortCell
          key={e.measure}
          effort={e}
          number={numbers[e.measure]!}
          most={most}
          slow={e.ceiling !== undefined && e.ceiling.bpm < goal}
          chosen={e.measure === chosen}
          isStop={e.measure === stop}
          numbered={numbered}
          onMeasure={onMeasure}
        />
      ))}
    </div>
  )
}

interface CellProps {
  readonly effort: MeasureEffort
  readonly number: number
  /** The most effort of a measure of the tune. */
  readonly most: number
  readonly slow: boolean
  readonly chosen: boolean
  /** True for the cell at which the Tab key stops. */
  readonly isStop: boolean
  readonly numbered: boolean
  readonly onMeasure: (measure: number) => void
}

/** One measure's effort. A typed note changes that of its measure: the words of two hundred others are not put together again. */
const EffortCell = memo(function EffortCell({
  effort: e,
  number,
  most,
  slow,
  chosen,
  isStop,
  numbered,
  onMeasure,
}: CellProps) {
  const { t } = useTranslation()
  const main = e.parts[0]?.part
  const label = cellText(t, e, number, slow)
  return (
    <button
      tabIndex={isStop ? 0 : -1}
      aria-label={label}
      title={label}
      className={[chosen ? 'chosen' : '', slow ? 'slow' : ''].join(' ').trim()}
      style={{ height: 14 + (30 * e.effort) / most }}
      onClick={() => onMeasure(e.measure)}
    >
      {e.effort > most * 0.85 && main && numbered ? (
        <span className="mark" aria-hidden>
          {t(`effort.mark.${main}`)}
        </span>
      ) : null}
      {numbered ? <span aria-hidden>{e.effort.toFixed(1)}</span> : null}
    </button>
  )
}, isEqual)

/** Mean effort, and whether the goal is within reach; opens the measures. */
function EffortLine({
  efforts,
  goal,
  open,
  onOpen,
}: {
  efforts: readonly MeasureEffort[]
  goal: number
  open: boolean
  onOpen: (open: boolean) => void
}) {
  const { t } = useTranslation()
  const { mean, slowest } = tuneEffort(efforts)
  const under = efforts.some((e) => e.ceiling && e.ceiling.bpm < goal)
  return (
    <button type="button" className={css['effort-line']} aria-expanded={open} onClick={() => onOpen(!open)}>
      <IconChevronDown size={15} aria-hidden style={{ transform: open ? 'rotate(180deg)' : undefined }} />
      <span>{t('effort.mean', { mean })}</span>
      {slowest?.ceiling ? <span>{t('effort.manages', { bpm: slowest.ceiling.bpm })}</span> : null}
      {under ? <span className="under">{t('effort.goalOver', { goal: Math.round(goal) })}</span> : null}
    </button>
  )
}

function cellText(t: TFunction, e: MeasureEffort, number: number, slow: boolean): string {
  const parts = e.parts
    .slice(0, 3)
    .map((p) => t(`effort.value.${p.part}`, { n: Number(p.value.toFixed(p.value < 10 ? 1 : 0)) }))
  const ceiling = e.ceiling
    ? t(slow ? 'effort.ceilingUnder' : 'effort.ceiling', {
        bpm: e.ceiling.bpm,
        reason: t(`effort.reason.${e.ceiling.reason}`),
      })
    : ''
  return [
    t('effort.cell', { number, effort: e.effort, parts: parts.join(', ') || t('effort.none') }),
    ceiling,
  ]
    .filter(Boolean)
    .join('; ')
}

/** The tune's effort, and the tempo that this hand should manage, against the goal. */
function Summary({
  efforts,
  model,
  doc,
  goal,
  onMeasure,
}: {
  efforts: readonly MeasureEffort[]
  model: SheetModel
  doc: ArrangementDoc
  goal: number
  onMeasure: (measure: number) => void
}) {
  const { t } = useTranslation()
  const { hardest, slowest } = tuneEffort(efforts)
  const under = efforts.filter((e) => e.ceiling && e.ceiling.bpm < goal)
  return (
    <div className={css['effort-summary']} data-testid="effort-summary">
      {hardest ? (
        <button type="button" onClick={() => onMeasure(hardest.measure)}>
          {t('effort.hardest', { number: model.numbers[hardest.measure]! })}
        </button>
      ) : null}
      {slowest?.ceiling ? (
        <button type="button" onClick={() => onMeasure(slowest.measure)}>
          {t('effort.givesOut', {
            number: model.numbers[slowest.measure]!,
            reason: t(`effort.reason.${slowest.ceiling.reason}`),
          })}
        </button>
      ) : null}
      <TempoGoal doc={doc} goal={goal} own={model.tune.tempos[0]?.bpm ?? USUAL_TEMPO} />
      <span className={under.length > 0 ? 'under' : undefined}>
        {under.length > 0
          ? t('effort.under', {
              count: under.length,
              list: listed(under.map((e) => model.numbers[e.measure]!)),
            })
          : t('effort.reached')}
      </span>
    </div>
  )
}

/** Most measures that are listed by number. */
const MOST_LISTED = 6

const listed = (numbers: readonly number[]) =>
  numbers.slice(0, MOST_LISTED).join(', ') + (numbers.length > MOST_LISTED ? ' …' : '')
