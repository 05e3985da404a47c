import { useCallback, useEffect, useState } from 'react'

/** How long another holder may take to let go before this tab turns read-only. */
const PATIENCE_MS = 400

/**
 * One tab at a time writes a tune; others read until they take over or it is closed. Built on the browser's Web Locks, which a closed
 * or killed tab gives back by itself.
 */
export function useDocLock(id: string): { readonly writable: boolean; readonly takeOver: () => void } {
  const [writable, setWritable] = useState(true)
  const [attempt, setAttempt] = useState({ steal: false })
  useEffect(() => {
    if (!navigator.locks) return
    let release = () => {}
    let left = false
    const waiting = new AbortController()
    const hold = new Promise<void>((resolve) => (release = resolve))
    // The stage before this one may still be giving the lock back: wait a moment before saying that somebody has it.
    const patience = setTimeout(() => setWritable(false), PATIENCE_MS)
    navigator.locks
      .request(`tune-${id}`, attempt.steal ? { steal: true } : { signal: waiting.signal }, () => {
        clearTimeout(patience)
        if (left) return undefined
        setWritable(true)
        return hold
      })
      .catch(() => {
        if (!left) setWritable(false)
      })
    return () => {
      left = true
      clearTimeout(patience)
      waiting.abort()
      release()
    }
  }, [id, attempt])
  const takeOver = useCallback(() => setAttempt({ steal: true }), [])
  return { writable, takeOver }
}
