/**
 * The most that a document holds. Readers cut or refuse what goes beyond and say where; edits refuse it; schemas refuse
 * it in what comes from storage. One table, so that nothing is stored that cannot be opened again.
 */
export const LIMITS = {
  /** Letters. */
  title: 300,
  composer: 300,
  source: 1000,
  lyric: 500,
  songLine: 1000,
  singer: 60,
  chordSymbol: 60,
  sectionName: 200,
  ornament: 60,
  shapeName: 80,
  sourceText: 2_100_000,
  /** Lines of a song. */
  songLines: 5000,
  /** Verses of words under the melody. */
  verses: 31,
  /** Passes of an ending. */
  passes: 20,
  /** Beats of a metre. */
  metreBeats: 64,
  /** Notes of a tuplet, and of the plain notes that it stands for. */
  tuplet: 64,
  /** Measures of a tune. */
  measures: 20_000,
  /** Measures of one rest (`Z`). */
  restMeasures: 1000,
  /** Whole notes that one note lasts, and one measure. */
  noteWholes: 100,
  measureWholes: 1000,
  /** MIDI numbers of what an instrument is asked for. */
  lowestMidi: 0,
  highestMidi: 127,
  lowestOctave: -2,
  highestOctave: 12,
  /** Quarter notes a minute. */
  slowest: 10,
  fastest: 500,
  /** Frets of a neck. */
  frets: 36,
} as const

/** The denominators that a metre can have. */
export const METRE_UNITS = [1, 2, 4, 8, 16, 32, 64] as const

/** A text within its limit, and whether it had to be cut. */
export function cutTo(text: string, most: number): { readonly text: string; readonly cut: boolean } {
  return text.length <= most ? { text, cut: false } : { text: text.slice(0, most - 1) + '…', cut: true }
}
