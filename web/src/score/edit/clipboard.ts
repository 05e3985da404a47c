import type { Clip } from '@velvet-porch/core/edit'
import { useSyncExternalStore } from 'react'

let held: Clip | undefined
const listeners = new Set<() => void>()

/** Measures that were copied last; kept while the page is open, across tunes. */
export function hold(clip: Clip): void {
  held = clip
  listeners.forEach((l) => l())
}

export function useHeld(): Clip | undefined {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => held,
  )
}
