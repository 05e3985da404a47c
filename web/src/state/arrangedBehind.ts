import { createStore, useStore } from 'zustand'
import { keepValue, keptValue } from './keptValue.ts'

const KEY = 'velvet-porch.behind'

/** What an earlier page left to be arranged. */
function left(): string[] {
  const ids = keptValue(KEY)
  return Array.isArray(ids) ? ids.filter((id) => typeof id === 'string') : []
}

/** Tunes that are being arranged behind the page, the next one first; a page that is opened anew goes on with them. */
const waiting = createStore<readonly string[]>(left)

/** True where an earlier page left tunes to be arranged. */
export const leftBehind = (): boolean => left().length > 0

/** These tunes will have a tab without being asked for. */
export function comesBehind(ids: readonly string[]): void {
  waiting.setState(ids, true)
  keepValue(KEY, ids.length > 0 ? ids : undefined)
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
