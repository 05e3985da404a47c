import { NOTE_NAMINGS, type NoteNaming } from '@velvet-porch/core'
import { useSyncExternalStore } from 'react'

/** How this teacher likes things shown. Kept on the device, outside the documents. */
export interface Prefs {
  readonly naming: NoteNaming
  readonly boxes: 'upright' | 'sideways'
  readonly labels: 'fingers' | 'notes' | 'degrees'
  /** The hand that the reference pages measure for; absent for an adult hand. */
  readonly player?: string
}

const KEY = 'velvet-porch.prefs'
const FIRST: Prefs = { naming: 'letters', boxes: 'upright', labels: 'fingers' }

let prefs = load()
const listeners = new Set<() => void>()

function load(): Prefs {
  try {
    const stored = (JSON.parse(localStorage.getItem(KEY) ?? '{}') ?? {}) as Partial<Prefs>
    return {
      naming: NOTE_NAMINGS.find((n) => n === stored.naming) ?? FIRST.naming,
      boxes: stored.boxes === 'sideways' ? 'sideways' : 'upright',
      labels: stored.labels === 'notes' || stored.labels === 'degrees' ? stored.labels : 'fingers',
      ...(typeof stored.player === 'string' ? { player: stored.player } : {}),
    }
  } catch {
    return FIRST
  }
}

export const currentPrefs = (): Prefs => prefs

export function setPrefs(change: Partial<Prefs>): void {
  prefs = { ...prefs, ...change }
  try {
    localStorage.setItem(KEY, JSON.stringify(prefs))
  } catch {
    // Storage is full or forbidden: the choice holds until the page is closed.
  }
  listeners.forEach((l) => l())
}

export function usePrefs(): Prefs {
  return useSyncExternalStore((listener) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }, currentPrefs)
}
