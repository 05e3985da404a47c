import { mod12, nameText, plainName, type Midi } from '../music/pitch/pitch.ts'
import type { SoundingChord } from './finishedTab.ts'

/** The lowest note that a listener hears under a chord. */
export interface HeardBass {
  readonly bass: string
  /** True where it is a note of the wanted chord: that chord over another bass. */
  readonly inChord: boolean
}

/** What a listener takes for the bass of the sounding notes; undefined where nothing sounds. */
export function heardBass(midis: readonly Midi[], wanted: SoundingChord): HeardBass | undefined {
  if (midis.length === 0) return undefined
  const lowest = mod12(Math.min(...midis))
  return {
    bass: nameText(plainName(lowest, wanted.symbol.includes('b'))),
    inChord: (wanted.tones ?? []).includes(lowest),
  }
}
