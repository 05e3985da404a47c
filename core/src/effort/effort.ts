import { fretFromNut } from '../neck/geometry.ts'
import { widestReach } from '../grip/handRules.ts'
import type { Pressed } from '../grip/pressed.ts'
import { ticksAt, type Timeline } from '../form/timeline.ts'
import type { Layer } from '../model/arrangement.ts'
import type { TuneDoc } from '../model/tune.ts'
import type { Setup } from '../neck/setup.ts'
import { secondsOf } from '../time/ticks.ts'
import { USUAL_TEMPO } from '../time/tempo.ts'

/** How hard a measure is, in named parts. Each part's `value` is in `unit`; `points` are added up to the effort. */
export interface EffortPart {
  readonly part: 'stretch' | 'shift' | 'barre' | 'changes' | 'picking'
  readonly points: number
  readonly value: number
  readonly unit: 'mm' | 'mm/s' | 'string·s' | 'fingers/s' | 'notes/s'
}

export interface MeasureEffort {
  readonly measure: number
  readonly effort: number
  /** Largest first; parts without points are left out. */
  readonly parts: readonly EffortPart[]
}

/** A reach that is held without strain, in mm on an adult hand; the frame of four frets at the nut is wider. */
const COMFORT_MM = 75

/**
 * Effort of each measure of a finished tab at a tempo. A first, simple measure of the work: stretch beyond comfort,
 * hand travel, barres held, fingers landed and notes plucked a second. It rises with tempo and falls with fewer notes.
 * @param tempoShare share of the tune's own tempo
 */
export function effortOf(
  tune: TuneDoc,
  setup: Setup,
  layer: Layer,
  timeline: Timeline,
  tempoShare = 1,
): MeasureEffort[] {
  const bpm = (tune.tempos[0]?.bpm ?? USUAL_TEMPO) * tempoShare
  const grips = layer.grips.map((g) => ({
    g,
    start: ticksAt(timeline, g.pos),
    end: ticksAt(timeline, g.until),
    measure: timeline.indexOf.get(g.pos.measure)!,
  }))
  const sums = tune.measures.map((m) => ({
    stretch: 0,
    shift: 0,
    barre: 0,
    landed: 0,
    plucked: 0,
    seconds: secondsOf(m.length, bpm),
  }))
  grips.forEach(({ g, start, end, measure }, i) => {
    const sum = sums[measure]!
    const pressed: Pressed[] = g.pressed.flatMap((p) =>
      p.finger === 'T' ? [] : [{ ...p, finger: p.finger }],
    )
    sum.stretch = Math.max(sum.stretch, widestReach(setup, pressed) - COMFORT_MM)
    const barred = pressed.length - new Set(pressed.map((p) => p.finger)).size
    if (barred > 0) sum.barre += (barred + 1) * secondsOf(end - start, bpm)
    const before = grips[i - 1]?.g
    if (!before) return
    const capo = setup.capo[0]!
    const at = (position: number) => fretFromNut(setup.instrument.scaleLength, position + capo)
    if (pressed.length > 0) sum.shift += Math.abs(at(g.position) - at(before.position))
    sum.landed += pressed.filter(
      (p) => !before.pressed.some((b) => b.finger === p.finger && b.string === p.string && b.fret === p.fret),
    ).length
  })
  for (const n of layer.notes) sums[timeline.indexOf.get(n.pos.measure)!]!.plucked++
  return sums.map((s, measure) => {
    const parts: EffortPart[] = [
      { part: 'stretch', value: Math.max(0, s.stretch), unit: 'mm', points: Math.max(0, s.stretch) / 12 },
      { part: 'shift', value: s.shift / s.seconds, unit: 'mm/s', points: s.shift / s.seconds / 40 },
      { part: 'barre', value: s.barre, unit: 'string·s', points: s.barre / 5 },
      { part: 'changes', value: s.landed / s.seconds, unit: 'fingers/s', points: s.landed / s.seconds / 1.6 },
      { part: 'picking', value: s.plucked / s.seconds, unit: 'notes/s', points: s.plucked / s.seconds / 2.5 },
    ]
    const kept = parts.filter((p) => p.points > 0.05).sort((a, b) => b.points - a.points)
    return { measure, effort: Math.round(kept.reduce((sum, p) => sum + p.points, 0) * 10) / 10, parts: kept }
  })
}
