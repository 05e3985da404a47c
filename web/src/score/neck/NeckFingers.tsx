import { BAR_FINGER, type TabNote } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import type { Bottleneck, HandMoment } from './handMove.ts'
import type { NeckView } from './neckView.ts'

/** The hand of the moment: fingers that stay are filled, arriving ones ringed, the next grip's are dotted. */
export function NeckFingers({
  view,
  hand,
  plucked,
}: {
  view: NeckView
  hand: HandMoment
  plucked: readonly TabNote[]
}) {
  const { t } = useTranslation()
  const before = hand.before?.pressed ?? []
  const now = hand.now.pressed
  const coming = (hand.next?.pressed ?? []).filter(
    (p) => !now.some((n) => n.string === p.string && n.fret === p.fret),
  )
  return (
    <g pointerEvents="none">
      {plucked
        .filter((n) => n.place.fret === 0)
        .map((n) => (
          <circle
            key={n.id}
            {...view.place(n.place.string, 0)}
            r={6}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={2}
          />
        ))}
      {coming.map((p) => {
        const at = view.place(p.string, p.fret)
        return (
          <g key={`${p.string}.${p.fret}`}>
            <circle
              {...at}
              r={view.finger - 1}
              fill="var(--linen-deep)"
              stroke="var(--ink-soft)"
              strokeDasharray="2.5 3"
              strokeWidth={1.6}
            />
            <text x={at.cx} y={at.cy + 4.5} textAnchor="middle" fontSize={view.finger} fill="var(--ink-soft)">
              {p.finger}
            </text>
          </g>
        )
      })}
      {hand.bottle ? <BottleneckBar view={view} bottle={hand.bottle} /> : null}
      {now.map((p) => {
        if (hand.bottle && p.finger === BAR_FINGER) return null
        const at = view.place(p.string, p.fret)
        const kept = before.some((b) => b.string === p.string && b.fret === p.fret && b.finger === p.finger)
        return (
          <g
            key={`${p.string}.${p.fret}.${p.finger}`}
            role="img"
            aria-label={t('neck.finger', { finger: p.finger, string: p.string, fret: p.fret })}
          >
            <circle
              {...at}
              r={view.finger}
              fill={kept ? 'var(--rail)' : 'var(--paper)'}
              stroke={kept ? 'var(--lamp)' : 'var(--ink)'}
              strokeWidth={kept ? 1 : 2.4}
            />
            <text
              x={at.cx}
              y={at.cy + 5}
              textAnchor="middle"
              fontSize={view.finger + 2}
              fontWeight={700}
              fill={kept ? 'var(--lamp)' : 'var(--ink)'}
            >
              {p.finger}
            </text>
          </g>
        )
      })}
      {plucked.map((n) => (
        <text
          key={n.id}
          className="pick"
          role="img"
          aria-label={t('neck.plucked', { string: n.place.string, finger: n.right })}
          x={view.stringX(n.place.string, 'end')}
          y={view.endY + 17}
          style={{ fontSize: 14, fill: 'var(--ink)' }}
        >
          {n.right}
        </text>
      ))}
    </g>
  )
}

/** How far a bottleneck stands out over the outer strings that it stops, and how thick it is, in pixels. */
const OVER_PX = 13
const THICK_PX = 17

/** A bottleneck lies right over the fret, across all strings that it stops. */
function BottleneckBar({ view, bottle: { fret, strings } }: { view: NeckView; bottle: Bottleneck }) {
  const { t } = useTranslation()
  const y = view.fretY(fret + view.capo)
  const ends = strings.map((s) => view.place(s, fret).cx)
  const [left, right] = [Math.min(...ends) - OVER_PX, Math.max(...ends) + OVER_PX]
  return (
    <g
      role="img"
      aria-label={t('neck.bottle', { fret, from: strings[0], to: strings[1] })}
      data-testid="bottleneck"
    >
      <rect
        x={left}
        y={y - THICK_PX / 2}
        width={right - left}
        height={THICK_PX}
        rx={THICK_PX / 2}
        fill="var(--paper)"
        fillOpacity={0.85}
        stroke="var(--ink)"
        strokeWidth={2.2}
      />
      <line
        x1={left + 7}
        x2={right - 7}
        y1={y - THICK_PX / 4}
        y2={y - THICK_PX / 4}
        stroke="var(--rule)"
        strokeWidth={2}
        strokeLinecap="round"
      />
    </g>
  )
}
