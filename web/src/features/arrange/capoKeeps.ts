import type { Settings } from './settings.ts'

/** What stays when a capo moves: the shapes that the hand holds, or what sounds. */
export type CapoKeeps = 'shapes' | 'sound'

/** A move from the tune's key stays within an octave. */
const withinOctave = (semitones: number) => semitones % 12

/**
 * Settings with the capo at another fret. Where shapes stay, the tune sounds as much higher, and every place stays where it was
 * typed; where the sound stays, the shapes move and what was locked to a place is let go.
 */
export function withCapo(settings: Settings, capo: number, keeps: CapoKeeps): Partial<Settings> {
  if (keeps === 'sound') return { capo, locks: [] }
  const shift = withinOctave((settings.shift ?? 0) + capo - settings.capo)
  return { capo, shift }
}
