import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useDebouncedValue } from '@mantine/hooks'
import { useTranslation } from 'react-i18next'
import { understood, type Choices, type Source, type Understood } from './intake.ts'

/** Quiet time after a key before a text is read. */
const READ_AFTER_MS = 200

/** What sources are understood to be, and whether that is what stands there now. */
interface Reading {
  readonly read: readonly Understood[]
  readonly settled: boolean
  /** Sources that were read so far, where there are several. */
  readonly done: number
}

/** Reads texts as they are typed and pasted; nothing is taken. */
export function useUnderstood(sources: readonly Source[], choices: readonly Choices[]): Reading {
  const { t } = useTranslation()
  const wanted = { sources, choices }
  const [done, setDone] = useState(0)
  const [asked] = useDebouncedValue(JSON.stringify(wanted), READ_AFTER_MS)
  const query = useQuery({
    queryKey: ['understood', asked],
    // Whoever closes the dialog ends the reading.
    queryFn: async ({ signal }) => {
      const order = JSON.parse(asked) as typeof wanted
      const read: Understood[] = []
      for (const [i, source] of order.sources.entries()) {
        if (signal.aborted) break
        read.push(await understood(source, t('shelf.newTitle'), order.choices[i] ?? {}))
        setDone(i + 1)
      }
      return read
    },
    enabled: sources.some((s) => s.text.trim() !== ''),
    placeholderData: keepPreviousData,
    networkMode: 'always',
    retry: false,
    gcTime: 0,
  })
  const settled = asked === JSON.stringify(wanted) && !query.isPlaceholderData && !query.isFetching
  return { read: query.data ?? [], settled, done }
}
