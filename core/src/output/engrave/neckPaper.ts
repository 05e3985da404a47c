import type { PlacedFinger } from '../../hand/moves/placedFinger.ts'
import { fretFromNut } from '../../instrument/geometry.ts'
import type { Setup } from '../../instrument/setup.ts'
import { el, words } from '../markup.ts'

/** A finger on the neck and what it does there: it stays, it has just come, or it comes next. */
export interface ShownFinger extends PlacedFinger {
  readonly state: 'stays' | 'lands' | 'next'
}

/** Frets that are shown, and the least and most px from string to string. */
const FRETS = 5

/**
 * The standing neck, nut or capo at the top, frets to scale: fingers that stay filled, those that land ringed, those
 * that come next dashed; strings that are struck heavy.
 */
export function neckSvg(
  setup: Setup,
  fingers: readonly ShownFinger[],
  struck: readonly number[],
  { width, height }: { readonly width: number; readonly height: number },
): string {
  const { strings, scaleLength } = setup.instrument
  const capo = setup.capo[0]!
  const now = fingers.filter((f) => f.state !== 'next')
  const lowest = Math.min(...(now.length > 0 ? now : fingers).map((f) => f.fret), Infinity)
  const highest = Math.max(0, ...fingers.map((f) => f.fret))
  const top =
    highest <= FRETS || lowest === Infinity ? 0 : Math.max(0, Math.min(lowest, highest - FRETS + 1) - 1)
  const shown = Math.max(FRETS, highest - top)
  const left = setup.player.handedness === 'left'
  const mm = (fret: number) => fretFromNut(scaleLength, fret + capo)
  const [from, to] = [mm(top), mm(top + shown)]
  const head = 22
  const y = (fret: number) => head + ((mm(fret) - from) / (to - from)) * (height - head - 8)
  const gap = (width - 44) / (strings - 1)
  const x = (string: number) => 26 + (left ? string - 1 : strings - string) * gap
  const [low, high] = [26, 26 + (strings - 1) * gap]
  const mid = (fret: number) => y(fret) - Math.min(16, (y(fret) - y(fret - 1)) / 2)
  const parts = [
    ...Array.from({ length: shown + 1 }, (_, f) =>
      el('path', { class: f + top === 0 ? 'hl' : 'tl', d: `M${low} ${y(f + top)}H${high}` }),
    ),
    ...Array.from({ length: shown }, (_, f) =>
      words({ class: 'num', x: 6, y: mid(f + top + 1) + 4 }, f + top + 1),
    ),
    ...Array.from({ length: strings }, (_, i) =>
      el('path', { class: struck.includes(i + 1) ? 'ns' : 'tl', d: `M${x(i + 1)} ${head}V${height - 8}` }),
    ),
    ...Array.from({ length: strings }, (_, i) => words({ class: 'bo', x: x(i + 1), y: 13 }, i + 1)),
    ...fingers.map((f) => {
      const [a, b, at] = [x(f.from), x(f.to), mid(f.fret)]
      const r = 11
      const barre = f.from === f.to ? '' : el('path', { class: `nb ${f.state}`, d: `M${a} ${at}H${b}` })
      return (
        barre +
        el('circle', { class: `nf ${f.state}`, cx: a, cy: at, r }) +
        words({ class: `nl ${f.state}`, x: a, y: at + 4.5 }, f.finger)
      )
    }),
  ]
  return el(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      class: 'neck',
      viewBox: `0 0 ${width} ${height}`,
      width,
      height,
      'aria-hidden': 'true',
    },
    ...parts,
  )
}
