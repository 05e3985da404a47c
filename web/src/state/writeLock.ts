import { useSyncExternalStore } from 'react'

/** Tunes that another window is writing: nothing of them is written here, by whatever way it is asked for. */
const readOnly = new Set<string>()
const listeners = new Set<() => void>()
const refusals = new Set<() => void>()

export function setReadOnly(tuneId: string, on: boolean): void {
  if (readOnly.has(tuneId) === on) return
  if (on) readOnly.add(tuneId)
  else readOnly.delete(tuneId)
  listeners.forEach((l) => l())
}

/** True where this window may write a tune. Whoever listens hears that it may not. */
export function mayWrite(tuneId: string): boolean {
  if (!readOnly.has(tuneId)) return true
  refusals.forEach((l) => l())
  return false
}

/** Hears of writes that were refused as another window has the tune. */
export function onRefusedWrite(listener: () => void): () => void {
  refusals.add(listener)
  return () => refusals.delete(listener)
}

export const useReadOnly = (tuneId: string | undefined): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => tuneId !== undefined && readOnly.has(tuneId),
  )
