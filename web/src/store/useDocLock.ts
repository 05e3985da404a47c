import { useCallback, useEffect, useState } from 'react'

/**
 * One tab at a time writes a tune; others read until they take over. Built on the browser's Web Locks, which a closed
 * or killed tab gives back by itself.
 */
export function useDocLock(id: string): { readonly writable: boolean; readonly takeOver: () => void } {
  const [writable, setWritable] = useState(true)
  const [attempt, setAttempt] = useState({ steal: false })
  useEffect(() => {
    if (!navigator.locks) return
    let release = () => {}
    let left = false
    const hold = new Promise<void>((resolve) => (release = resolve))
    navigator.locks
      .request(`tune-${id}`, attempt.steal ? { steal: true } : { ifAvailable: true }, (lock) => {
        if (left) return undefined
        setWritable(lock !== null)
        return lock ? hold : undefined
      })
      .catch(() => {
        if (!left) setWritable(false)
      })
    return () => {
      left = true
      release()
    }
  }, [id, attempt])
  const takeOver = useCallback(() => setAttempt({ steal: true }), [])
  return { writable, takeOver }
}
