import { readChordSymbol } from '../../music/harmony/chordSymbol.ts'
import { REST_SIGN, rhythmTicks } from '../../output/text/tabSigns.ts'

/** A line of rhythm letters: nothing but them, in groups. */
export function isRhythmLine(line: string): boolean {
  const groups = line.split(/[\s|]+/).filter((g) => g !== '')
  return (
    groups.length > 0 &&
    groups.every((g) => rhythmTicks(g.replace(new RegExp(`^${REST_SIGN}`), '')) !== undefined)
  )
}

/** A line of chord names and nothing else. */
export function isChordLine(line: string): boolean {
  const groups = line.trim().split(/\s+/)
  return groups[0] !== '' && groups.every((g) => readChordSymbol(g).kind === 'chord')
}

/** A line over the strings that says how they are touched: `PM----|`, `let ring---|`. */
export const isMarkLine = (line: string): boolean => /^[\s|]*(?:P\.?\s?M\.?|let ring|palm mute)\b/i.test(line)
