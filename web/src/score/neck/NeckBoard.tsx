import { useTranslation } from 'react-i18next'
import type { NeckView } from './neckView.ts'

/** Frets, strings, nut and capo. */
export function NeckBoard({ view }: { view: NeckView }) {
  const { t } = useTranslation()
  const { capo } = view
  const edges = (fret: number) =>
    [view.stringX(1, fret), view.stringX(view.strings.length, fret)].sort((a, b) => a - b) as [number, number]
  const [capoLeft, capoRight] = edges(capo)
  return (
    <g aria-hidden>
      {view.frets.map((f) => {
        const [left, right] = edges(f)
        const nut = f === 0
        return (
          <g key={f}>
            <line
              x1={left - 5}
              x2={right + 5}
              y1={view.fretY(f)}
              y2={view.fretY(f)}
              stroke={nut ? 'var(--ink)' : 'var(--rule)'}
              strokeWidth={nut ? 6 : 2}
            />
            {f > capo && f > view.top ? (
              <text
                x={Math.max(left - 20, 15)}
                y={view.place(1, f - capo).cy + 4}
                textAnchor="end"
                fontSize={12}
                fill="var(--ink-soft)"
              >
                {f - capo}
              </text>
            ) : null}
          </g>
        )
      })}
      {view.strings.map((s) => (
        <line
          key={s}
          x1={view.stringX(s, 'top')}
          x2={view.stringX(s, 'end')}
          y1={view.fretY(view.top)}
          y2={view.endY}
          stroke="var(--wood)"
          strokeWidth={0.9 + s * 0.32}
        />
      ))}
      {capo > 0 && capo >= view.top ? (
        <g>
          <rect
            x={capoLeft - 12}
            width={capoRight - capoLeft + 24}
            y={view.fretY(capo) - 13}
            height={16}
            rx={8}
            fill="var(--rail)"
          />
          <text x={view.centre} y={view.fretY(capo) - 1} textAnchor="middle" fontSize={11} fill="var(--lamp)">
            {t('neck.capo', { capo })}
          </text>
        </g>
      ) : null}
    </g>
  )
}
