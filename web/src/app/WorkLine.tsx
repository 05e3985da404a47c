import { useDebouncedValue } from '@mantine/hooks'
import { useIsFetching } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import css from './WorkLine.module.css'

/** What is done sooner is not worth a sign. */
const UNSEEN_MS = 250

/** A line at the top of the stage while a question to a worker or the server is open: work that takes a while is seen. */
export function WorkLine() {
  const { t } = useTranslation()
  const working = useIsFetching() > 0
  const [lasting] = useDebouncedValue(working, UNSEEN_MS)
  return working && lasting ? (
    <div className={`${css['work-line']} no-print`} role="progressbar" aria-label={t('app.working')} />
  ) : null
}
