import { INSTRUMENTS, type InstrumentKind } from '../../instrument/instruments.ts'
import type { Setup } from '../../instrument/setup.ts'
import { highestCapo, setupOf } from '../../instrument/setupOf.ts'
import { readTuning } from '../../instrument/tunings.ts'
import { pitchText, plainPitch } from '../../music/pitch/pitch.ts'

/** A directive of our own: ABC 2.1 has readers pass over those that they do not know. */
const LINE = /^%%porch-strings (\w+) ([A-G0-9#b -]+?)(?: capo (\d+))?$/m

/**
 * Instrument, tuning from the lowest string and capo of a tab in ABC.
 * @example stringsLine(guitarSetup(2)) // '%%porch-strings guitar E2 A2 D3 G3 B3 E4 capo 2'
 */
export function stringsLine({ instrument, tuning, capo }: Setup): string {
  const notes = tuning.toReversed().map((m) => pitchText(plainPitch(m, false)))
  const fret = capo[0] ?? 0
  return `%%porch-strings ${instrument.kind} ${notes.join(' ')}${fret > 0 ? ` capo ${fret}` : ''}`
}

/** The setup that such a line of a text says; undefined where it has none, or one that no instrument here is. */
export function setupInAbc(text: string, player: Setup['player']): Setup | undefined {
  const [, name, notes, fret] = LINE.exec(text) ?? []
  const kind = (Object.keys(INSTRUMENTS) as InstrumentKind[]).find((k) => k === name)
  if (!kind || notes === undefined) return undefined
  const read = readTuning(kind, notes)
  if (!('tuning' in read)) return undefined
  const capo = Math.min(Number(fret ?? 0), highestCapo(kind))
  return setupOf(kind, read.tuning, { fret: capo }, player)
}
