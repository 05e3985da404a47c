import { useEffect, useState } from 'react'

/** Quiet time before a question is asked: whoever types asks once, not at every key. */
const QUIET_MS = 120

/**
 * The answer to a question that a worker takes its time over; undefined until it is there, and while another is asked.
 * @param ask undefined where there is nothing to ask; must keep its identity until the question changes
 */
export function useAnswer<T>(ask: (() => Promise<T>) | undefined): T | undefined {
  const [answer, setAnswer] = useState<T>()
  useEffect(() => {
    setAnswer(undefined)
    if (!ask) return
    let left = false
    const asking = setTimeout(() => {
      void ask().then((found) => {
        if (!left) setAnswer(found)
      })
    }, QUIET_MS)
    return () => {
      left = true
      clearTimeout(asking)
    }
  }, [ask])
  return answer
}
