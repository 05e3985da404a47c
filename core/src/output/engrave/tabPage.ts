import { timelineOf } from '../../document/form/timeline.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { sungIn, type SungAt } from '../../document/verses.ts'
import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { harmonyLine, type HarmonySegment } from '../../arrange/plan/harmonyLine.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { paperStaff, type DrawStaff, type PaperStaff } from './paperStaff.ts'

/** What stands over and under the lines of a printed tab. */
export interface PaperLayers {
  readonly chords: 'shapes' | 'sounding' | 'none'
  readonly fingers: boolean
  readonly picking: boolean
  readonly counts: boolean
  readonly strings: boolean
  readonly rhythm: boolean
  readonly lyrics: boolean
  /** The notes on five lines over the tab, where somebody draws them (`PaperOptions.drawStaff`). */
  readonly staff?: boolean
}

export const USUAL_PAPER_LAYERS: PaperLayers = {
  chords: 'shapes',
  fingers: true,
  picking: true,
  counts: false,
  strings: false,
  rhythm: true,
  lyrics: true,
}

export interface PaperOptions {
  /** Room in px: CSS pixels on the screen, 1/96 inch on paper. */
  readonly width: number
  readonly layers: PaperLayers
  readonly naming: NoteNaming
  /** Measures, by index, both ends included; absent: all. */
  readonly from?: number
  readonly to?: number
  readonly drawStaff?: DrawStaff
}

/** Px from line to line of the tab. */
export const GAP = 12

/** What all systems of a tab share. */
export interface Page {
  readonly tune: TuneDoc
  readonly doc: ArrangementDoc
  readonly options: PaperOptions
  readonly numbers: readonly number[]
  readonly strings: number
  readonly notes: ReadonlyMap<string, readonly TabNote[]>
  readonly joinTo: ReadonlyMap<string, { readonly from: TabNote; readonly kind: string }>
  readonly sung: ReadonlyMap<string, readonly SungAt[]>
  readonly harmony: readonly HarmonySegment[]
  readonly starts: readonly Ticks[]
  readonly rows: Rows
  readonly staff: PaperStaff | undefined
}

/** Base lines and edges, from the top. */
interface Rows {
  readonly section: number
  readonly chords: number
  /** Top line of the staff; without one, of the tab. */
  readonly barTop: number
  readonly top: number
  readonly bottom: number
  readonly rhythm: number
  readonly counts: number
  readonly picking: number
  readonly strings: number
  readonly lyrics: number
  readonly height: number
}

/** What the drawing of every system asks for, worked out once. */
export function pageOf(tune: TuneDoc, doc: ArrangementDoc, options: PaperOptions): Page {
  const { layers, drawStaff } = options
  const { base, setup } = doc
  const timeline = timelineOf(tune.measures)
  const byId = new Map(base.notes.map((n) => [n.id, n]))
  const sung = layers.lyrics ? sungIn(tune) : []
  const verses = Math.max(0, ...sung.map((s) => s.verses.length))
  const harmony = layers.chords === 'none' ? [] : harmonyLine(tune, timeline, setup.capo[0]!, doc.transposed)
  const staff = layers.staff && drawStaff ? paperStaff(tune, doc, drawStaff) : undefined
  return {
    tune,
    doc,
    options,
    numbers: measureNumbers(tune.measures),
    strings: setup.instrument.strings,
    notes: by(base.notes, (n) => n.pos.measure),
    joinTo: new Map(
      base.spans.flatMap((s) => {
        const first = byId.get(s.from)
        return first ? [[s.to, { from: first, kind: s.kind }] as const] : []
      }),
    ),
    sung: by(sung, (s) => s.measure),
    harmony,
    starts: timeline.starts,
    rows: rowsOf(tune, doc, layers, staff, harmony.length > 0, verses),
    staff,
  }
}

function rowsOf(
  tune: TuneDoc,
  doc: ArrangementDoc,
  layers: PaperLayers,
  staff: PaperStaff | undefined,
  chords: boolean,
  verses: number,
): Rows {
  const marks = tune.sections.length > 0 || tune.measures.some((m) => m.endings.length > 0)
  const signs =
    doc.base.notes.some((n) => n.bend || n.accent || n.fermata || n.palmMute) || doc.base.spans.length > 0
  let y = 4
  const section = (y += marks ? 12 : 0)
  const chordLine = (y += chords ? 15 : 0)
  const staffTop = (y += staff ? Math.max(12, staff.above) : 0)
  y += staff ? staff.lines + staff.below : 0
  const top = (y += 12 + (signs ? 12 : 0))
  const bottom = (y += (doc.setup.instrument.strings - 1) * GAP)
  const row = (on: boolean, height: number) => (y += on ? height : 0)
  const rhythm = row(layers.rhythm, 26)
  const counts = row(layers.counts, 15)
  const picking = row(layers.picking, 16)
  row(layers.picking, 12)
  const strings = row(layers.strings, 14)
  const lyrics = row(verses > 0, 16)
  row(verses > 1, (verses - 1) * 14)
  const barTop = staff ? staffTop : top
  return {
    section,
    chords: chordLine,
    barTop,
    top,
    bottom,
    rhythm,
    counts,
    picking,
    strings,
    lyrics,
    height: y + 9,
  }
}

function by<T>(list: readonly T[], key: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const x of list) {
    const own = groups.get(key(x))
    if (own) own.push(x)
    else groups.set(key(x), [x])
  }
  return groups
}

/** Height of a string's line. */
export const stringY = ({ rows }: Page, string: number): number => rows.top + (string - 1) * GAP
