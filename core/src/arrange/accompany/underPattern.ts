import { handFault } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { AccompanyOnset, HeldHand, Sounded } from './onset.ts'

/**
 * A bass run with the pattern going on above it, as far as the hand can hold both: strings above the run's that are open, or whose
 * fingers the run does not need.
 * @param pattern what the pattern sounds in that time
 * @param run in order of time
 */
export function underPattern(
  setup: Setup,
  pattern: readonly AccompanyOnset[],
  run: readonly AccompanyOnset[],
): AccompanyOnset[] {
  const times = [...new Set([...pattern, ...run].map((o) => o.start))].sort((a, b) => a - b)
  return times.flatMap((start): AccompanyOnset[] => {
    const walking = run.findLast((o) => o.start <= start)
    const above = pattern.find((o) => o.start === start)
    if (!walking) return above ? [above] : []
    const bass = walking.sounds[0]!
    const strikes = walking.start === start
    const kept = above ? heldAbove(setup, above, bass) : undefined
    if (!above || !kept) return strikes ? [walking] : []
    const swept = above.stroke !== undefined
    // One stroke goes over neighbouring strings; a run's note begins it.
    const sounds = swept ? neighbours(kept.sounds, strikes ? bass.place.string : undefined) : kept.sounds
    const own: Sounded[] = strikes ? [swept && sounds.length > 0 ? { ...bass, attack: 'brush' } : bass] : []
    if (sounds.length === 0) return strikes ? [walking] : []
    const { stroke, ...plain } = above
    return [
      {
        ...plain,
        ...(stroke ? { stroke: strikes ? 'down' : stroke } : {}),
        sounds: [...own, ...sounds],
        hand: kept.hand,
      },
    ]
  })
}

/** What of an onset can sound above a bass note, and the hand that holds both; undefined where no hand does. */
function heldAbove(
  setup: Setup,
  onset: AccompanyOnset,
  bass: Sounded,
): { readonly sounds: readonly Sounded[]; readonly hand: HeldHand } | undefined {
  const sounds = onset.sounds.filter(
    (s) =>
      s.attack !== 'muted' &&
      s.place.string < bass.place.string &&
      (s.place.fret === 0 || s.finger !== bass.finger),
  )
  const pressed = [
    ...onset.hand.pressed.filter((p) => p.string < bass.place.string && p.finger !== bass.finger),
    ...(bass.finger === 0 ? [] : [{ string: bass.place.string, fret: bass.place.fret, finger: bass.finger }]),
  ]
  const open = [...sounds, bass].flatMap((s) => (s.place.fret === 0 ? [s.place.string] : []))
  if (handFault(setup, setup.player.spans, pressedOf(pressed), open)) return undefined
  return { sounds: sounds.map((s) => ({ ...s, role: 'harmony' })), hand: { pressed } }
}

/** Strings next to each other, from the lowest on or from the one above the run's. */
function neighbours(sounds: readonly Sounded[], below: number | undefined): Sounded[] {
  const low = [...sounds].sort((a, b) => b.place.string - a.place.string)
  let next = below === undefined ? low[0]?.place.string : below - 1
  return low.filter((s) => {
    if (s.place.string !== next) return false
    next--
    return true
  })
}
