import { useEffect, useSyncExternalStore } from 'react'

/** Something that can be done now, offered in the palette and by its key. */
export interface Action {
  readonly id: string
  readonly label: string
  /** As pressed: `Space`, `Mod+Z`, `?`. `Mod` is Ctrl, or Command on a Mac. */
  readonly keys?: string
  readonly run: () => void
  /** Where the palette lists it; what can be done on the page where it does not say. */
  readonly group?: 'places' | 'settings'
  /** True for what changes the tune that is open: not offered while another window writes it. */
  readonly writes?: true
}

let groups: readonly (readonly Action[])[] = []
let flat: readonly Action[] = []
const listeners = new Set<() => void>()

function publish(next: readonly (readonly Action[])[]): void {
  groups = next
  flat = next.flat()
  listeners.forEach((l) => l())
}

/** Offers actions while the calling view is shown. Pass a memoised list. */
export function useActions(actions: readonly Action[]): void {
  useEffect(() => {
    publish([...groups, actions])
    return () => publish(groups.filter((g) => g !== actions))
  }, [actions])
}

export function useOfferedActions(): readonly Action[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => flat,
  )
}

/** True where a key belongs to a field that is being typed in. */
export const isTyping = ({ target }: KeyboardEvent): boolean =>
  (target as HTMLElement | null)?.closest(
    'input:not([type="radio"]):not([type="checkbox"]), textarea, select, [contenteditable="true"], .cm-editor',
  ) !== null && target !== null

const isOverPage = (at: EventTarget): boolean =>
  'matches' in at && (at as Element).matches('[role="dialog"], [role="listbox"], [role="menu"]')

/** The action that a key press means, if any. Typing in a field keeps plain keys to itself. */
export function actionFor(event: KeyboardEvent, actions: readonly Action[]): Action | undefined {
  const target = event.target as HTMLElement | null
  const mod = event.ctrlKey || event.metaKey
  const digit = event.shiftKey && !/^\d$/.test(event.key) ? /^Digit(\d)$/.exec(event.code)?.[1] : undefined
  // Some keyboards write other signs with Alt: the key itself is meant.
  const withAlt = event.altKey ? /^(?:Digit|Key)(.)$/.exec(event.code)?.[1] : undefined
  const named = event.key.length > 1
  const key = digit ?? withAlt ?? (event.key === ' ' ? 'Space' : named ? event.key : event.key.toUpperCase())
  const shift = event.shiftKey && (mod || named || digit !== undefined)
  const pressed = `${mod ? 'Mod+' : ''}${event.altKey ? 'Alt+' : ''}${shift ? 'Shift+' : ''}${key}`
  // What lies over the page is closed by Escape itself, and may be out of the page by now: the path still knows it.
  if (key === 'Escape' && event.composedPath().some(isOverPage)) return undefined
  if (isTyping(event) && !(mod && key === 'K')) return undefined
  if (key === 'Space' && target?.closest('button, a, summary, input, [role="option"], [role="radio"]'))
    return undefined
  // What was offered last stands nearest.
  return actions.findLast((a) => a.keys === pressed)
}
