import type { Ticks } from '../../music/time/ticks.ts'
import type { VoiceSign } from './voices.ts'

/** Flags of a note value: 1 for an eighth. */
const flagsOf = ({ base, sounded }: VoiceSign): number =>
  sounded.length === 0 ? 0 : Math.max(0, Math.log2(base) - 2)

/**
 * The beams of the signs of a voice in one measure, level by level: `begin`, `continue`, `end`, a hook, or nothing.
 * @param beat length of a beat, which beams do not cross
 * @param origin ticks of the full measure before its first tick: other than 0 in a pickup
 */
export function beamsOf(signs: readonly VoiceSign[], beat: Ticks, origin: Ticks): string[][] {
  const beatOf = (s: VoiceSign) => Math.floor((s.tick + origin) / beat)
  const joined = (a: VoiceSign | undefined, b: VoiceSign | undefined, level: number) =>
    a !== undefined &&
    b !== undefined &&
    flagsOf(a) >= level &&
    flagsOf(b) >= level &&
    beatOf(a) === beatOf(b) &&
    a.tick + a.ticks === b.tick
  return signs.map((s, i) => {
    const [before, after] = [signs[i - 1], signs[i + 1]]
    const isBeamed = joined(before, s, 1) || joined(s, after, 1)
    if (!isBeamed) return []
    return Array.from({ length: flagsOf(s) }, (_, l) => {
      const [left, right] = [joined(before, s, l + 1), joined(s, after, l + 1)]
      if (left && right) return 'continue'
      if (right) return 'begin'
      if (left) return 'end'
      return joined(before, s, 1) ? 'backward hook' : 'forward hook'
    })
  })
}
