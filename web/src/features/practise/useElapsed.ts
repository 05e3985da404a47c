import { useCallback, useEffect, useState } from 'react'

/** A clock that runs while it is wanted; seconds, whatever the tab does meanwhile. */
export function useElapsed(running: boolean): { readonly seconds: number; readonly reset: () => void } {
  const [before, setBefore] = useState(0)
  const [since, setSince] = useState<number>()
  const [now, setNow] = useState(0)
  useEffect(() => {
    if (!running) return undefined
    const start = performance.now()
    setSince(start)
    setNow(start)
    const ticking = setInterval(() => setNow(performance.now()), 1000)
    return () => {
      clearInterval(ticking)
      setSince(undefined)
      setBefore((b) => b + performance.now() - start)
    }
  }, [running])
  const seconds = Math.floor((before + (since === undefined ? 0 : Math.max(0, now - since))) / 1000)
  const reset = useCallback(() => {
    setBefore(0)
    setSince((s) => (s === undefined ? s : performance.now()))
  }, [])
  return { seconds, reset }
}
