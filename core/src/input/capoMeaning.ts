import { chordPitchClasses, transposeChord, type ChordReading } from '../music/harmony/chordSymbol.ts'
import { mod12, type Midi } from '../music/pitch/pitch.ts'

/** What chord names mean beside a capo: the shapes that the hand holds, or what sounds. */
export const CAPO_MEANINGS = ['shapes', 'sound'] as const
export type CapoMeaning = (typeof CAPO_MEANINGS)[number]

/** A chord name with the pitches that sound under it. */
export interface NamedMoment {
  readonly chord: ChordReading
  readonly midis: readonly Midi[]
}

/** By how much more of the notes must lie in the chords as they sound, before names are not taken for shapes. No source. */
const CLEARLY = 0.15

/** What names most likely mean where nobody says it: shapes, unless the notes under them clearly spell what sounds. */
export function likelyMeaning(moments: readonly NamedMoment[], capo: number): CapoMeaning {
  const share = (up: number) => {
    let [inside, all] = [0, 0]
    for (const { chord, midis } of moments) {
      const tones = new Set(chordPitchClasses(transposeChord(chord, up, false)))
      inside += midis.filter((m) => tones.has(mod12(m))).length
      all += midis.length
    }
    return all === 0 ? 0 : inside / all
  }
  return share(0) > share(capo) + CLEARLY ? 'sound' : 'shapes'
}
