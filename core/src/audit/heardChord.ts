import { mod12, nameText, plainName, type Midi } from '../music/pitch/pitch.ts'
import type { SoundingChord } from './finishedTab.ts'

/**
 * What a listener would take the sounding notes for, in words: the wanted chord over another bass, or notes
 * outside it.
 */
export function heardChord(midis: readonly Midi[], wanted: SoundingChord): string {
  if (midis.length === 0) return 'nothing sounds'
  const lowest = mod12(Math.min(...midis))
  const name = nameText(plainName(lowest, wanted.symbol.includes('b')))
  const tones = wanted.tones ?? []
  return tones.includes(lowest)
    ? `heard as ${wanted.symbol} over ${name}`
    : `heard over ${name}, which is not in the chord`
}
