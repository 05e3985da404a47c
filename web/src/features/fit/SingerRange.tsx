import { midiOf } from '@velvet-porch/core/music'
import { melodyOf, timelineOf, type TuneDoc } from '@velvet-porch/core/document'
import type { FitOption, VoiceRange } from '@velvet-porch/core/arrange'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import css from './SingerRange.module.css'

const WIDTH = 250
const HEIGHT = 64

/** How long the melody is on each pitch, as it is sung, against the singer's comfortable range. */
export function SingerRange({
  tune,
  voice,
  option,
}: {
  tune: TuneDoc
  voice: VoiceRange
  option: FitOption | undefined
}) {
  const { t } = useTranslation()
  const names = useNames()
  const sung = option?.sung
  const move = sung && option ? option.choice.shift + 12 * sung.octave : 0
  const bars = useMemo(() => {
    const by = new Map<number, number>()
    for (const n of melodyOf(tune, timelineOf(tune.measures))) {
      const midi = midiOf(n.pitch) + move
      by.set(midi, (by.get(midi) ?? 0) + n.duration)
    }
    return [...by].sort((a, b) => a[0] - b[0])
  }, [tune, move])
  if (bars.length === 0) return null
  const low = Math.min(voice.low, bars[0]![0]) - 1
  const high = Math.max(voice.high, bars.at(-1)![0]) + 1
  const x = (midi: number) => ((midi - low) / (high - low)) * WIDTH
  const most = Math.max(...bars.map(([, ticks]) => ticks))
  const outside = sung?.outside.length ?? bars.filter(([m]) => m < voice.low || m > voice.high).length
  const label = t('fit.voice.picture', {
    low: names.pitch(voice.low),
    high: names.pitch(voice.high),
    lowest: names.pitch(bars[0]![0]),
    highest: names.pitch(bars.at(-1)![0]),
    count: outside,
  })
  return (
    <figure className={css['singer-range']}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={label}>
        <rect
          className="comfort"
          x={x(voice.low - 0.5)}
          width={x(voice.high + 0.5) - x(voice.low - 0.5)}
          y={0}
          height={HEIGHT - 12}
          rx={3}
        />
        {bars.map(([midi, ticks]) => {
          const height = 4 + (ticks / most) * (HEIGHT - 22)
          const isOut = midi < voice.low || midi > voice.high
          return (
            <rect
              key={midi}
              className={isOut ? 'note out' : 'note'}
              x={x(midi) - 2.5}
              width={5}
              y={HEIGHT - 12 - height}
              height={height}
            />
          )
        })}
        <text x={x(voice.low)} y={HEIGHT - 1}>
          {names.pitch(voice.low)}
        </text>
        <text x={x(voice.high)} y={HEIGHT - 1} textAnchor="end">
          {names.pitch(voice.high)}
        </text>
      </svg>
      <figcaption>{label}</figcaption>
    </figure>
  )
}
