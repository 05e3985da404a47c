import type { AuditReport } from '../../audit/audit.ts'
import type { FinishedTab, SourceNote, WrittenNote } from '../../audit/finishedTab.ts'
import { measureNumbers } from '../../form/measureNumbers.ts'
import { ticksAt } from '../../form/timeline.ts'
import { bassPitchClass, chordPitchClasses, chordText, readChordSymbol } from '../../harmony/chordSymbol.ts'
import type { Layer } from '../../model/arrangement.ts'
import type { TuneDoc } from '../../model/tune.ts'
import { guitarSetup, pitchAt, type Setup } from '../../neck/setup.ts'
import { keyText } from '../../pitch/key.ts'
import { midiOf } from '../../pitch/pitch.ts'
import type { Plan } from '../../plan/plan.ts'
import { ringOf } from '../../ring/ring.ts'

/** What `porch arrange --json` prints. Version 1; fields are added, never changed or removed. */
export interface TabJson {
  readonly schemaVersion: 1
  readonly tune: {
    readonly title: string
    readonly measures: readonly {
      index: number
      number: number
      start: number
      length: number
      metre: string
      key: string
    }[]
    /** Measure indices in played order. */
    readonly order: readonly number[]
    readonly tempos: readonly { start: number; bpm: number }[]
  }
  readonly setup: { readonly tuning: readonly number[]; readonly capo: number }
  readonly transposed: number
  readonly source: readonly SourceNote[]
  readonly notes: readonly WrittenNote[]
  /** `symbol` is the shape behind the capo, `sounding` what is heard; equal without a capo. */
  readonly chords: readonly { start: number; symbol: string; sounding: string }[]
  readonly audit?: AuditReport
  readonly warnings: readonly string[]
  readonly elapsedMs: number
}

/** Writes an arranged tune as the stable JSON object, without its audit. */
export function tabJson(
  tune: TuneDoc,
  setup: Setup,
  plan: Plan,
  layer: Layer,
  warnings: readonly string[],
  elapsedMs: number,
): TabJson {
  const { timeline } = plan
  const numbers = measureNumbers(tune.measures)
  const rings = ringOf(layer, timeline)
  return {
    schemaVersion: 1,
    tune: {
      title: tune.title,
      measures: tune.measures.map((m, i) => ({
        index: i,
        number: numbers[i]!,
        start: timeline.starts[i]!,
        length: m.length,
        metre: `${m.metre.num}/${m.metre.den}`,
        key: keyText(m.key),
      })),
      order: plan.unfolded.order.map((o) => o.measure),
      tempos: tune.tempos.map((t) => ({ start: ticksAt(timeline, t.pos), bpm: t.bpm })),
    },
    setup: { tuning: [...setup.tuning].reverse(), capo: setup.capo[0]! },
    transposed: plan.transposed,
    source: plan.melody.map((n) => ({ start: n.start, duration: n.duration, midi: midiOf(n.pitch) })),
    notes: layer.notes.map((n) => ({
      measure: timeline.indexOf.get(n.pos.measure)!,
      start: ticksAt(timeline, n.pos),
      duration: n.dur.ticks,
      ring: rings.get(n.id)!,
      string: n.place.string,
      fret: n.place.fret,
      midi: pitchAt(setup, n.place),
      role: n.role,
      leftFinger: n.left,
      rightFinger: n.right,
      technique: n.attack,
    })),
    chords: plan.harmony.map((h) => ({
      start: h.start,
      symbol: h.shape ? chordText(h.shape) : h.symbol,
      sounding: h.sounding ? chordText(h.sounding) : h.symbol,
    })),
    warnings,
    elapsedMs,
  }
}

/** The audit's view of such an object. */
export function finishedTabOf(json: TabJson): FinishedTab {
  const capo = json.setup.capo
  const setup: Setup = { ...guitarSetup(capo), tuning: [...json.setup.tuning].reverse() }
  return {
    setup,
    transposed: json.transposed,
    measures: json.tune.measures,
    order: json.tune.order,
    tempos: json.tune.tempos,
    source: json.source,
    notes: json.notes,
    chords: json.chords.map((c) => {
      const reading = readChordSymbol(c.sounding)
      return reading.kind === 'chord'
        ? {
            start: c.start,
            symbol: c.sounding,
            bass: bassPitchClass(reading.chord),
            tones: chordPitchClasses(reading.chord),
          }
        : { start: c.start, symbol: c.sounding }
    }),
    rootsWanted: true,
  }
}
