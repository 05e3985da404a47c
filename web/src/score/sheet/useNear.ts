import { useEffect, useState, type RefObject } from 'react'

/** True while an element is in the view or within a screen of it. `always` is for print. */
export function useNear(ref: RefObject<Element | null>, always: boolean): boolean {
  const [near, setNear] = useState(always)
  useEffect(() => {
    const element = ref.current
    if (always || !element) return
    const observer = new IntersectionObserver(([entry]) => setNear(entry!.isIntersecting), {
      rootMargin: '700px',
    })
    observer.observe(element)
    return () => observer.disconnect()
  }, [ref, always])
  return near || always
}
