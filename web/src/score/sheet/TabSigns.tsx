import { present } from '@velvet-porch/core/invariant'
import { isArrival, type TabNote } from '@velvet-porch/core/document'
import { bendText } from '@velvet-porch/core/output'
import { useTranslation } from 'react-i18next'
import { tabY, type Rows } from './metrics.ts'
import type { SheetModel } from './sheetModel.ts'
import css from './TabSigns.module.css'
import sheetCss from './sheet.module.css'

const JOIN_SIGNS = { hammer: 'h', pull: 'p', slide: '', bend: '', release: 'r' } as const

/** Slurs of the fretting hand: an arc from note to note with its letter, a line for a slide. Into the measure from its left edge. */
export function Joins({
  model,
  measure,
  x,
  rows,
}: {
  model: SheetModel
  measure: number
  x: (tick: number) => number
  rows: Rows
}) {
  const { t } = useTranslation()
  return (model.notes.get(measure) ?? []).map((to) => {
    const joined = model.joins.get(to.id)
    if (!joined) return null
    const { from, kind } = joined
    const y = tabY(rows, to.place.string)
    const right = x(to.pos.tick) - 6
    const left = from.pos.measure === to.pos.measure ? x(from.pos.tick) + 7 : x(0) - 14
    const mid = (left + right) / 2
    const title = t(`sheet.join.${kind}`, {
      string: to.place.string,
      from: from.place.fret,
      to: to.place.fret,
    })
    if (kind === 'slide') {
      const way = to.place.fret > from.place.fret ? 3.5 : -3.5
      return (
        <path
          key={to.id}
          className={css['join-sign']}
          d={`M ${left + 1} ${y + way} L ${right - 1} ${y - way}`}
        >
          <title>{title}</title>
        </path>
      )
    }
    return (
      <g key={to.id}>
        <path
          className={css['join-sign']}
          d={`M ${left - 3} ${y - 9} Q ${mid} ${y - 15} ${right + 3} ${y - 9}`}
        >
          <title>{title}</title>
        </path>
        <text className={sheetCss['join-letter']} x={mid} y={y - 12}>
          {JOIN_SIGNS[kind]}
        </text>
      </g>
    )
  })
}

/** Short notes before a note, small, joined by the letters of what the finger does. */
export function Graces({ note, right, y }: { note: TabNote; right: number; y: number }) {
  const { graces = [] } = note
  const letter = { pluck: '', hammer: 'h', pull: 'p', slide: '/', bend: 'b', release: 'r' } as const
  const parts = graces.map((g, i) => {
    const fret = g.optional ? `(${g.place.fret})` : String(g.place.fret)
    return `${i > 0 ? letter[g.attack] : ''}${fret}`
  })
  const end = isArrival(note.attack) ? letter[note.attack] : ''
  const text = parts.join('') + end
  return (
    <>
      <rect
        className={sheetCss['tab-halo']}
        x={right - 5.4 * text.length}
        y={y - 6}
        width={5.4 * text.length}
        height={12}
      />
      <text className={css['tab-grace']} x={right} y={y + 3.4}>
        {text}
      </text>
    </>
  )
}

/** An arrow up with the bend's whole steps: curved where it rises, straight where the string is up already. */
export function BendSign({ note: { bend, attack }, x, y }: { note: TabNote; x: number; y: number }) {
  const straight = attack !== 'bend'
  const tip = straight ? x + 2 : x + 8
  const curve = straight ? `M ${tip} ${y} V ${y - 14}` : `M ${x} ${y} Q ${tip} ${y} ${tip} ${y - 14}`
  return (
    <g>
      <path className={css['join-sign']} d={`${curve} m -2.5 3 l 2.5 -4 l 2.5 4`} />
      <text className={sheetCss['join-letter']} x={tip} y={y - 17}>
        {bendText(present(bend))}
      </text>
    </g>
  )
}

/** Strokes beside a fret: slid into from nowhere, slid off to nowhere. */
export function SlideSigns({
  note,
  left,
  right,
  y,
}: {
  note: TabNote
  left: number
  right: number
  y: number
}) {
  const stroke = (x: number, up: boolean) => `M ${x} ${y + (up ? 4 : -4)} l 7 ${up ? -8 : 8}`
  const strokes = [
    ...(note.slideFromBelow ? [stroke(left - 8, true)] : []),
    ...(note.slideFromAbove ? [stroke(left - 8, false)] : []),
    ...(note.slideOffUp ? [stroke(right + 1, true)] : []),
    ...(note.slideOffDown ? [stroke(right + 1, false)] : []),
  ]
  return strokes.length > 0 ? (
    <path className={css['join-sign']} data-testid="slide-sign" d={strokes.join(' ')} />
  ) : null
}

/** A small cross in a ring: the string is stopped when the next note sounds. */
export function DampSign({ x, y }: { x: number; y: number }) {
  const { t } = useTranslation()
  return (
    <g className={css['join-sign']}>
      <circle cx={x} cy={y} r={2.6} />
      <path d={`M ${x - 4} ${y} H ${x + 4} M ${x} ${y - 4} V ${y + 4}`}>
        <title>{t('sheet.damp')}</title>
      </path>
    </g>
  )
}

/** A short wavy line. */
export function VibratoSign({ x, y }: { x: number; y: number }) {
  return <path className={css['join-sign']} d={`M ${x} ${y} q 2 -4 4 0 t 4 0 t 4 0 t 4 0`} />
}

/** A wedge over an accented onset. */
export function AccentSign({ x, y }: { x: number; y: number }) {
  return <path className={css['accent-sign']} d={`M ${x - 4} ${y - 3} L ${x + 4} ${y} L ${x - 4} ${y + 3}`} />
}

/** A bow over a dot: the note is held. */
export function FermataSign({ x, y }: { x: number; y: number }) {
  return (
    <g className={css['fermata-sign']}>
      <path d={`M ${x - 7} ${y} a 7 6.5 0 0 1 14 0`} />
      <circle cx={x} cy={y - 1} r={1.4} />
    </g>
  )
}

/** A wavy line along the strings of a chord that is rolled. */
export function RollSign({ x, from, to }: { x: number; from: number; to: number }) {
  const waves = Math.max(1, Math.round((to - from) / 8))
  return <path className={css['join-sign']} d={`M ${x} ${from} ${'q 3 2 0 4 t 0 4 '.repeat(waves)}`} />
}

/** Three slashes under a note that trembles. */
export function TremoloSign({ x, y }: { x: number; y: number }) {
  return (
    <path
      className={css['tremolo-sign']}
      d={[0, 3, 6].map((d) => `M ${x - 4} ${y + d + 2} L ${x + 4} ${y + d - 1}`).join(' ')}
    />
  )
}

/** A small padlock. */
export function LockSign({ x, y }: { x: number; y: number }) {
  return (
    <g className={css['lock-sign']} transform={`translate(${x} ${y})`}>
      <path d="M 1.6 4 V 2.6 a 1.9 1.9 0 0 1 3.8 0 V 4" fill="none" />
      <rect x={0.4} y={4} width={6.2} height={5} rx={1} />
    </g>
  )
}

/** A wavy line under an onset at which the audit found something. */
export function FaultSign({ x, y, text, wrong }: { x: number; y: number; text: string; wrong: boolean }) {
  return (
    <path
      className={wrong ? `${css['fault-sign']} wrong` : css['fault-sign']}
      data-testid="fault"
      d={`M ${x - 8} ${y} q 2 -4 4 0 t 4 0 t 4 0 t 4 0`}
    >
      <title>{text}</title>
    </path>
  )
}
