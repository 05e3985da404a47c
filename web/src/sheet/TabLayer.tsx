import {
  chordText,
  countAt,
  isArrival,
  missingHead,
  pitchAt,
  type HarmonySegment,
  type Id,
  type Measure,
  type NoteReading,
  type TabNote,
  type TuneEvent,
} from '@velvet-porch/core'
import { xAt, type PlacedMeasure, type SystemLayout } from '@velvet-porch/core/layout'
import { Fragment } from 'react'
import { useTranslation } from 'react-i18next'
import { LYRIC_GAP, STAFF_SCALE, TAB_GAP, type Rows } from './metrics.ts'
import { useNames } from '../names/useNames.ts'
import { doubleStops } from './doubleStops.ts'
import { printed } from '../shapes/degreeLabel.ts'
import { chordLabel, inFlats, METRE_WIDTH, versesOf, type SheetModel } from './sheetModel.ts'

const tabY = (rows: Rows, string: number) => rows.tabTop + (string - 1) * TAB_GAP

export interface TabLayers {
  readonly fingers: boolean
  readonly picking: boolean
  readonly counts: boolean
  readonly degrees: boolean
}

/** Notes and measures that are marked out: locked ones, and those that another version has otherwise. */
export interface Lit {
  readonly locked: ReadonlySet<Id>
  readonly changed: ReadonlySet<Id> | undefined
}

/** Tab and text lanes of one system, at the x of the layout contract. */
export function TabLayer({
  model,
  system,
  layers,
  rows,
  lit,
}: {
  model: SheetModel
  system: SystemLayout
  layers: TabLayers
  rows: Rows
  lit?: Lit | undefined
}) {
  const strings = model.layer ? (model.setup?.instrument.strings ?? 6) : 0
  const end = system.measures.at(-1)!
  const right = end.x + end.width
  return (
    <g>
      {Array.from({ length: strings }, (_, s) => (
        <line key={s} className="tab-line" x1={0} x2={right} y1={tabY(rows, s + 1)} y2={tabY(rows, s + 1)} />
      ))}
      {strings > 0 ? (
        <line className="bar-line" x1={0.5} x2={0.5} y1={rows.staffTop} y2={rows.tabBottom} />
      ) : null}
      {system.measures.map((placed, k) => (
        <MeasureLanes
          key={placed.index}
          model={model}
          placed={placed}
          first={k === 0}
          layers={layers}
          strings={strings}
          rows={rows}
          lit={lit}
        />
      ))}
    </g>
  )
}

function MeasureLanes({
  model,
  placed,
  first,
  layers,
  strings,
  rows,
  lit,
}: {
  model: SheetModel
  placed: PlacedMeasure
  first: boolean
  layers: TabLayers
  strings: number
  rows: Rows
  lit: Lit | undefined
}) {
  const names = useNames()
  const { t } = useTranslation()
  const measure = model.tune.measures[placed.index]!
  const start = model.timeline.starts[placed.index]!
  const chords = model.harmony.filter((h) => h.start >= start && h.start < start + measure.length)
  const marks = new Map(
    model.tune.chords.map((c) => [
      model.timeline.starts[model.timeline.indexOf.get(c.pos.measure)!]! + c.pos.tick,
      c,
    ]),
  )
  const section = model.tune.sections.find((s) => s.measure === measure.id)
  const notes = model.notes.get(placed.index) ?? []
  const x = (tick: number) => xAt(placed, tick, measure.length)
  // A bottleneck is one finger all along: its digit would say nothing.
  const bottled = model.bottleStyle.has(measure.id)
  return (
    <g>
      {section?.name ? (
        <text className="section-name" x={first ? 0 : placed.x + 4} y={12}>
          {section.name}
        </text>
      ) : null}
      <text className="measure-number" x={first ? 2 : placed.x + 3} y={rows.staffTop - 6}>
        {model.numbers[placed.index] || ''}
      </text>
      {chords.map((h) => (
        <text
          key={h.start}
          className={`chord-name${marks.get(h.start)?.origin === 'suggested' ? ' suggested' : ''}${h.shape ? '' : ' unknown'}${isPinned(model, h) ? ' pinned' : ''}`}
          x={x(h.start - start) - 5}
          y={rows.chords}
        >
          {chordLabel(h, names)}
          {isPinned(model, h) ? <title>{t('sheet.pinned')}</title> : null}
        </text>
      ))}
      <Endings model={model} placed={placed} rows={rows} />
      {lit?.locked.has(measure.id) ? (
        <LockSign x={placed.x + placed.width - 14} y={rows.staffTop - 16} />
      ) : null}
      {notes.map((n) => {
        const text = fretText(n)
        const at = x(n.pos.tick)
        const y = tabY(rows, n.place.string)
        const half = 4.6 * text.length
        const name = model.setup ? names.pitch(pitchAt(model.setup, n.place), inFlats(model)) : ''
        const isChanged = lit?.changed?.has(n.id) ?? false
        return (
          <Fragment key={n.id}>
            <rect
              className={isChanged ? 'tab-halo changed' : 'tab-halo'}
              x={at - half - 1}
              y={y - 7}
              width={2 * half + 2}
              height={14}
            />
            <text className={`tab-fret ${n.role}`} x={at} y={y + 4.8} data-note={n.id}>
              {text}
              <title>{titleOf(t, name, n)}</title>
            </text>
            {n.palmMute && isTop(notes, n) ? (
              <text className="join-letter" x={at} y={rows.tabTop - 8}>
                {t('sheet.palm')}
                <title>{t('sheet.palmTitle')}</title>
              </text>
            ) : null}
            {n.accent && isTop(notes, n) ? <AccentSign x={at} y={rows.tabTop - 9} /> : null}
            {n.graces ? <Graces note={n} right={at - half - 2} y={y} /> : null}
            {n.bend ? <BendSign note={n} x={at + half + 2} y={y} /> : null}
            {n.damp ? <DampSign x={at + half + 3} y={y + 7} /> : null}
            {n.place.offsetCents ? (
              <text className="join-letter" x={at - half - 4} y={y - 5}>
                {n.place.offsetCents < 0 ? '↓' : '↑'}
                <title>{t('sheet.offset', { cents: n.place.offsetCents })}</title>
              </text>
            ) : null}
            {n.vibrato ? <VibratoSign x={at + half + 4} y={y - 9} /> : null}
            {n.attack === 'tremolo' ? <TremoloSign x={at} y={y + 9} /> : null}
            {lit?.locked.has(n.id) ? <LockSign x={at - half - 8} y={y - 5} /> : null}
            {layers.fingers && n.left !== 0 && !bottled ? (
              <text className="finger" x={at + half + 4.5} y={y - 2.5}>
                {n.left}
              </text>
            ) : null}
          </Fragment>
        )
      })}
      {ringsFrom(model, placed.index) ? (
        <text className="join-letter left" x={x(notes[0]!.pos.tick) - 6} y={rows.tabTop - 8}>
          {t('sheet.letRing')}
        </text>
      ) : null}
      <Joins model={model} measure={placed.index} x={x} rows={rows} />
      <Words events={model.sung.get(placed.index) ?? []} x={x} y={rows.lyrics} />
      {layers.degrees ? (
        <Degrees readings={model.readings.get(placed.index) ?? []} start={start} x={x} y={rows.degrees} />
      ) : null}
      {layers.counts ? <Counts measure={measure} notes={notes} x={x} y={rows.counts} /> : null}
      {layers.picking
        ? onsetsOf(notes).map((onset) => (
            <PickSigns key={onset[0]!.pos.tick} onset={onset} x={x(onset[0]!.pos.tick)} y={rows.picking} />
          ))
        : null}
      {model.setup ? <Intervals model={model} notes={notes} x={x} y={rows.intervals} /> : null}
      <BarLines model={model} placed={placed} first={first} rows={rows} strings={strings} />
    </g>
  )
}

/** A fret as it stands in the tab: harmonics in angles, muted strings crosses, what may be left out in brackets. */
function fretText({ place, attack, optional }: TabNote): string {
  const text = attack === 'muted' ? '×' : place.harmonic ? `‹${place.fret}›` : String(place.fret)
  return optional ? `(${text})` : text
}

/** True where a measure begins to let its notes ring, after one that did not. */
function ringsFrom({ notes }: SheetModel, measure: number): boolean {
  const rings = (m: number) => notes.get(m)?.some((n) => n.letRing) ?? false
  return rings(measure) && !rings(measure - 1)
}

/** True for the note of an onset on its highest string. */
const isTop = (notes: readonly TabNote[], note: TabNote): boolean =>
  !notes.some((n) => n.pos.tick === note.pos.tick && n.place.string < note.place.string)

const JOIN_SIGNS = { hammer: 'h', pull: 'p', slide: '', bend: '', release: 'r' } as const

/** Slurs of the fretting hand: an arc from note to note with its letter, a line for a slide. Into the measure from its left edge. */
function Joins({
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
        <path key={to.id} className="join-sign" d={`M ${left + 1} ${y + way} L ${right - 1} ${y - way}`}>
          <title>{title}</title>
        </path>
      )
    }
    return (
      <g key={to.id}>
        <path className="join-sign" d={`M ${left - 3} ${y - 9} Q ${mid} ${y - 15} ${right + 3} ${y - 9}`}>
          <title>{title}</title>
        </path>
        <text className="join-letter" x={mid} y={y - 12}>
          {JOIN_SIGNS[kind]}
        </text>
      </g>
    )
  })
}

/** Short notes before a note, small, joined by the letters of what the finger does. */
function Graces({ note, right, y }: { note: TabNote; right: number; y: number }) {
  const { graces = [] } = note
  const letter = { pluck: '', hammer: 'h', pull: 'p', slide: '/', bend: 'b', release: 'r' } as const
  const parts = graces.map((g, i) => `${i > 0 ? letter[g.attack] : ''}${g.place.fret}`)
  const end = isArrival(note.attack) ? letter[note.attack] : ''
  const text = parts.join('') + end
  return (
    <>
      <rect
        className="tab-halo"
        x={right - 5.4 * text.length}
        y={y - 6}
        width={5.4 * text.length}
        height={12}
      />
      <text className="tab-grace" x={right} y={y + 3.4}>
        {text}
      </text>
    </>
  )
}

/** Whole steps of a bend's semitones. */
const STEPS_OF: Readonly<Record<number, string>> = { 0.5: '¼', 1: '½', 2: '1', 3: '1½', 4: '2' }

/** An arrow up with the bend's whole steps: curved where it rises, straight where the string is up already. */
function BendSign({ note: { bend, attack }, x, y }: { note: TabNote; x: number; y: number }) {
  const straight = attack !== 'bend'
  const tip = straight ? x + 2 : x + 8
  const curve = straight ? `M ${tip} ${y} V ${y - 14}` : `M ${x} ${y} Q ${tip} ${y} ${tip} ${y - 14}`
  return (
    <g>
      <path className="join-sign" d={`${curve} m -2.5 3 l 2.5 -4 l 2.5 4`} />
      <text className="join-letter" x={tip} y={y - 17}>
        {STEPS_OF[bend!] ?? bend}
      </text>
    </g>
  )
}

/** A small cross in a ring: the string is stopped when the next note sounds. */
function DampSign({ x, y }: { x: number; y: number }) {
  const { t } = useTranslation()
  return (
    <g className="join-sign">
      <circle cx={x} cy={y} r={2.6} />
      <path d={`M ${x - 4} ${y} H ${x + 4} M ${x} ${y - 4} V ${y + 4}`}>
        <title>{t('sheet.damp')}</title>
      </path>
    </g>
  )
}

/** A short wavy line. */
function VibratoSign({ x, y }: { x: number; y: number }) {
  return <path className="join-sign" d={`M ${x} ${y} q 2 -4 4 0 t 4 0 t 4 0 t 4 0`} />
}

/** The words under the staff, verse by verse; a hyphen stands between the syllables of a word. */
function Words({ events, x, y }: { events: readonly TuneEvent[]; x: (tick: number) => number; y: number }) {
  return events.map((e) =>
    versesOf(e).map((syllable, verse) => (
      <text key={`${e.id}.${verse}`} className="lyric" x={x(e.pos.tick) - 4} y={y + verse * LYRIC_GAP}>
        {syllable}
      </text>
    )),
  )
}

/** The degree of each melody note over its chord; notes that are not of the chord in brackets. */
function Degrees({
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
      <text key={r.start} className={r.outside ? 'degree outside' : 'degree'} x={x(r.start - start)} y={y}>
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
function Counts({
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
      {countAt(measure.metre, tick + missingHead(measure))}
    </text>
  ))
}

/** A wedge over an accented onset. */
function AccentSign({ x, y }: { x: number; y: number }) {
  return <path className="accent-sign" d={`M ${x - 4} ${y - 3} L ${x + 4} ${y} L ${x - 4} ${y + 3}`} />
}

/** True where the teacher pinned a shape for a chord in this tuning. */
const isPinned = ({ tune, setup }: SheetModel, { shape }: HarmonySegment): boolean =>
  Boolean(
    shape &&
    setup &&
    tune.pins?.some((p) => p.chord === chordText(shape) && p.tuning.join() === setup.tuning.join()),
  )

type T = ReturnType<typeof useTranslation>['t']

function titleOf(t: T, name: string, { place, attack }: TabNote): string {
  if (attack === 'muted') return t('sheet.mutedNote', { string: place.string })
  if (place.harmonic) return t('sheet.harmonic', { name, string: place.string, fret: place.fret })
  return place.fret === 0
    ? t('sheet.openNote', { name, string: place.string })
    : t('sheet.note', { name, string: place.string, fret: place.fret })
}

/** Notes by onset, each from the lowest string. */
function onsetsOf(notes: readonly TabNote[]): TabNote[][] {
  const byTick = new Map<number, TabNote[]>()
  for (const n of notes) byTick.set(n.pos.tick, [...(byTick.get(n.pos.tick) ?? []), n])
  return [...byTick.values()].map((onset) => onset.sort((a, b) => b.place.string - a.place.string))
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
          className="stroke-sign"
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

/** Three slashes under a note that trembles. */
function TremoloSign({ x, y }: { x: number; y: number }) {
  return (
    <path
      className="tremolo-sign"
      d={[0, 3, 6].map((d) => `M ${x - 4} ${y + d + 2} L ${x + 4} ${y + d - 1}`).join(' ')}
    />
  )
}

/** A small padlock. */
function LockSign({ x, y }: { x: number; y: number }) {
  return (
    <g className="lock-sign" transform={`translate(${x} ${y})`}>
      <path d="M 1.6 4 V 2.6 a 1.9 1.9 0 0 1 3.8 0 V 4" fill="none" />
      <rect x={0.4} y={4} width={6.2} height={5} rx={1} />
    </g>
  )
}

/** The interval of each double stop, beneath the tab. */
function Intervals({
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
    <text key={tick} className="interval" x={x(tick)} y={y}>
      {t(`sheet.intervalShort.${interval.number as 1}`)}
      <title>
        {t(`sheet.interval.${interval.quality}`, { number: t(`sheet.ordinal.${interval.number as 1}`) })}
      </title>
    </text>
  ))
}

function BarLines({
  model,
  placed,
  first,
  rows,
  strings,
}: {
  model: SheetModel
  placed: PlacedMeasure
  first: boolean
  rows: Rows
  strings: number
}) {
  const measure = model.tune.measures[placed.index]!
  const right = placed.x + placed.width
  const heavy = measure.barline === 'final' || measure.repeatEnd > 1
  const bottom = strings > 0 ? rows.tabBottom : rows.staffTop + 40 * STAFF_SCALE
  const line = (x: number, heavyLine = false) => (
    <line className={heavyLine ? 'bar-heavy' : 'bar-line'} x1={x} x2={x} y1={rows.staffTop} y2={bottom} />
  )
  const start = placed.x + (first && placed.index === 0 ? METRE_WIDTH : 0)
  return (
    <g>
      {heavy ? line(right - 2, true) : measure.barline === 'none' ? null : line(right - 0.5)}
      {heavy ? line(right - 6.5) : measure.barline === 'double' ? line(right - 4) : null}
      {measure.repeatEnd > 1 ? <Dots x={right - 11} rows={rows} strings={strings} /> : null}
      {measure.repeatStart ? (
        <>
          {line(start + 2, true)}
          {line(start + 6.5)}
          <Dots x={start + 11} rows={rows} strings={strings} />
        </>
      ) : null}
    </g>
  )
}

function Dots({ x, rows, strings }: { x: number; rows: Rows; strings: number }) {
  const gap = 10 * STAFF_SCALE
  const ys = [
    rows.staffTop + gap * 1.5,
    rows.staffTop + gap * 2.5,
    ...(strings > 0 ? [tabY(rows, (strings - 1) / 2), tabY(rows, (strings + 3) / 2)] : []),
  ]
  return ys.map((y) => <circle key={y} cx={x} cy={y} r={2.2} fill="var(--ink)" />)
}

function Endings({ model, placed, rows }: { model: SheetModel; placed: PlacedMeasure; rows: Rows }) {
  const measure = model.tune.measures[placed.index]!
  if (measure.endings.length === 0) return null
  const before = model.tune.measures[placed.index - 1]
  const starts = before?.endings.join() !== measure.endings.join()
  const left = placed.x + 2
  return (
    <g>
      <path
        className="ending-line"
        d={`M ${left} ${starts ? rows.top : 2} V 2 H ${placed.x + placed.width - 6}`}
      />
      {starts ? (
        <text className="ending" x={left + 5} y={14}>
          {measure.endings.join(', ')}.
        </text>
      ) : null}
    </g>
  )
}
