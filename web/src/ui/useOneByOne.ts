import { useEffect, useState } from 'react'

/**
 * What is worked out from some items, one after the other so that the page never waits.
 * @param of what to work out; pass the same function as long as it would answer alike
 * @returns undefined until all were worked out for the first time
 */
export function useOneByOne<T, R>(
  items: readonly T[] | undefined,
  of: (item: T) => R | Promise<R>,
): readonly R[] | undefined {
  const [found, setFound] = useState<readonly R[]>()
  useEffect(() => {
    if (!items) return undefined
    let left = false
    void (async () => {
      const all: R[] = []
      for (const item of items) {
        const one = await of(item)
        if (left) return
        all.push(one)
        await new Promise((resolve) => setTimeout(resolve))
      }
      if (!left) setFound(all)
    })()
    return () => {
      left = true
    }
  }, [items, of])
  return found
}
