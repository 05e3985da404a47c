import {
  chordIn,
  keyIn,
  readChordSymbol,
  noteIn,
  pitchIn,
  plainPitch,
  readChordIn,
  toLetters,
  type ChordReading,
  type Key,
  type Midi,
  type NoteName,
} from '@velvet-porch/core/music'
import { useMemo } from 'react'
import { usePrefs } from '../../state/prefs.ts'

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
      key: (key: Key) => keyIn(naming, key),
      /** A shape's name as the solver gives it, "G" or "G (E form, fret 3)". */
      shape: (text: string) => {
        const [symbol = '', ...rest] = text.split(' ')
        const reading = readChordSymbol(symbol)
        return reading.kind === 'chord' ? [chordIn(naming, reading.chord), ...rest].join(' ') : text
      },
      readChord: (text: string) => readChordIn(naming, text),
      letters: (text: string) => toLetters(naming, text),
    }),
    [naming],
  )
}

export type Names = ReturnType<typeof useNames>
