import { LIMITS } from '../../document/limits.ts'

/** Quarter notes a minute of a `Q:` field; undefined where it holds words only or nothing playable. */
export function quarterTempo(
  raw: { duration?: number[] | number; bpm?: number } | undefined,
): number | undefined {
  if (!raw?.bpm || !Number.isFinite(raw.bpm)) return undefined
  const shares = Array.isArray(raw.duration) ? raw.duration : [raw.duration ?? 0.25]
  const bpm = raw.bpm * shares.reduce((a, b) => a + b, 0) * 4
  return bpm >= LIMITS.slowest && bpm <= LIMITS.fastest ? bpm : undefined
}
