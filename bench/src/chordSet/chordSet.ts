import { createRequire } from 'node:module'
import type { LeftFinger } from '@velvet-porch/core/instrument'

/**
 * One position of the open chord data set (`@tombatossals/chords-db` 0.5.1, MIT). Arrays are by string, string 1
 * first, as everywhere in the core (the set itself starts with the lowest string).
 */
export interface SetPosition {
  readonly key: string
  readonly suffix: string
  /** Place among the positions of its chord; 0 is the set's first choice. */
  readonly rank: number
  readonly frets: readonly (number | null)[]
  readonly fingers: readonly LeftFinger[]
  readonly midi: readonly number[]
}

interface RawSet {
  readonly chords: Readonly<
    Record<
      string,
      readonly {
        readonly key: string
        readonly suffix: string
        readonly positions: readonly {
          readonly frets: readonly number[]
          readonly fingers: readonly number[]
          readonly baseFret: number
          readonly midi: readonly number[]
        }[]
      }[]
    >
  >
}

/** All positions of the set, as they stand there. */
export function readChordSet(): SetPosition[] {
  const raw = createRequire(import.meta.url)('@tombatossals/chords-db/lib/guitar.json') as RawSet
  const positions: SetPosition[] = []
  for (const chords of Object.values(raw.chords)) {
    for (const chord of chords) {
      chord.positions.forEach((position, rank) => {
        positions.push({
          key: chord.key,
          suffix: chord.suffix,
          rank,
          frets: position.frets
            .map((f) => (f < 0 ? null : f === 0 ? 0 : f + position.baseFret - 1))
            .reverse(),
          fingers: [...position.fingers].reverse() as LeftFinger[],
          midi: position.midi,
        })
      })
    }
  }
  return positions
}

/** The shape moved to the nut: what two positions share when one is the other moved along the neck. */
export function transposedShape(frets: readonly (number | null)[]): string {
  const pressed = frets.filter((f): f is number => f !== null && f > 0)
  const lowest = pressed.length ? Math.min(...pressed) : 1
  return frets.map((f) => (f === null ? 'x' : f === 0 ? '0' : String(f - lowest + 1))).join(' ')
}

const SPLIT_SEED = 20261124

function seededHash(text: string): number {
  let h = SPLIT_SEED
  for (const c of text) h = Math.imul(h ^ c.charCodeAt(0), 0x9e3779b1)
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b)
  return (h ^ (h >>> 13)) >>> 0
}

/**
 * Splits the set in two halves by transposed shape, so that no shape is in both. Shapes are sorted by how often they
 * occur and dealt in pairs, a seeded coin saying which of the two goes where: both halves hold as many common shapes.
 * @returns tells for a shape whether it belongs to the half that weights are fitted on
 */
export function fittingHalf(
  positions: readonly SetPosition[],
): (position: Pick<SetPosition, 'frets'>) => boolean {
  const counts = new Map<string, number>()
  for (const { frets } of positions) {
    const shape = transposedShape(frets)
    counts.set(shape, (counts.get(shape) ?? 0) + 1)
  }
  const sorted = [...counts].sort((a, b) => b[1] - a[1] || seededHash(a[0]) - seededHash(b[0]))
  const fitting = new Set<string>()
  for (let i = 0; i < sorted.length; i += 2) {
    const coin = seededHash(`pair ${sorted[i]![0]}`) & 1
    const shape = sorted[i + coin] ?? sorted[i]!
    fitting.add(shape[0])
  }
  return ({ frets }) => fitting.has(transposedShape(frets))
}
