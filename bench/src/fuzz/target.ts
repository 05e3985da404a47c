import { oneOf, seededChance, type Chance } from '../../../e2e/chance.ts'

/** What is wrong with how a reader took an input. */
export interface Complaint {
  /** A refusal is later: storage, or a next step, does not take what the reader returned. A loss is silent. */
  readonly kind: 'refusal' | 'loss'
  readonly what: string
}

/** A reader, with good inputs to begin from, and what must hold of everything that it is given. */
export interface FuzzTarget<T = unknown> {
  readonly name: string
  readonly seeds: readonly T[]
  readonly mutate: (seed: T, chance: Chance) => T
  /** Reads an input; throws only where the reader may not. */
  readonly read: (input: T) => readonly Complaint[]
}

export const refusal = (what: string): Complaint => ({ kind: 'refusal', what })
export const loss = (what: string): Complaint => ({ kind: 'loss', what })

/** The input of one case: the good ones come first, as they are. */
export function caseInput<T>({ seeds, mutate }: FuzzTarget<T>, seed: number, at: number): T {
  const chance = seededChance(seed * 1_000_003 + at)
  return at < seeds.length ? seeds[at]! : mutate(oneOf(chance, seeds), chance)
}

/** What is wrong with how a reader takes an input: its own complaints, or what it threw. */
export function faultsOf<T>(
  { read }: FuzzTarget<T>,
  input: T,
): { kind: 'throw' | Complaint['kind']; what: string }[] {
  try {
    return [...read(input)]
  } catch (error) {
    return [{ kind: 'throw', what: String((error as Error).stack).slice(0, 600) }]
  }
}
