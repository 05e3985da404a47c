import { chordText } from '@velvet-porch/core/music'
import { OCTAVE, pitchAt } from '@velvet-porch/core/instrument'
import { rolledChords, type Id, type TabNote } from '@velvet-porch/core/document'
import type { HarmonySegment } from '@velvet-porch/core/arrange'
import { STRUCTURAL, type Finding } from '@velvet-porch/core/audit'
import { xAt, type PlacedMeasure, type SystemLayout } from '@velvet-porch/core/output/layout'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { BarLines, Endings } from './BarLines.tsx'
import { HeldBox } from './HeldBox.tsx'
import { tabY, type Rows } from './metrics.ts'
import { expressionWords, placeWords } from './noteWords.ts'
import { chordLabel, inFlats, type SheetModel } from './sheetModel.ts'
import { Counts, Degrees, Intervals, Picking, Remarks, StringNumbers, Words } from './TabLanes.tsx'
import {
  AccentSign,
  BendSign,
  DampSign,
  FaultSign,
  FermataSign,
  RollSign,
  Graces,
  Joins,
  LockSign,
  SlideSigns,
  TremoloSign,
  VibratoSign,
} from './TabSigns.tsx'
import { say } from '../../texts/say.ts'
import css from './TabLayer.module.css'
import sheetCss from './sheet.module.css'

export interface TabLayers {
  readonly fingers: boolean
  readonly picking: boolean
  readonly counts: boolean
  readonly degrees: boolean
  /** Numbers of the strings that are plucked. */
  readonly strings: boolean
  /** Words to the student. */
  readonly remarks: boolean
  /** Names of double stops. */
  readonly intervals: boolean
  /** Boxes of what the hand holds at each chord. */
  readonly boxes: boolean
  readonly names: 'shapes' | 'sounding'
}

/** A sheet with no layer but the notes. */
export const NO_LAYERS: TabLayers = {
  fingers: false,
  picking: false,
  counts: false,
  degrees: false,
  strings: false,
  remarks: false,
  intervals: true,
  boxes: false,
  names: 'shapes',
}

/** Notes and measures that are marked out: locked ones, and those that another version has otherwise. */
export interface Lit {
  readonly locked: ReadonlySet<Id>
  readonly changed: ReadonlySet<Id> | undefined
  /** Notes that the pen's tools change together. */
  readonly chosen?: ReadonlySet<Id> | undefined
  /** What the audit found, by measure index. */
  readonly faults?: Readonly<Record<number, readonly Finding[]>> | undefined
}

/** Tab and text layers of one system, at the x of the layout contract. */
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
        <line
          key={s}
          className={css['tab-line']}
          x1={0}
          x2={right}
          y1={tabY(rows, s + 1)}
          y2={tabY(rows, s + 1)}
        />
      ))}
      {strings > 0 && system.head > 0 ? (
        <line className={sheetCss['bar-line']} x1={0.5} x2={0.5} y1={rows.staffTop} y2={rows.tabBottom} />
      ) : null}
      {system.measures.map((placed, k) => (
        <MeasureLanes
          key={placed.index}
          model={model}
          placed={placed}
          first={k === 0 && system.head > 0}
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
  const chords = model.harmonyIn[placed.index]!
  const section = model.tune.sections.find((s) => s.measure === measure.id)
  const feel = model.feelMarks.get(measure.id)
  const notes = model.notes.get(placed.index) ?? []
  const x = (tick: number) => xAt(placed, tick, measure.length)
  // A bottleneck is one finger all along: its digit would say nothing.
  const bottled = model.bottleStyle.has(measure.id)
  return (
    <g>
      {section?.name || feel ? (
        <text className={css['section-name']} x={first ? 0 : placed.x + 4} y={12}>
          {section?.name}
          {feel ? (
            <tspan className={css['feel']} dx={section?.name ? 10 : 0}>
              {t(`feel.mark.${feel}`)}
            </tspan>
          ) : null}
        </text>
      ) : null}
      <text className={css['measure-number']} x={first ? 2 : placed.x + 3} y={rows.staffTop - 6}>
        {model.numbers[placed.index] || ''}
      </text>
      {chords.map((h) => (
        <text
          key={h.start}
          className={`chord-name${model.suggested.has(h.start) ? ' suggested' : ''}${h.shape ? '' : ' unknown'}${isPinned(model, h) ? ' pinned' : ''}`}
          x={x(h.start - start) - 5}
          y={rows.chords}
        >
          {chordLabel(h, names, layers.names === 'sounding')}
          {isPinned(model, h) ? <title>{t('sheet.pinned')}</title> : null}
        </text>
      ))}
      {layers.boxes && model.setup
        ? chords.map((h) => (
            <HeldBox
              key={h.start}
              model={model}
              segment={h}
              x={x(h.start - start) - 8}
              y={rows.chords - 13}
            />
          ))
        : null}
      <Endings model={model} placed={placed} rows={rows} />
      {lit?.locked.has(measure.id) ? (
        <LockSign x={placed.x + placed.width - 14} y={rows.staffTop - 16} />
      ) : null}
      {notes.map((n) => (
        <NoteMarks
          key={n.id}
          note={n}
          x={x(n.pos.tick)}
          top={isTop(notes, n)}
          model={model}
          rows={rows}
          lit={lit}
          finger={layers.fingers && !bottled}
        />
      ))}
      {rolledChords(notes).map((chord) => (
        <RollSign
          key={chord[0]!.pos.tick}
          x={x(chord[0]!.pos.tick) - 11}
          from={tabY(rows, Math.min(...chord.map((n) => n.place.string))) - 5}
          to={tabY(rows, Math.max(...chord.map((n) => n.place.string))) + 5}
        />
      ))}
      {ringsFrom(model, placed.index) ? (
        <text
          className={`${sheetCss['join-letter']} left`}
          x={x(notes[0]!.pos.tick) - 6}
          y={rows.tabTop - 13}
        >
          {t('sheet.letRing')}
        </text>
      ) : null}
      {lit?.faults?.[placed.index]?.map((f, i) => (
        <FaultSign
          key={i}
          x={x(f.start - start)}
          y={rows.tabBottom + 5}
          text={say(t, f.says)}
          wrong={STRUCTURAL.has(f.kind)}
        />
      ))}
      <Joins model={model} measure={placed.index} x={x} rows={rows} />
      <Words sung={model.sung.get(placed.index) ?? []} x={x} y={rows.lyrics} />
      {layers.degrees ? (
        <Degrees readings={model.readings.get(placed.index) ?? []} start={start} x={x} y={rows.degrees} />
      ) : null}
      {layers.counts ? <Counts measure={measure} notes={notes} x={x} y={rows.counts} /> : null}
      {layers.strings ? <StringNumbers notes={notes} x={x} y={rows.stringNumbers} /> : null}
      {layers.remarks ? <Remarks notes={notes} x={x} y={rows.remarks} /> : null}
      {layers.picking ? <Picking notes={notes} x={x} y={rows.picking} /> : null}
      {model.setup && layers.intervals ? (
        <Intervals model={model} notes={notes} x={x} y={rows.intervals} />
      ) : null}
      <BarLines model={model} placed={placed} first={first} rows={rows} strings={strings} />
    </g>
  )
}

/** One note: its fret, and the signs around it. */
function NoteMarks({
  note: n,
  x: at,
  top,
  model,
  rows,
  lit,
  finger,
}: {
  note: TabNote
  x: number
  /** True on the highest string of its onset: signs over the tab stand there. */
  top: boolean
  model: SheetModel
  rows: Rows
  lit: Lit | undefined
  /** True where its finger is shown. */
  finger: boolean
}) {
  const names = useNames()
  const { t } = useTranslation()
  const text = fretText(n)
  const y = tabY(rows, n.place.string)
  const half = 4.6 * text.length
  const name = model.setup ? names.pitch(pitchAt(model.setup, n.place) + (n.bend ?? 0), inFlats(model)) : ''
  const said = expressionWords(t, n)
  const halo = lit?.chosen?.has(n.id) ? ' chosen' : lit?.changed?.has(n.id) ? ' changed' : ''
  return (
    <>
      <rect className={`tab-halo${halo}`} x={at - half - 1} y={y - 7} width={2 * half + 2} height={14} />
      <text className={`${css['tab-fret']} ${n.role}`} x={at} y={y + 4.8} data-note={n.id}>
        {text}
        <title>{placeWords(t, name, n)}</title>
      </text>
      {n.palmMute && top ? (
        <text className={sheetCss['join-letter']} x={at} y={rows.tabTop - 8}>
          {t('sheet.palm')}
          <title>{t('sheet.palmTitle')}</title>
        </text>
      ) : null}
      {n.accent && top ? <AccentSign x={at} y={rows.tabTop - 9} /> : null}
      {n.fermata && top ? <FermataSign x={at} y={rows.tabTop - 10} /> : null}
      {n.staccato ? <circle className={css.staccato} cx={at} cy={y - 9} r={1.7} /> : null}
      {said ? (
        <text className="expression" x={n.fermata ? at + 10 : at - 6} y={rows.tabTop - 9}>
          {said}
        </text>
      ) : null}
      {n.graces ? <Graces note={n} right={at - half - 2} y={y} /> : null}
      {n.bend ? <BendSign note={n} x={at + half + (finger ? 9 : 2)} y={y} /> : null}
      {n.damp ? <DampSign x={at + half + 3} y={y + 7} /> : null}
      {n.place.offsetCents ? (
        <text className={sheetCss['join-letter']} x={at - half - 4} y={y - 5}>
          {n.place.offsetCents < 0 ? '↓' : '↑'}
          <title>{t('sheet.offset', { cents: n.place.offsetCents })}</title>
        </text>
      ) : null}
      <SlideSigns note={n} left={at - half} right={at + half + (finger && n.left !== 0 ? 8 : 0)} y={y} />
      {n.vibrato ? <VibratoSign x={at + half + 4} y={y - 9} /> : null}
      {n.attack === 'tremolo' ? <TremoloSign x={at} y={y + 9} /> : null}
      {lit?.locked.has(n.id) ? <LockSign x={at - half - 8} y={y - 5} /> : null}
      {finger && n.left !== 0 ? (
        <text className="finger" x={at + half + 4.5} y={y - 2.5}>
          {n.left}
        </text>
      ) : null}
    </>
  )
}

/**
 * A fret as it stands in the tab: harmonics in angles (an artificial one behind the fret that is stopped), muted strings
 * crosses, what may be left out in brackets.
 */
function fretText({ place, attack, optional }: TabNote): string {
  const touched = place.artificial ? `${place.fret}‹${place.fret + OCTAVE}›` : String(place.fret)
  const text = attack === 'muted' ? '×' : place.harmonic ? `‹${place.fret}›` : touched
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

/** True where the teacher pinned a shape for a chord in this tuning. */
const isPinned = ({ tune, setup }: SheetModel, { shape }: HarmonySegment): boolean =>
  Boolean(
    shape &&
    setup &&
    tune.pins?.some((p) => p.chord === chordText(shape) && p.tuning.join() === setup.tuning.join()),
  )
