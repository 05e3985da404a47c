import { groupBy } from 'es-toolkit'
import { countAt, inFullMeasure } from '@velvet-porch/core/music'
import type { Measure, SungAt, TabNote } from '@velvet-porch/core/document'
import type { NoteReading } from '@velvet-porch/core/arrange'
import { useTranslation } from 'react-i18next'
import { printed } from '../../ui/chordBox/degreeLabel.ts'
import { doubleStops } from './doubleStops.ts'
import { LYRIC_GAP } from './metrics.ts'
import { remarkLines } from './remarkLines.ts'
import type { SheetModel } from './sheetModel.ts'
import css from './TabLanes.module.css'

/** The words under the staff, verse by verse; a hyphen stands between the syllables of a word. */
export function Words({ sung, x, y }: { sung: readonly SungAt[]; x: (tick: number) => number; y: number }) {
  return sung.map((s) =>
    s.verses.map((syllable, verse) => (
      <text key={`${s.id}.${verse}`} className={css.lyric} x={x(s.tick) - 4} y={y + verse * LYRIC_GAP}>
        {syllable}
      </text>
    )),
  )
}

/** The degree of each melody note over its chord; notes that are not of the chord in brackets. */
export function Degrees({
  readings,
  start,
  x,
  y,
}: {
  readings: readonly NoteReading[]
  start: number
  x: (tick: number) => number
  y: number
}) {
  const { t } = useTranslation()
  return readings.map((r) => {
    const degree = printed(r.degree) + (r.leadsTo ? `→${printed(r.leadsTo)}` : '')
    return (
      <text
        key={r.start}
        className={r.outside ? `${css.degree} outside` : css.degree}
        x={x(r.start - start)}
        y={y}
      >
        {r.function === 'chord' ? degree : `(${degree})`}
        <title>
          {t(`sheet.function.${r.function}`)}
          {r.outside ? `, ${t('sheet.outside')}` : ''}
        </title>
      </text>
    )
  })
}

/** The count under each onset: "1 & 2 &". */
export function Counts({
  measure,
  notes,
  x,
  y,
}: {
  measure: Measure
  notes: readonly TabNote[]
  x: (tick: number) => number
  y: number
}) {
  const ticks = [...new Set(notes.map((n) => n.pos.tick))]
  return ticks.map((tick) => (
    <text key={tick} className="count" x={x(tick)} y={y}>
      {countAt(measure.metre, inFullMeasure(measure, tick))}
    </text>
  ))
}

/** Notes by onset, each from the lowest string. */
const onsetsOf = (notes: readonly TabNote[]): TabNote[][] =>
  Object.values(groupBy(notes, (n) => n.pos.tick)).map((onset) =>
    onset.sort((a, b) => b.place.string - a.place.string),
  )

/** The numbers of the strings that are plucked at each onset, the lowest string first. */
export function StringNumbers({
  notes,
  x,
  y,
}: {
  notes: readonly TabNote[]
  x: (tick: number) => number
  y: number
}) {
  return onsetsOf(notes.filter((n) => n.right !== 'none')).map((onset) => (
    <text key={onset[0]!.pos.tick} className="count strings" x={x(onset[0]!.pos.tick)} y={y}>
      {onset.map((n) => n.place.string).join('\u2009')}
    </text>
  ))
}

/** The picking hand under the tab, onset by onset. */
export function Picking({
  notes,
  x,
  y,
}: {
  notes: readonly TabNote[]
  x: (tick: number) => number
  y: number
}) {
  return onsetsOf(notes).map((onset) => (
    <PickSigns key={onset[0]!.pos.tick} onset={onset} x={x(onset[0]!.pos.tick)} y={y} />
  ))
}

/** The picking hand under an onset: one stroke sign for a pick; the thumb beneath the fingers. */
function PickSigns({ onset, x, y }: { onset: readonly TabNote[]; x: number; y: number }) {
  const signs = [...new Set(onset.map((n) => n.right))]
  const plain = signs.filter((s) => s !== 'none')
  const stroke = plain.find((s) => s === 'down' || s === 'up')
  const fingers = plain.filter((s) => s !== 'down' && s !== 'up' && s !== 'p')
  const lower = y + (fingers.length > 0 ? 14 : 0)
  return (
    <g>
      {fingers.length > 0 ? (
        <text className="pick" x={x} y={y}>
          {fingers.join('')}
        </text>
      ) : null}
      {signs.includes('p') ? (
        <text className="pick" x={x} y={y + 14}>
          p
        </text>
      ) : null}
      {stroke ? (
        <path
          className={css['stroke-sign']}
          d={
            stroke === 'down'
              ? `M ${x - 4} ${lower} v -8 h 8 v 8`
              : `M ${x - 4} ${lower - 9} L ${x} ${lower} L ${x + 4} ${lower - 9}`
          }
        />
      ) : null}
    </g>
  )
}

/** Words to the student under their notes. */
export function Remarks({
  notes,
  x,
  y,
}: {
  notes: readonly TabNote[]
  x: (tick: number) => number
  y: number
}) {
  return notes.map((n) =>
    remarkLines(n.remark ?? '').map((line, i) =>
      line ? (
        <text key={`${n.id}.${i}`} className="remark" x={x(n.pos.tick) - 5} y={y + i * 12}>
          {line}
        </text>
      ) : null,
    ),
  )
}

/** The interval of each double stop, beneath the tab. */
export function Intervals({
  model,
  notes,
  x,
  y,
}: {
  model: SheetModel
  notes: readonly TabNote[]
  x: (tick: number) => number
  y: number
}) {
  const { t } = useTranslation()
  const found = doubleStops(model, notes)
  return found.map(({ tick, interval }) => (
    <text key={tick} className={css.interval} x={x(tick)} y={y}>
      {t(`sheet.intervalShort.${interval.number as 1}`)}
      <title>
        {t(`sheet.interval.${interval.quality}`, { number: t(`sheet.ordinal.${interval.number as 1}`) })}
      </title>
    </text>
  ))
}
