import type { Player } from '../../instrument/hand.ts'
import { INSTRUMENTS, type InstrumentKind } from '../../instrument/instruments.ts'
import type { Setup } from '../../instrument/setup.ts'
import { highestCapo, setupOf } from '../../instrument/setupOf.ts'
import { midiOf, type Midi, type Step } from '../../music/pitch/pitch.ts'
import { placeIn, type XmlPart } from './readParts.ts'
import { children, numberIn, textIn } from './xmlTree.ts'

/** The highest number that a string of a part has; 0 where it has no tab. */
export const highestString = ({ measures }: XmlPart): number =>
  Math.max(0, ...measures.flatMap((m) => m.notes.map((n) => placeIn(n.element)?.string ?? 0)))

/** The instrument that a part is played on, by its strings and tuning. */
export function setupOfPart(part: XmlPart, player: Player): Setup | undefined {
  const lines = numberIn(part.details, 'staff-lines')
  const tunings = [...children(part.details, 'staff-tuning')].sort(
    (a, b) => Number(b.attributes['line'] ?? 0) - Number(a.attributes['line'] ?? 0),
  )
  const stated = tunings.flatMap((t): Midi[] => {
    const step = textIn(t, 'tuning-step')
    const octave = numberIn(t, 'tuning-octave')
    if (!step || octave === undefined) return []
    return [midiOf({ step: step as Step, alter: numberIn(t, 'tuning-alter') ?? 0, octave })]
  })
  const highest = highestString(part)
  const strings = stated.length || lines || (highest <= 4 ? 4 : 6)
  const kinds = (Object.keys(INSTRUMENTS) as InstrumentKind[]).filter(
    (k) => INSTRUMENTS[k].instrument.strings === strings,
  )
  if (kinds.length === 0 || highest > strings) return undefined
  const away = (k: InstrumentKind) =>
    stated.reduce((sum, open, i) => sum + Math.abs(open - INSTRUMENTS[k].usual[i]!), 0)
  const kind = kinds.reduce((best, k) => (away(k) < away(best) ? k : best))
  const tuning = stated.length === strings ? stated : INSTRUMENTS[kind].usual
  const fret = Math.max(0, Math.min(Math.round(numberIn(part.details, 'capo') ?? 0), highestCapo(kind)))
  return setupOf(kind, tuning, { fret }, player)
}
