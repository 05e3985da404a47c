import { groupBy } from 'es-toolkit'
import type { Layer, Region } from '../../document/arrangement.ts'
import { isSolo } from '../../document/style.ts'
import type { Measure } from '../../document/tune.ts'
import type { Instrument } from '../../instrument/instrument.ts'
import { beatLength } from '../../music/time/metre.ts'
import { styleRules } from '../plan/styleRules.ts'

/** Voices of a chord that is worth rolling. No source. */
const LEAST_VOICES = 4

/** Full chords that sound long are rolled where their style breathes so. */
export function withRolls<T extends Pick<Layer, 'notes'>>(
  layer: T,
  regionOf: readonly (Region | undefined)[],
  measures: readonly Measure[],
  instrument: Instrument,
): T {
  const rolled = new Set<string>()
  const byMeasure = groupBy(layer.notes, (n) => n.pos.measure)
  measures.forEach((measure, m) => {
    const region = regionOf[m]
    if (!region || !isSolo(region.style) || region.given) return
    const { rolls } = styleRules(region.style, region.level, instrument, region.without)
    if (rolls === undefined) return
    for (const chord of Object.values(groupBy(byMeasure[measure.id] ?? [], (n) => n.pos.tick))) {
      const isLong = chord.some(
        (n) => n.role === 'melody' && n.dur.ticks >= rolls * beatLength(measure.metre),
      )
      const isPlucked = chord.every((n) => n.attack === 'pluck' && !n.place.harmonic)
      if (isLong && isPlucked && chord.length >= LEAST_VOICES) for (const n of chord) rolled.add(n.id)
    }
  })
  if (rolled.size === 0) return layer
  return { ...layer, notes: layer.notes.map((n) => (rolled.has(n.id) ? { ...n, rolled: true as const } : n)) }
}
