import type { Turns } from '@velvet-porch/core/turns'
import { useEffect, useMemo, useState } from 'react'
import { inTurns } from '../workers/inTurns.ts'

/** What is done within so many milliseconds is done at once: nobody sees it wait. */
const AT_ONCE_MS = 20

/**
 * Long work of the page, such that the page never waits for it: what is short is there at once, the rest is done
 * between what else the page does. While it is begun anew, what it found before stays.
 * @param begin begins the work; pass the same function as long as it would find the same, and none where nothing is wanted
 * @returns undefined until it was done for the first time
 * @throws what the work throws
 */
export function useLongWork<T>(begin: (() => Turns<T>) | undefined): T | undefined {
  const begun = useMemo(() => begin && begunBy(begin), [begin])
  const [found, setFound] = useState<Found<T>>()
  // What short work found stays too, should the same work be long the next time.
  if (begun?.done && found !== begun.done) setFound(begun.done)
  useEffect(() => {
    if (!begun || begun.done) return undefined
    let left = false
    // In an object: what is found may be nothing, and so is what was left.
    const run = boxed(begun.run)
    inTurns(run, { isStopped: () => left }).then(
      (value) => value && !left && setFound(value),
      (error: unknown) => left || setFound({ error, of: begun }),
    )
    return () => {
      left = true
    }
  }, [begun])
  if (begun?.done) return begun.done.value
  if (!found || 'value' in found) return found?.value
  // As it is where short work fails: the page's own error is shown.
  if (found.of === begun) throw found.error
  return undefined
}

/** What was found, or what went wrong and in which work. */
type Found<T> = { readonly value: T } | { readonly error: unknown; readonly of: object }

/** Work that was begun, and what it found where it was short. */
interface Begun<T> {
  readonly run: Turns<T>
  readonly done?: { readonly value: T }
}

function begunBy<T>(begin: () => Turns<T>): Begun<T> {
  const run = begin()
  const until = performance.now() + AT_ONCE_MS
  while (performance.now() < until) {
    const { done, value } = run.next()
    if (done) return { run, done: { value } }
  }
  return { run }
}

function* boxed<T>(run: Turns<T>): Turns<{ readonly value: T }> {
  return { value: yield* run }
}
