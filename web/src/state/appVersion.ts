import type { Workbox } from 'workbox-window'
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

let worker: Workbox | undefined
let asked = false

/** Milliseconds between two looks for a newer version, in a window that stays open. */
const LOOK_EVERY_MS = 3_600_000

/**
 * Keeps the app in this browser, where the browser can: over plain http under another name it cannot. A newer version is kept too, and
 * waits; no page is ever loaded anew that did not ask for it.
 */
export async function keepAppHere(): Promise<void> {
  if (!('serviceWorker' in navigator) || worker) return
  const { serviceWorker } = navigator
  const { Workbox } = await import('workbox-window')
  worker = new Workbox('/sw.js')
  worker.addEventListener('activated', () => useVersion.setState({ keptHere: true }))
  worker.addEventListener('waiting', () => useVersion.setState({ newer: 'waiting' }))
  let had = serviceWorker.controller !== null
  if (had) useVersion.setState({ keptHere: true })
  serviceWorker.addEventListener('controllerchange', () => {
    if (asked) location.reload()
    else if (had) useVersion.setState({ newer: 'elsewhere' })
    had = true
  })
  try {
    const registration = await worker.register()
    if (registration?.active) useVersion.setState({ keptHere: true })
  } catch {
    // A browser that forbids it goes on as before.
    return
  }
  setInterval(() => void worker?.update().catch(() => undefined), LOOK_EVERY_MS)
}

/** Loads the page anew in the newer version, once everything is written. */
export async function takeNewer(): Promise<void> {
  await allWritten()
  if (useVersion.getState().newer === 'elsewhere') return location.reload()
  asked = true
  worker?.messageSkipWaiting()
}
