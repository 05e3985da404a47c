import { notifications } from '@mantine/notifications'
import type { QueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { db } from '../state/db.ts'
import { isReported, reportTrouble } from '../state/storageTrouble.ts'
import { onFailedWrite } from '../state/unwritten.ts'
import { onRefusedWrite } from '../state/writeLock.ts'
import { errorWords } from '../workers/errorWords.ts'

/** Words of one kind take each other's place: a failure that comes again is not said twice. */
const say = (id: string, title: string, message: string, color = 'red') => {
  const note = { id, title, message, color, autoClose: false as const }
  if (!notifications.update(note)) notifications.show(note)
}

/** Nothing fails in silence: what no view shows by itself is shown here. */
export function useFailures(queries: QueryClient): void {
  const { t } = useTranslation()
  useEffect(() => {
    // Storage that is missing is found out before anything is lost by it.
    db.open().catch(reportTrouble)
  }, [])
  useEffect(
    () =>
      onFailedWrite((error) => {
        if (!isReported(error)) reportTrouble(error)
      }),
    [],
  )
  useEffect(() => onRefusedWrite(() => say('read-only', t('lock.title'), t('lock.refused'), 'lamp')), [t])
  useEffect(
    () =>
      queries.getQueryCache().subscribe((event) => {
        if (event.type !== 'updated' || event.action.type !== 'error' || event.query.meta?.['shownHere'])
          return
        say('failed', t('error.failed'), errorWords(t, event.action.error))
      }),
    [queries, t],
  )
  useEffect(() => {
    const onRejection = (event: PromiseRejectionEvent) => {
      const error: unknown = event.reason
      if (isReported(error)) return event.preventDefault()
      say('failed', t('error.failed'), errorWords(t, error))
    }
    window.addEventListener('unhandledrejection', onRejection)
    return () => window.removeEventListener('unhandledrejection', onRejection)
  }, [t])
}
