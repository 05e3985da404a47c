import type { ChordReading } from '../../music/harmony/chordSymbol.ts'
import { chordPitchClasses } from '../../music/harmony/chordSymbol.ts'
import { scaleOf, type Key } from '../../music/pitch/key.ts'
import { mod12, type Midi } from '../../music/pitch/pitch.ts'

/** A second voice for one melody note. */
export interface SecondVoice {
  readonly midi: Midi
  /** Scale steps between the two: 2 a third, 5 a sixth; 3 and 4 where only a fourth or fifth is in the chord. */
  readonly steps: number
  readonly price: number
}

/** A second voice outside the chord: under a tone of the chord it is heard as wrong, under a passing note it passes. */
const CLASHES = 2.6
const PASSES = 0.5
const NEITHER_THIRD_NOR_SIXTH = 1.1

/**
 * Second voices for a melody note: the third and the sixth of the scale, altered where the chord alters the step;
 * a fourth or fifth of the chord as a second choice. A note outside the scale takes chord tones alone.
 * @param key as it sounds
 * @example secondVoices(76, cMajor, c, 'below') // [{ midi: 72, steps: 2 … }, { midi: 67, steps: 5 … }]
 */
export function secondVoices(
  melody: Midi,
  key: Key,
  chord: ChordReading | undefined,
  side: 'below' | 'above',
): SecondVoice[] {
  const tones = chord ? chordPitchClasses(chord) : undefined
  const found: SecondVoice[] = []
  const away = side === 'below' ? -1 : 1
  const reach = (pc: number) => (side === 'below' ? mod12(melody - pc) : mod12(pc - melody))
  const scale = scaleOf(key)
  const degree = scale.indexOf(mod12(melody))
  const outside = tones?.includes(mod12(melody)) ? CLASHES : PASSES
  for (const steps of [2, 5, 3, 4]) {
    if (degree < 0) break
    const plain = scale[(degree + away * steps + 14) % 7]!
    const pc = alteredByChord(plain, scale, tones)
    const inChord = tones?.includes(pc) ?? true
    const neither = steps === 3 || steps === 4
    if (neither && !inChord) continue
    const price = (inChord ? 0 : outside) + (neither ? NEITHER_THIRD_NOR_SIXTH : 0)
    found.push({ midi: melody + away * reach(pc), steps, price })
  }
  if (degree < 0) {
    for (const pc of tones ?? []) {
      const semitones = reach(pc)
      const steps = semitones === 3 || semitones === 4 ? 2 : semitones === 8 || semitones === 9 ? 5 : 0
      if (steps > 0) found.push({ midi: melody + away * semitones, steps, price: 0 })
    }
  }
  return found
}

/** The chord's own form of a scale step, where it has one that the scale lacks (the raised seventh of minor). */
function alteredByChord(pc: number, scale: readonly number[], tones: readonly number[] | undefined): number {
  if (!tones || tones.includes(pc)) return pc
  return [mod12(pc + 1), mod12(pc - 1)].find((t) => tones.includes(t) && !scale.includes(t)) ?? pc
}
