import { readChordSymbol, type ChordReading } from '@velvet-porch/core/music'
import type { SetPosition } from './chordSet.ts'

/** How we write what the set calls by another name. Suffixes not listed are read as they stand. */
const OUR_SPELLING: Readonly<Record<string, string>> = {
  major: '',
  minor: 'm',
  // The set's "alt" holds root, third and diminished fifth: a major chord with a flat fifth, not an altered dominant.
  alt: '(b5)',
  aug9: '9#5',
  mmaj7b5: 'm(maj7)b5',
}

/** The chord that the set means, or undefined where its suffix stands for no chord that lead sheets write. */
export function chordOf(position: Pick<SetPosition, 'key' | 'suffix'>): ChordReading | undefined {
  const suffix = OUR_SPELLING[position.suffix] ?? position.suffix
  const reading = readChordSymbol(position.key + suffix)
  return reading.kind === 'chord' ? reading.chord : undefined
}
