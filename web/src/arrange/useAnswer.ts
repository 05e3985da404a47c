import { useEffect, useState } from 'react'

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
    void ask().then((found) => {
      if (!left) setAnswer(found)
    })
    return () => {
      left = true
    }
  }, [ask])
  return answer
}
