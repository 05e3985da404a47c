import {
  chordIn,
  noteIn,
  pitchIn,
  plainPitch,
  readChordIn,
  toLetters,
  type ChordReading,
  type Midi,
  type NoteName,
} from '@velvet-porch/core'
import { useMemo } from 'react'
import { usePrefs } from '../store/prefs.ts'

/** How notes and chords are called, as the settings say. */
export function useNames() {
  const { naming } = usePrefs()
  return useMemo(
    () => ({
      naming,
      note: (name: NoteName) => noteIn(naming, name),
      /** A pitch with plain spelling. */
      pitch: (midi: Midi, flats = false) => pitchIn(naming, plainPitch(midi, flats)),
      chord: (chord: ChordReading) => chordIn(naming, chord),
      readChord: (text: string) => readChordIn(naming, text),
      letters: (text: string) => toLetters(naming, text),
    }),
    [naming],
  )
}

export type Names = ReturnType<typeof useNames>
