import { useCallbackRef } from '@mantine/hooks'
import { IconChevronDown } from '@tabler/icons-react'
import { USUAL_TEMPO } from '@velvet-porch/core/music'
import type { ArrangementDoc } from '@velvet-porch/core/document'
import { effortOf, tuneEffort, type MeasureEffort } from '@velvet-porch/core/hand'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import { EffortCells } from './EffortCells.tsx'
import { TempoGoal } from './TempoGoal.tsx'
import css from './EffortRibbon.module.css'

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
