import { createStore, useStore } from 'zustand'

/** Tunes that are being arranged behind the page, the next one first. */
const waiting = createStore<readonly string[]>(() => [])

const KEY = 'velvet-porch.behind'

/** Notes that there is work left, so that a page that is opened anew goes on with it. */
function keepWhether(left: boolean): void {
  try {
    if (left) localStorage.setItem(KEY, '1')
    else localStorage.removeItem(KEY)
  } catch {
    // Nothing can be kept: a tune is arranged when it is opened.
  }
}

/** True where an earlier page left tunes to be arranged. */
export function leftBehind(): boolean {
  try {
    return localStorage.getItem(KEY) !== null
  } catch {
    return false
  }
}

/** These tunes will have a tab without being asked for. */
export function comesBehind(ids: readonly string[]): void {
  waiting.setState(ids, true)
  keepWhether(ids.length > 0)
}

/** The tune whose turn it is. */
export const firstAsked = (): string | undefined => waiting.getState()[0]

/** A tune has its tab, or cannot have one this way. */
export const hasCome = (id: string): void => comesBehind(waiting.getState().filter((w) => w !== id))

/** Has a tune come next: somebody looks at it. */
export function hasten(id: string): void {
  const [now, ...later] = waiting.getState()
  if (now === undefined || !later.includes(id)) return
  waiting.setState([now, id, ...later.filter((w) => w !== id)], true)
}

/** True while a tune waits for its tab, which comes without being asked for. */
export const useComesBehind = (id: string): boolean => useStore(waiting, (w) => w.includes(id))
