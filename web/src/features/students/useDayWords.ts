import type { Day } from '@velvet-porch/core/studio'
import { useCallback } from 'react'
import { today } from '../../state/studio.ts'

/** Days as they are written where the page is read; with the year where it is another than this one. */
export function useDayWords() {
  const dayText = useCallback((day: Day) => {
    const otherYear = day.slice(0, 4) !== today().slice(0, 4)
    return new Intl.DateTimeFormat(undefined, {
      timeZone: 'UTC',
      ...(otherYear ? { year: 'numeric' } : { weekday: 'short' }),
      day: 'numeric',
      month: 'short',
    }).format(new Date(`${day}T00:00:00Z`))
  }, [])
  return { dayText }
}
