import { PluckedString } from './pluckedString.ts'

/** A note that a simulated student means to play. */
export interface MeantNote {
  readonly seconds: number
  readonly string: number
  readonly hertz: number
  readonly rings: number
}

/** Mistakes that a simulated student makes, by the index of the note. */
export type Mistake =
  | { readonly kind: 'missed' }
  | { readonly kind: 'fret'; readonly by: number }
  | { readonly kind: 'late'; readonly seconds: number }

/** Where a simulated student sits. */
export interface SimulatedRoom {
  /** Seconds that everything comes late. */
  readonly latency: number
  /** Amplitude of the noise in the room, 0 to 1. */
  readonly noise: number
}

/** Seconds of sound after the last note. */
const AFTER_S = 1

/**
 * Stands in for a student before a microphone: plays notes on the app's strings, with chosen mistakes.
 * @param rate samples a second
 */
export function simulatedTake(
  notes: readonly MeantNote[],
  mistakes: ReadonlyMap<number, Mistake>,
  rate: number,
  { latency, noise }: SimulatedRoom,
): Float32Array {
  const end = Math.max(0, ...notes.map((n) => n.seconds + n.rings)) + latency + AFTER_S
  const out = new Float32Array(Math.ceil(end * rate))
  const byString = new Map<number, { from: number; hertz: number; until: number }[]>()
  notes.forEach((n, i) => {
    const mistake = mistakes.get(i)
    if (mistake?.kind === 'missed') return
    const from = n.seconds + latency + (mistake?.kind === 'late' ? mistake.seconds : 0)
    const hertz = n.hertz * 2 ** ((mistake?.kind === 'fret' ? mistake.by : 0) / 12)
    const own = byString.get(n.string) ?? []
    own.push({ from, hertz, until: from + n.rings })
    byString.set(n.string, own)
  })
  for (const own of byString.values()) {
    const voice = new PluckedString(rate)
    own.sort((a, b) => a.from - b.from)
    own.forEach(({ from, hertz, until }, i) => {
      const [first, last] = [Math.round(from * rate), Math.round(until * rate)]
      const next = Math.min(out.length, Math.round((own[i + 1]?.from ?? Infinity) * rate))
      voice.pluck(hertz, 0.8)
      voice.render(out, first, Math.min(last, next))
      if (last >= next) return
      voice.damp()
      voice.render(out, last, next)
    })
  }
  return noise > 0 ? out.map((x) => x + noise * (2 * Math.random() - 1)) : out
}
