import { create } from 'zustand'
import { allWritten } from './unwritten.ts'

interface AppVersion {
  /** True once all of the app is kept in this browser: it opens without a network, and without its server. */
  readonly keptHere: boolean
  /** A newer version: `waiting` until it is asked for, or in use `elsewhere`, in another window. */
  readonly newer: 'waiting' | 'elsewhere' | undefined
}

const useVersion = create<AppVersion>(() => ({ keptHere: false, newer: undefined }))

export const useAppVersion = (): AppVersion => useVersion()

let kept: ServiceWorkerRegistration | undefined
let asked = false

/** Milliseconds between two looks for a newer version, in a window that stays open. */
const LOOK_EVERY_MS = 3_600_000

/** Without a network, or with the server gone, there is nothing newer. */
const look = () => void kept?.update().catch(() => undefined)

/**
 * Follows a version on its way in. It may have set out before this window came to listen: a page that loads slowly is
 * overtaken by it.
 */
function follow(coming: ServiceWorker | null, { active }: ServiceWorkerRegistration): void {
  const noted = () => {
    if (coming?.state === 'installed' && active) useVersion.setState({ newer: 'waiting' })
    if (coming?.state === 'activated') useVersion.setState({ keptHere: true })
  }
  coming?.addEventListener('statechange', noted)
  noted()
}

/**
 * Keeps the app in this browser, where the browser can: over plain http under another name it cannot. A newer version is kept too, and
 * waits; no page is ever loaded anew that did not ask for it.
 */
export async function keepAppHere(): Promise<void> {
  if (!('serviceWorker' in navigator) || kept) return
  const { serviceWorker } = navigator
  let had = serviceWorker.controller !== null
  serviceWorker.addEventListener('controllerchange', () => {
    if (asked) location.reload()
    else if (had) useVersion.setState({ newer: 'elsewhere' })
    had = true
  })
  try {
    kept = await serviceWorker.register('/sw.js')
  } catch {
    // A browser that forbids it goes on as before.
    return
  }
  const registration = kept
  if (registration.active) useVersion.setState({ keptHere: true })
  follow(registration.waiting ?? registration.installing, registration)
  registration.addEventListener('updatefound', () => follow(registration.installing, registration))
  look()
  setInterval(look, LOOK_EVERY_MS)
  addEventListener('online', look)
}

/** Loads the page anew in the newer version, once everything is written. */
export async function takeNewer(): Promise<void> {
  await allWritten()
  if (useVersion.getState().newer === 'elsewhere') return location.reload()
  asked = true
  kept?.waiting?.postMessage({ type: 'SKIP_WAITING' })
}
