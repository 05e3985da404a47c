import { minutesAWeek } from '@velvet-porch/core/studio'
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js'
import { Bar, Line } from 'react-chartjs-2'
import { useTranslation } from 'react-i18next'
import type { LogRow } from '../../state/db.ts'
import { useChartColours } from '../../ui/chartColours.ts'
import { useDayWords } from './useDayWords.ts'
import type { StudiedTune } from './useStudies.ts'
import css from './students.module.css'

Chart.register(
  BarController,
  BarElement,
  LineController,
  LineElement,
  CategoryScale,
  LinearScale,
  PointElement,
  Filler,
  Legend,
  Tooltip,
)

const WEEKS = 12

interface Props {
  readonly studies: readonly StudiedTune[]
  readonly logs: readonly LogRow[]
  readonly today: string
}

/** What rises: the clean tempo of each tune against its goal, the effort mastered, and minutes a week. */
export function PracticeCharts({ studies, logs, today }: Props) {
  const { t } = useTranslation()
  const { dayText } = useDayWords()
  const { ink, rule, seriesColour } = useChartColours()
  const shown = studies.filter((s) => s.study && s.study.tempos.length > 0)
  const entries = logs.flatMap((row) => row.entries)
  if (entries.length === 0) return null
  const days = [...new Set(shown.flatMap((s) => s.study?.tempos.map((p) => p.day) ?? []))].sort()
  const share = (s: StudiedTune, day: string) => {
    const point = s.study?.tempos.findLast((p) => p.day <= day)
    return point && s.study ? Math.round((100 * point.best) / s.study.goalBpm) : null
  }
  const learned = studies.filter((s) => s.study && s.study.effortMastered.length > 0)
  const effortDays = [
    ...new Set(learned.flatMap((s) => s.study?.effortMastered.map((p) => p.day) ?? []).concat(today)),
  ].sort()
  const effortBy = (s: StudiedTune, day: string) =>
    Math.round(s.study?.effortMastered.findLast((p) => p.day <= day)?.effort ?? 0)
  const weeks = minutesAWeek(entries, today, WEEKS)
  const scales = (y: string) => ({
    x: { ticks: { color: ink, maxRotation: 0, autoSkip: true }, grid: { display: false } },
    y: {
      beginAtZero: true,
      title: { display: true, text: y, color: ink },
      ticks: { color: ink },
      grid: { color: `${rule}55` },
    },
  })
  const stacked = (own: ReturnType<typeof scales>) => ({ ...own, y: { ...own.y, stacked: true } })
  const common = { animation: false, maintainAspectRatio: false, color: ink } as const
  return (
    <section aria-labelledby="student-charts">
      <h2 id="student-charts">{t('studio.progress')}</h2>
      <div className={css['studio-charts']}>
        <figure>
          <figcaption>{t('studio.tempoChart')}</figcaption>
          <div className={css['studio-chart']}>
            <Line
              role="img"
              aria-label={t('studio.tempoChartWords', {
                list: shown.map((s) => `${s.title}: ${share(s, today) ?? 0} %`).join('; '),
              })}
              data={{
                labels: days.map(dayText),
                datasets: shown.map((s, i) => ({
                  label: s.title,
                  data: days.map((day) => share(s, day)),
                  borderColor: seriesColour(i),
                  backgroundColor: seriesColour(i),
                  stepped: true,
                  pointRadius: 2,
                })),
              }}
              options={{
                ...common,
                scales: scales(t('studio.ofGoal')),
                plugins: { legend: { labels: { color: ink, boxWidth: 12 } } },
              }}
            />
          </div>
        </figure>
        {learned.length > 0 && (
          <figure>
            <figcaption>{t('studio.effortChart')}</figcaption>
            <div className={css['studio-chart']}>
              <Line
                role="img"
                aria-label={t('studio.effortChartWords', {
                  list: learned
                    .map((s) =>
                      t('studio.effortOfTune', {
                        title: s.title,
                        mastered: effortBy(s, today),
                        all: Math.round(s.study?.effort ?? 0),
                      }),
                    )
                    .join('; '),
                })}
                data={{
                  labels: effortDays.map(dayText),
                  datasets: learned.map((s, i) => ({
                    label: s.title,
                    data: effortDays.map((day) => effortBy(s, day)),
                    borderColor: seriesColour(i),
                    backgroundColor: `${seriesColour(i)}55`,
                    // One tune lies on the other: the upper edge is all that is mastered.
                    fill: i === 0 ? 'origin' : '-1',
                    stepped: true,
                    pointRadius: 2,
                  })),
                }}
                options={{
                  ...common,
                  scales: stacked(scales(t('studio.effortPoints'))),
                  plugins: { legend: { labels: { color: ink, boxWidth: 12 } } },
                }}
              />
            </div>
          </figure>
        )}
        <figure>
          <figcaption>{t('studio.minutesChart')}</figcaption>
          <div className={css['studio-chart']}>
            <Bar
              role="img"
              aria-label={t('studio.minutesChartWords', {
                minutes: weeks.reduce((sum, w) => sum + w.minutes, 0),
                weeks: WEEKS,
              })}
              data={{
                labels: weeks.map((w) => dayText(w.week)),
                datasets: [{ data: weeks.map((w) => w.minutes), backgroundColor: seriesColour(0) }],
              }}
              options={{
                ...common,
                scales: scales(t('studio.minutes')),
                plugins: { legend: { display: false } },
              }}
            />
          </div>
        </figure>
      </div>
    </section>
  )
}
