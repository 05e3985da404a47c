import { readChordSymbol, type ChordReading } from '../../src/music/index.ts'

/** Reads a chord that must be understood. */
export function chord(text: string): ChordReading {
  const reading = readChordSymbol(text)
  if (reading.kind !== 'chord') throw new Error(`${text} is ${reading.kind}`)
  return reading.chord
}

/** Frets or fingers as written from the lowest string, `x-3-2-0-1-0`, in the core's order (string 1 first). */
export const frets = (text: string): (number | null)[] =>
  text
    .split('-')
    .map((f) => (f === 'x' ? null : Number(f)))
    .reverse()

/** The other way round. */
export const written = (list: readonly (number | string | null)[]): string =>
  [...list]
    .reverse()
    .map((f) => f ?? 'x')
    .join('-')
