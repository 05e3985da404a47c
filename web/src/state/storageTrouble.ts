import { useSyncExternalStore } from 'react'

/**
 * Why the browser's storage failed: it is not there (private windows, forbidden by the user), it is full, a newer version
 * of the app holds it, or it failed otherwise.
 */
export type TroubleKind = 'missing' | 'full' | 'newer' | 'failed'

export interface StorageTrouble {
  readonly kind: TroubleKind
  /** What the browser says. */
  readonly reason: string
}

let trouble: StorageTrouble | undefined
const reported = new WeakSet<object>()
const listeners = new Set<() => void>()

function set(next: StorageTrouble | undefined): void {
  trouble = next
  listeners.forEach((l) => l())
}

/** Notes that a read or write failed. Said once for as long as it stands: a further failure changes nothing on the page. */
export function reportTrouble(error: unknown): void {
  if (typeof error === 'object' && error !== null) reported.add(error)
  const next = { kind: kindOf(error), reason: reasonOf(error) }
  if (trouble?.kind !== next.kind) set(next)
}

/** True for an error that the page shows already. */
export const isReported = (error: unknown): boolean =>
  typeof error === 'object' && error !== null && reported.has(error)

/** Takes the word back: storage works again, or the teacher has read it. */
export function endTrouble(): void {
  if (trouble) set(undefined)
}

export const currentTrouble = (): StorageTrouble | undefined => trouble

export const useStorageTrouble = (): StorageTrouble | undefined =>
  useSyncExternalStore((listener) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }, currentTrouble)

function kindOf(error: unknown): TroubleKind {
  const names: string[] = []
  for (
    let e = error as { name?: string; message?: string; inner?: unknown } | undefined;
    e && names.length < 8;
  ) {
    names.push(`${e.name ?? ''} ${e.message ?? ''}`)
    e = e.inner as typeof e
  }
  const text = names.join(' ')
  if (/quota/i.test(text)) return 'full'
  if (/VersionError/.test(text)) return 'newer'
  if (/MissingAPI|OpenFailed|InvalidState|SecurityError|NotAllowed|Unknown/i.test(text)) return 'missing'
  return 'failed'
}

/** Does work on storage; that it failed is shown on the page, and whoever asked hears of it too. */
export async function storing<T>(work: () => PromiseLike<T>): Promise<T> {
  try {
    const done = await work()
    return done
  } catch (error) {
    if (isStorageError(error)) reportTrouble(error)
    throw error
  }
}

/** Errors of storage have names of their own; what our own code throws (a refused document) is not storage's. */
const isStorageError = (error: unknown): boolean =>
  error instanceof Error &&
  error.name !== 'SchemaError' &&
  error.name !== 'Error' &&
  error.name !== 'TypeError'

/** The first line of what a browser says: the store's own words repeat it below. */
const reasonOf = (error: unknown): string =>
  (error instanceof Error ? error.message : String(error)).split('\n')[0]!.trim()
