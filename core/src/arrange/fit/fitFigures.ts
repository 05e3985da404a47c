import { knownIn } from '../../invariant.ts'
import { effortAlone, tuneEffort } from '../../hand/effort/effort.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import { widestReach } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import { bassPitchClass } from '../../music/harmony/chordSymbol.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { openPitch, type Setup } from '../../instrument/setup.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import { harmonyLine } from '../plan/harmonyLine.ts'

/** What an arrangement costs, read from its notes. Measures are indices. */
export interface FitFigures {
  /** Mean effort, and the hardest measure's. */
  readonly effort: number
  readonly hardest: { readonly measure: number; readonly effort: number }
  /** The widest pair of fingers in mm, and where. */
  readonly stretch: { readonly mm: number; readonly measure: number }
  readonly barres: number
  /** Changes of harmony, and those whose root is an open bass string. */
  readonly changes: number
  readonly openRoots: number
  /** Lowest and highest fret of the melody, counted from the capo; absent where it is sung. */
  readonly room?: { readonly low: number; readonly high: number }
}

/** Measures the layer of a tune on a setup. */
export function fitFigures(tune: TuneDoc, setup: Setup, layer: Layer, transposed: number): FitFigures {
  const timeline = timelineOf(tune.measures)
  const { mean, hardest } = tuneEffort(effortAlone(tune, setup, layer, timeline))
  let stretch = { mm: 0, measure: 0 }
  let barres = 0
  for (const grip of layer.grips) {
    const mm = widestReach(setup, pressedOf(grip.pressed))
    if (mm > stretch.mm) stretch = { mm, measure: knownIn(timeline.indexOf, grip.pos.measure) }
    if (new Set(grip.pressed.map((p) => p.finger)).size < grip.pressed.length) barres++
  }
  const frets = layer.notes.filter((n) => n.role === 'melody').map((n) => n.place.fret)
  const { changes, open } = openRoots(tune, setup, transposed)
  return {
    effort: mean,
    hardest: { measure: hardest?.measure ?? 0, effort: hardest?.effort ?? 0 },
    stretch: { mm: Math.round(stretch.mm), measure: stretch.measure },
    barres,
    changes,
    openRoots: open,
    ...(frets.length > 0 ? { room: { low: Math.min(...frets), high: Math.max(...frets) } } : {}),
  }
}

/** Changes of harmony whose bass is one of the lower strings, open. */
function openRoots(tune: TuneDoc, setup: Setup, transposed: number): { changes: number; open: number } {
  const harmony = harmonyLine(tune, timelineOf(tune.measures), setup.capo[0]!, transposed)
  const { strings } = setup.instrument
  const low = new Set<number>()
  for (let string = Math.floor(strings / 2) + 1; string <= strings; string++)
    low.add(mod12(openPitch(setup, string)))
  const chords = harmony.flatMap((h) => (h.sounding ? [h.sounding] : []))
  return { changes: chords.length, open: chords.filter((c) => low.has(bassPitchClass(c))).length }
}
