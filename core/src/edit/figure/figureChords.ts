import { readChordSymbol, type ChordReading } from '../../music/harmony/chordSymbol.ts'

/** The chords that a figure is to be played on, by measure; or the word that is none. */
export type FigureChords =
  | { readonly ok: true; readonly measures: readonly (readonly ChordReading[])[] }
  | { readonly ok: false; readonly word: string }

/**
 * Reads chord names for measures to come: one a measure, or several where bar lines part them; `%` is the measure before again,
 * `x2` all so far once more.
 * @example readFigureChords('G | C D7 | %')
 */
export function readFigureChords(text: string): FigureChords {
  const hasBars = text.includes('|')
  const groups = hasBars ? text.split('|') : text.trim().split(/[\s,–-]+/)
  const measures: (readonly ChordReading[])[] = []
  for (const group of groups.map((g) => g.trim()).filter((g) => g !== '')) {
    const again = /^x\s?(\d)$/i.exec(group)
    if (again && measures.length > 0) {
      const all = [...measures]
      for (let k = 1; k < Number(again[1]); k++) measures.push(...all)
      continue
    }
    if (group === '%' && measures.length > 0) {
      measures.push(measures.at(-1)!)
      continue
    }
    const chords: ChordReading[] = []
    for (const word of group.split(/[\s,]+/)) {
      const reading = readChordSymbol(word)
      if (reading.kind !== 'chord') return { ok: false, word }
      chords.push(reading.chord)
    }
    measures.push(chords)
  }
  return { ok: true, measures }
}
