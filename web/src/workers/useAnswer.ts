import { useDebouncedValue } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'

/** Quiet time before a question is asked: whoever types asks once, not at every key. */
const QUIET_MS = 120

/** Answers that nobody looks at any more are kept for so long: going to and fro asks once. */
const KEPT_MS = 20_000

const numbers = new WeakMap<object, number>()
let last = 0

/** A document is told apart by its identity: every change makes a new one, and comparing long ones takes time. */
function keyOf(part: unknown): unknown {
  if (typeof part !== 'object' || part === null) return part
  const known = numbers.get(part) ?? ++last
  numbers.set(part, known)
  return known
}

/** What a worker says; undefined until it is there, while another question is asked, and where it failed. */
export interface Answer<T> {
  readonly answer: T | undefined
  readonly asking: boolean
}

/**
 * The answer to a question that a worker takes its time over. That it failed is shown by the page (`useFailures`).
 * @param name which question it is
 * @param ask hands it to the worker
 * @param about what it is about, in values that keep their identity while they stay the same; undefined: nothing is asked
 */
export function useAnswer<A extends readonly unknown[], T>(
  name: string,
  ask: (...about: A) => Promise<T>,
  about: A | undefined,
): Answer<T> {
  const key = JSON.stringify(about?.map(keyOf) ?? null)
  const [quiet] = useDebouncedValue(key, QUIET_MS)
  const { data, isError } = useQuery({
    queryKey: [name, key],
    // A worker is asked only where there is something to ask about.
    queryFn: () => ask(...(about as A)),
    enabled: about !== undefined && quiet === key,
    networkMode: 'always',
    retry: false,
    gcTime: KEPT_MS,
  })
  return { answer: data, asking: about !== undefined && data === undefined && !isError }
}
