import { useElementSize } from '@mantine/hooks'
import {
  fingerFromNut,
  fretFromNut,
  fretOnNeck,
  pitchAt,
  type Place,
  type Setup,
} from '@velvet-porch/core/instrument'
import { useRef, useState, type KeyboardEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import css from './LongNeck.module.css'
import neckCss from './neck.module.css'

/** A mark on the neck. `at` moves it off its fret (harmonics); frets count from the capo. */
export interface NeckMark extends Place {
  readonly label: string
  /** root: filled; tone: ringed; touch: a diamond; silent: a cross; faint: dashed. */
  readonly look: 'root' | 'tone' | 'touch' | 'silent' | 'faint'
  readonly at?: number
}

interface Props {
  readonly setup: Setup
  readonly marks: readonly NeckMark[]
  /** Whole frets to emphasise from edge to edge. */
  readonly bands?: readonly number[]
  readonly upTo?: number
  /** Makes every place a button. */
  readonly onPlace?: (place: Place) => void
  readonly label: string
}

const STRING_GAP = 27
const TOP = 22
const OPEN_WIDTH = 44
/** Narrower windows scroll. */
const NARROWEST = 560
const INLAYS = [3, 5, 7, 9, 15, 17, 19]

/** The whole neck lying down, true to scale along it; string 1 on top, as in tab. Left-handed necks are mirrored. */
export function LongNeck({ setup, marks, bands = [], upTo = 15, onPlace, label }: Props) {
  const { ref, width: room } = useElementSize<HTMLDivElement>()
  const width = Math.max(room, NARROWEST)
  const strings = setup.tuning.map((_, i) => i + 1)
  const { scaleLength, frets: most } = setup.instrument
  const capo = Math.max(...setup.capo)
  const last = Math.min(most, upTo + capo)
  const height = TOP + STRING_GAP * strings.length + 16
  const left = setup.player.handedness === 'left'
  const perMm = Math.max(0.1, (width - OPEN_WIDTH - 8) / fretFromNut(scaleLength, last))
  const x = (mm: number) => (left ? width - OPEN_WIDTH - mm * perMm : OPEN_WIDTH + mm * perMm)
  const y = (string: number) => TOP + (string - 0.5) * STRING_GAP
  const placeX = (string: number, fret: number) => {
    const onNeck = fretOnNeck(setup, { string, fret })
    if (fret === 0) return onNeck === 0 ? x(-22 / perMm) : x(fretFromNut(scaleLength, onNeck))
    return x(fingerFromNut(scaleLength, onNeck))
  }
  const wireX = (string: number, fret: number) =>
    x(fretFromNut(scaleLength, fretOnNeck(setup, { string, fret })))
  return (
    <div ref={ref} className={css['long-neck']}>
      <svg width={width} height={height} role="group" aria-label={label}>
        <g aria-hidden>
          {bands.map((fret) => {
            const from = x(fretFromNut(scaleLength, Math.max(0, fret + capo - 1)))
            const to = x(fretFromNut(scaleLength, fret + capo))
            const open = fret === 0
            const edge = open ? x(-40 / perMm) : from
            return (
              <rect
                key={fret}
                className={css['neck-band']}
                x={Math.min(edge, open ? x(0) : to)}
                width={Math.abs((open ? x(0) : to) - edge)}
                y={TOP}
                height={STRING_GAP * strings.length}
              />
            )
          })}
          {Array.from({ length: last + 1 }, (_, f) => (
            <g key={f}>
              <line
                x1={x(fretFromNut(scaleLength, f))}
                x2={x(fretFromNut(scaleLength, f))}
                y1={TOP}
                y2={TOP + STRING_GAP * strings.length}
                stroke={f === 0 ? 'var(--ink)' : 'var(--rule)'}
                strokeWidth={f === 0 ? 5 : 1.6}
              />
              {f > capo ? (
                <text x={x(fingerFromNut(scaleLength, f))} y={14} className={css['fret-number']}>
                  {f - capo}
                </text>
              ) : null}
              {INLAYS.includes(f) || f === 12 ? (
                <circle
                  cx={x((fretFromNut(scaleLength, f) + fretFromNut(scaleLength, f - 1)) / 2)}
                  cy={height - 8}
                  r={f === 12 ? 4 : 2.6}
                  fill="var(--rule)"
                />
              ) : null}
            </g>
          ))}
          {strings.map((s) => (
            <line
              key={s}
              x1={x(0)}
              x2={x(fretFromNut(scaleLength, last))}
              y1={y(s)}
              y2={y(s)}
              stroke="var(--wood)"
              strokeWidth={0.8 + s * 0.3}
            />
          ))}
          {capo > 0
            ? strings
                .filter((s) => setup.capo[s - 1]! > 0)
                .map((s) => (
                  <rect
                    key={s}
                    x={x(fretFromNut(scaleLength, capo)) - (left ? -1 : 9)}
                    width={9}
                    y={y(s) - STRING_GAP / 2}
                    height={STRING_GAP}
                    fill="var(--rail)"
                  />
                ))
            : null}
        </g>
        {marks.map((m) => (
          <Mark
            key={`${m.string}.${m.fret}.${m.look}`}
            mark={m}
            cx={
              m.look === 'silent'
                ? x(-22 / perMm)
                : m.at === undefined
                  ? placeX(m.string, m.fret)
                  : wireX(m.string, m.at)
            }
            cy={y(m.string)}
          />
        ))}
        {onPlace ? <Places setup={setup} last={last} placeX={placeX} y={y} onPlace={onPlace} /> : null}
      </svg>
    </div>
  )
}

function Mark({ mark, cx, cy }: { mark: NeckMark; cx: number; cy: number }) {
  const { look, label } = mark
  if (look === 'silent')
    return (
      <text x={cx} y={cy + 5} className={css['mark-silent']}>
        ×
      </text>
    )
  return (
    <g className={`${css['neck-mark']} ${look}`} pointerEvents="none">
      {look === 'touch' ? (
        <rect x={cx - 8} y={cy - 8} width={16} height={16} transform={`rotate(45 ${cx} ${cy})`} />
      ) : (
        <circle cx={cx} cy={cy} r={11} />
      )}
      <text x={cx} y={cy + 4}>
        {label}
      </text>
    </g>
  )
}

function Places({
  setup,
  last,
  placeX,
  y,
  onPlace,
}: {
  setup: Setup
  last: number
  placeX: (string: number, fret: number) => number
  y: (string: number) => number
  onPlace: (place: Place) => void
}) {
  const { t } = useTranslation()
  const names = useNames()
  const group = useRef<SVGGElement>(null)
  const [at, setAt] = useState<Place>({ string: 1, fret: 0 })
  const capo = Math.max(...setup.capo)
  const strings = setup.tuning.length
  const highest = last - capo
  const step = setup.player.handedness === 'left' ? -1 : 1
  const go = (string: number, fret: number) => {
    const place = {
      string: Math.min(Math.max(string, 1), strings),
      fret: Math.min(Math.max(fret, 0), highest),
    }
    setAt(place)
    group.current?.querySelector<SVGElement>(`[data-place="${place.string}.${place.fret}"]`)?.focus()
  }
  const onKey = (event: KeyboardEvent) => {
    const keys: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => go(at.string, at.fret - step),
      ArrowRight: () => go(at.string, at.fret + step),
      ArrowUp: () => go(at.string - 1, at.fret),
      ArrowDown: () => go(at.string + 1, at.fret),
      Enter: () => onPlace(at),
      ' ': () => onPlace(at),
    }
    const key = keys[event.key]
    if (!key) return
    event.preventDefault()
    key()
  }
  return (
    <g ref={group} onKeyDown={onKey}>
      {setup.tuning.flatMap((_, i) =>
        Array.from({ length: highest + 1 }, (_, fret) => {
          const string = i + 1
          // Behind a partial capo a free string cannot be fretted; its frets count from the nut.
          const behind = fret > 0 && fretOnNeck(setup, { string, fret }) <= capo
          if (behind) return null
          return (
            <rect
              key={`${string}.${fret}`}
              className={neckCss.hit}
              x={placeX(string, fret) - 12}
              y={y(string) - 13}
              width={24}
              height={26}
              rx={8}
              role="button"
              data-place={`${string}.${fret}`}
              tabIndex={at.string === string && at.fret === fret ? 0 : -1}
              aria-label={t('neck.hear', {
                string,
                fret,
                name: names.pitch(pitchAt(setup, { string, fret })),
              })}
              onClick={() => onPlace({ string, fret })}
              onFocus={() => setAt({ string, fret })}
            />
          )
        }),
      )}
    </g>
  )
}
