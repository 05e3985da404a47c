import type { FitOption } from '@velvet-porch/core/arrange'
import { BubbleController, Chart, Legend, LinearScale, PointElement, Tooltip } from 'chart.js'
import { memo, useMemo, type KeyboardEvent } from 'react'
import { Bubble } from 'react-chartjs-2'
import { useTranslation } from 'react-i18next'
import { useChartColours } from '../../ui/chartColours.ts'
import type { FitWords } from './useFitWords.ts'
import css from './FitChart.module.css'

Chart.register(BubbleController, LinearScale, PointElement, Tooltip, Legend)

interface Props {
  readonly options: readonly FitOption[]
  readonly best: ReadonlySet<string>
  readonly wanted: number
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
  readonly words: FitWords
}

/** Radius of a point whose harmony has no open roots, and what all of them add. */
const RADIUS = { least: 4, more: 9 }

/** Effort against the distance from the wanted key; the size is the share of open roots. Walked by the arrow keys. */
export const FitChart = memo(function FitChart({ options, best, wanted, chosen, onChoose, words }: Props) {
  const { t } = useTranslation()
  const { ink, rule, seriesColour } = useChartColours()
  const inOrder = useMemo(
    () =>
      [...options].sort(
        (a, b) =>
          a.choice.shift - b.choice.shift || a.figures.effort - b.figures.effort || (a.id < b.id ? -1 : 1),
      ),
    [options],
  )
  const tunings = useMemo(() => [...new Set(inOrder.map((o) => words.tuning(o)))].sort(), [inOrder, words])
  const data = {
    datasets: tunings.map((tuning, i) => {
      const colour = seriesColour(i)
      const own = inOrder.filter((o) => words.tuning(o) === tuning)
      return {
        label: tuning,
        ids: own.map((o) => o.id),
        data: own.map((o) => ({
          x: o.choice.shift - wanted,
          y: o.figures.effort,
          r:
            RADIUS.least +
            (RADIUS.more * o.figures.openRoots) / Math.max(1, o.figures.changes) +
            (o.id === chosen ? 2 : 0),
        })),
        backgroundColor: own.map((o) => (o.estimated ? `${colour}22` : `${colour}aa`)),
        borderColor: own.map((o) => (o.id === chosen ? ink : best.has(o.id) ? '#e4a02f' : colour)),
        borderWidth: own.map((o) => (o.id === chosen || best.has(o.id) ? 3 : 1)),
      }
    }),
  }
  const onKey = (event: KeyboardEvent) => {
    const by =
      event.key === 'ArrowRight' || event.key === 'ArrowDown'
        ? 1
        : event.key === 'ArrowLeft' || event.key === 'ArrowUp'
          ? -1
          : 0
    if (by === 0 || inOrder.length === 0) return
    event.preventDefault()
    const at = inOrder.findIndex((o) => o.id === chosen)
    onChoose(inOrder[Math.min(inOrder.length - 1, Math.max(0, at + by))]!.id)
  }
  const selected = options.find((o) => o.id === chosen)
  return (
    <div
      className={css['fit-chart']}
      role="slider"
      tabIndex={0}
      aria-label={t('fit.chart')}
      aria-valuemin={0}
      aria-valuemax={Math.max(0, inOrder.length - 1)}
      aria-valuenow={Math.max(
        0,
        inOrder.findIndex((o) => o.id === chosen),
      )}
      aria-valuetext={selected ? words.line(selected) : t('fit.noneChosen')}
      onKeyDown={onKey}
    >
      <Bubble
        role="presentation"
        aria-hidden
        data={data}
        options={{
          animation: false,
          maintainAspectRatio: false,
          color: ink,
          onClick: (_, hit) => {
            const first = hit[0]
            const id = first && data.datasets[first.datasetIndex]?.ids[first.index]
            if (id) onChoose(id)
          },
          scales: {
            x: {
              title: { display: true, text: t('fit.axis.away'), color: ink },
              ticks: { color: ink, stepSize: 1 },
              grid: { color: `${rule}55` },
            },
            y: {
              title: { display: true, text: t('fit.axis.effort'), color: ink },
              ticks: { color: ink },
              grid: { color: `${rule}55` },
            },
          },
          plugins: {
            legend: { labels: { color: ink, boxWidth: 12 }, position: 'top' },
            tooltip: {
              callbacks: {
                label: (item) => {
                  const id = data.datasets[item.datasetIndex]?.ids[item.dataIndex]
                  const o = options.find((x) => x.id === id)
                  return o ? words.line(o) : ''
                },
              },
            },
          },
        }}
      />
    </div>
  )
})
