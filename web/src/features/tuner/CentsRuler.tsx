import type { PegTurn } from '@velvet-porch/core/input/audio'
import css from './tuner.module.css'

/** Cents at either end. */
const MOST = 50
const WIDTH = 600
const MIDDLE = WIDTH / 2
const TICKS = Array.from({ length: 11 }, (_, i) => (i - 5) * 10)

const xOf = (cents: number) => MIDDLE + (Math.max(-MOST, Math.min(MOST, cents)) / MOST) * (MIDDLE - 24)

/** How far a string is off, as a mark along a ruler: flat at the left, sharp at the right. What it says stands beside it in words. */
export function CentsRuler({ cents, turn }: { cents: number | undefined; turn: PegTurn | undefined }) {
  return (
    <svg className={css.ruler} viewBox={`0 0 ${WIDTH} 92`} aria-hidden>
      <rect className={css.right} x={xOf(-3)} y={10} width={xOf(3) - xOf(-3)} height={50} rx={3} />
      <line className={css['scale-line']} x1={xOf(-MOST)} x2={xOf(MOST)} y1={60} y2={60} />
      {TICKS.map((tick) => (
        <g key={tick}>
          <line
            className={css['scale-line']}
            x1={xOf(tick)}
            x2={xOf(tick)}
            y1={tick % 50 === 0 ? 40 : 48}
            y2={60}
          />
          <text className={tick % 50 !== 0 ? `${css.tick} ${css.between}` : css.tick} x={xOf(tick)} y={80}>
            {tick > 0 ? `+${tick}` : tick === 0 ? '0' : `−${-tick}`}
          </text>
        </g>
      ))}
      {cents === undefined ? null : (
        <path
          className={turn === 'inTune' ? `${css.mark} ${css['in-tune']}` : css.mark}
          style={{ transform: `translateX(${xOf(cents)}px)` }}
          d="M-11 6 L11 6 L3 34 L3 60 L-3 60 L-3 34 Z"
        />
      )}
    </svg>
  )
}
