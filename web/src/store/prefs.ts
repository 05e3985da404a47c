import { NOTE_NAMINGS, type NoteNaming } from '@velvet-porch/core'
import { useSyncExternalStore } from 'react'

/** How this teacher likes things shown. Kept on the device, outside the documents. */
export interface Prefs {
  readonly naming: NoteNaming
  readonly boxes: 'upright' | 'sideways'
  readonly labels: 'fingers' | 'notes' | 'degrees'
  /** The hand that the reference pages measure for; absent for an adult hand. */
  readonly player?: string
  /** How the sheet of the bench is shown. */
  readonly sheet: SheetPrefs
}

/** Lanes of the sheet, how its form is shown, and measures a line (0: as they fit). */
export interface SheetPrefs {
  readonly fingers: boolean
  readonly picking: boolean
  readonly counts: boolean
  readonly degrees: boolean
  readonly strings: boolean
  readonly form: 'signs' | 'out'
  readonly perLine: 0 | 1 | 2 | 4
}

export const FIRST_SHEET: SheetPrefs = {
  fingers: true,
  picking: false,
  counts: false,
  degrees: false,
  strings: false,
  form: 'signs',
  perLine: 0,
}

const KEY = 'velvet-porch.prefs'
const FIRST: Prefs = { naming: 'letters', boxes: 'upright', labels: 'fingers', sheet: FIRST_SHEET }

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
      sheet: sheetOf(stored.sheet),
    }
  } catch {
    return FIRST
  }
}

function sheetOf(stored: Partial<SheetPrefs> | undefined): SheetPrefs {
  const on = (lane: 'fingers' | 'picking' | 'counts' | 'degrees' | 'strings') =>
    typeof stored?.[lane] === 'boolean' ? stored[lane] : FIRST_SHEET[lane]
  return {
    fingers: on('fingers'),
    picking: on('picking'),
    counts: on('counts'),
    degrees: on('degrees'),
    strings: on('strings'),
    form: stored?.form === 'out' ? 'out' : 'signs',
    perLine: ([1, 2, 4] as const).find((n) => n === stored?.perLine) ?? 0,
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
