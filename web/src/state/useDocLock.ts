import { useCallback, useEffect, useState } from 'react'
import { setReadOnly, useReadOnly } from './writeLock.ts'

/** How long another holder may take to let go before this window turns read-only. */
const PATIENCE_MS = 400

/**
 * One window at a time writes a tune; others read until they take over or it is closed. Built on the browser's Web Locks,
 * which a closed or killed window gives back by itself. A window whose tune was taken over waits for its turn again.
 */
export function useDocLock(id: string): { readonly writable: boolean; readonly takeOver: () => void } {
  const readOnly = useReadOnly(id)
  const [attempt, setAttempt] = useState({ steal: false })
  useEffect(() => {
    // Over plain http under another name a browser has no locks: then every window writes, and revisions settle it.
    if (!navigator.locks) return
    let release = () => {}
    let left = false
    const waiting = new AbortController()
    const hold = new Promise<void>((resolve) => (release = resolve))
    // The stage before this one may still be giving the lock back: wait a moment before saying that somebody has it.
    const patience = setTimeout(() => setReadOnly(id, true), PATIENCE_MS)
    const ask = (options: LockOptions) =>
      navigator.locks.request(`tune-${id}`, options, () => {
        clearTimeout(patience)
        if (left) return undefined
        setReadOnly(id, false)
        return hold
      })
    const askAgain = () => {
      if (left) return
      setReadOnly(id, true)
      ask({ signal: waiting.signal }).catch(askAgain)
    }
    ask(attempt.steal ? { steal: true } : { signal: waiting.signal }).catch(askAgain)
    return () => {
      left = true
      clearTimeout(patience)
      waiting.abort()
      release()
      setReadOnly(id, false)
    }
  }, [id, attempt])
  const takeOver = useCallback(() => setAttempt({ steal: true }), [])
  return { writable: !readOnly, takeOver }
}
