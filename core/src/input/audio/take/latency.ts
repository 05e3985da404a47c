import { LOOK_S, onsetStrength } from '../onsetStrength.ts'

/** How late what is played arrives, with how uneven it was. */
export interface Latency {
  readonly latencyMs: number
  readonly unevenMs: number
}

/** Seconds around a click in which its stroke may lie: players come early, devices late. */
const EARLIEST_S = -0.12
const LATEST_S = 0.45

/** Onset strength of a stroke at least; share of the clicks that must have one; and how uneven they may be. */
const LEAST_STROKE = 0.15
const LEAST_SHARE = 0.75
const MOST_UNEVEN_MS = 45

/**
 * How late the strokes of a player come, who strikes a string at each click: the way through the air, the device and the player. Yields
 * the share that is done.
 * @param clicks seconds of the clicks; at least three quarters of a second apart
 * @returns undefined where too few strokes were heard, or where they agree on nothing
 */
export function* latencyOf(
  samples: Float32Array,
  rate: number,
  clicks: readonly number[],
): Generator<number, Latency | undefined> {
  const strength = yield* onsetStrength(samples, rate)
  const late = clicks.flatMap((click) => {
    let best = { look: -1, strength: LEAST_STROKE }
    const last = Math.min(strength.length - 1, Math.floor((click + LATEST_S) / LOOK_S))
    for (let look = Math.max(0, Math.ceil((click + EARLIEST_S) / LOOK_S)); look <= last; look++)
      if (strength[look]! > best.strength) best = { look, strength: strength[look]! }
    return best.look < 0 ? [] : [1000 * (best.look * LOOK_S - click)]
  })
  if (late.length < LEAST_SHARE * clicks.length) return undefined
  const latencyMs = middle(late)
  const unevenMs = middle(late.map((ms) => Math.abs(ms - latencyMs)))
  return unevenMs > MOST_UNEVEN_MS
    ? undefined
    : { latencyMs: Math.round(latencyMs), unevenMs: Math.round(unevenMs) }
}

const middle = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1] ?? 0
