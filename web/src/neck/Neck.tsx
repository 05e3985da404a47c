import { useElementSize } from '@mantine/hooks'
import {
  fingerFromNut,
  fretFromNut,
  openPitch,
  pitchAt,
  pitchText,
  plainPitch,
  stringSpacingAt,
  type Setup,
  type TabNote,
} from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import type { HandMoment } from './handMove.ts'
import { NeckStrip } from './NeckStrip.tsx'

interface Props {
  readonly setup: Setup
  readonly hand: HandMoment | undefined
  /** Notes plucked at this moment. */
  readonly plucked: readonly TabNote[]
  readonly onHear: (string: number, fret: number) => void
}

/** Neighbouring strings stand at least this far apart, in pixels: a finger can tap between them. */
const STRING_GAP_PX = 25

/** The standing neck: true to scale in mm, nut (or capo) at the top, this hand and the next. */
export function Neck({ setup, hand, plucked, onHear }: Props) {
  const { t } = useTranslation()
  const { ref, height, width } = useElementSize<HTMLDivElement>()
  const { instrument } = setup
  const capo = setup.capo[0]!
  const perMm = STRING_GAP_PX / instrument.spacing.nut
  const position = hand?.now.position ?? 1
  const top = position > 1 ? capo + position - 2 : capo
  const from = top === 0 ? 0 : fretFromNut(instrument.scaleLength, top)
  const visibleMm = Math.max(120, (height - 64) / perMm)
  const frets: number[] = []
  for (let f = top; f <= instrument.frets && fretFromNut(instrument.scaleLength, f) - from <= visibleMm; f++)
    frets.push(f)
  const y = (mm: number) => 34 + (mm - from) * perMm
  const mirrored = setup.player.handedness === 'left'
  const centre = width / 2
  const x = (string: number, mm: number) => {
    const away = ((instrument.strings + 1) / 2 - string) * stringSpacingAt(instrument, mm) * perMm
    return centre + (mirrored ? -away : away)
  }
  const last = frets.at(-1) ?? top
  const endMm = Math.min(from + visibleMm, fretFromNut(instrument.scaleLength, last) + 12)
  const strings = Array.from({ length: instrument.strings }, (_, i) => i + 1)
  const before = hand?.before?.pressed ?? []
  const isKept = (s: number, f: number) => before.some((p) => p.string === s && p.fret === f)
  const ghosts = (hand?.next?.pressed ?? []).filter(
    (p) => !hand?.now.pressed.some((n) => n.string === p.string && n.fret === p.fret),
  )
  const spot = (string: number, fret: number) => {
    const mm = fingerFromNut(instrument.scaleLength, fret + capo)
    return { cx: x(string, mm), cy: y(mm) }
  }
  return (
    <div className="neck-wrap">
      <div ref={ref} style={{ minHeight: 0, overflow: 'hidden' }}>
        <svg width={width} height={height} role="group" aria-label={t('neck.label')} data-testid="neck">
          {frets.map((f) => {
            const mm = fretFromNut(instrument.scaleLength, f)
            const [left, right] = [x(mirrored ? 1 : 6, mm), x(mirrored ? 6 : 1, mm)]
            return (
              <g key={f}>
                <line
                  x1={left - 5}
                  x2={right + 5}
                  y1={y(mm)}
                  y2={y(mm)}
                  stroke={f === 0 ? 'var(--ink)' : 'var(--rule)'}
                  strokeWidth={f === 0 ? 6 : 2}
                />
                {f > capo && f > top ? (
                  <text
                    x={left - 22}
                    y={y(fingerFromNut(instrument.scaleLength, f)) + 4}
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
          {strings.map((s) => (
            <line
              key={s}
              x1={x(s, from)}
              x2={x(s, endMm)}
              y1={y(from)}
              y2={y(endMm)}
              stroke="var(--wood)"
              strokeWidth={0.9 + s * 0.32}
            />
          ))}
          {capo > 0 && capo >= top ? (
            <g>
              <rect
                x={Math.min(x(6, from), x(1, from)) - 12}
                width={Math.abs(x(6, from) - x(1, from)) + 24}
                y={y(fretFromNut(instrument.scaleLength, capo)) - 13}
                height={16}
                rx={8}
                fill="var(--rail)"
              />
              <text
                x={centre}
                y={y(fretFromNut(instrument.scaleLength, capo)) - 1}
                textAnchor="middle"
                fontSize={11}
                fill="var(--lamp)"
              >
                {t('neck.capo', { capo })}
              </text>
            </g>
          ) : null}
          {strings.flatMap((s) =>
            [0, ...frets.filter((f) => f > capo && f > top).map((f) => f - capo)].map((f) => {
              const at = f === 0 ? { cx: x(s, from), cy: 14 } : spot(s, f)
              if (f === 0 && top > capo) return null
              const name = pitchText(plainPitch(pitchAt(setup, { string: s, fret: f }), false))
              return (
                <circle
                  key={`${s}.${f}`}
                  cx={at.cx}
                  cy={at.cy}
                  r={12}
                  className="hit"
                  role="button"
                  aria-label={t('neck.hear', { string: s, fret: f, name })}
                  onClick={() => onHear(s, f)}
                />
              )
            }),
          )}
          {strings.map((s) => {
            const open = plucked.some((n) => n.place.string === s && n.place.fret === 0)
            return open ? (
              <circle
                key={s}
                cx={x(s, from)}
                cy={14}
                r={6}
                fill="none"
                stroke="var(--ink)"
                strokeWidth={2}
                pointerEvents="none"
              />
            ) : null
          })}
          {ghosts.map((p) => {
            const at = spot(p.string, p.fret)
            return (
              <g key={`g${p.string}.${p.fret}`} pointerEvents="none">
                <circle
                  {...at}
                  r={11}
                  fill="none"
                  stroke="var(--ink-soft)"
                  strokeDasharray="2.5 3"
                  strokeWidth={1.6}
                />
                <text x={at.cx} y={at.cy + 4.5} textAnchor="middle" fontSize={12} fill="var(--ink-soft)">
                  {p.finger}
                </text>
              </g>
            )
          })}
          {(hand?.now.pressed ?? []).map((p) => {
            const at = spot(p.string, p.fret)
            const kept = isKept(p.string, p.fret)
            return (
              <g
                key={`${p.string}.${p.fret}.${p.finger}`}
                pointerEvents="none"
                data-finger={p.finger}
                role="img"
                aria-label={t('neck.finger', { finger: p.finger, string: p.string, fret: p.fret })}
              >
                <circle
                  {...at}
                  r={12}
                  fill={kept ? 'var(--rail)' : 'var(--paper)'}
                  stroke={kept ? 'var(--lamp)' : 'var(--ink)'}
                  strokeWidth={kept ? 1 : 2.4}
                />
                <text
                  x={at.cx}
                  y={at.cy + 5}
                  textAnchor="middle"
                  fontSize={14}
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
              x={x(n.place.string, endMm)}
              y={y(endMm) + 17}
              textAnchor="middle"
              fontSize={14}
              fontStyle="italic"
              fontFamily="'Fraunces Variable', serif"
              fill="var(--ink)"
            >
              {n.right}
            </text>
          ))}
          {hand
            ? null
            : strings.map((s) => (
                <text key={s} x={x(s, from)} y={18} textAnchor="middle" fontSize={12} fill="var(--ink-soft)">
                  {pitchText(plainPitch(openPitch(setup, s), false)).replace(/\d/, '')}
                </text>
              ))}
        </svg>
      </div>
      <NeckStrip setup={setup} from={top} to={last} pressed={hand?.now.pressed ?? []} />
    </div>
  )
}
