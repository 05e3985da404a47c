import { notifications } from '@mantine/notifications'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'

/** An address without a page leads to the shelf, and says so. */
export function UnknownAddress() {
  const { t } = useTranslation()
  const go = useNavigate()
  useEffect(() => {
    notifications.show({ id: 'unknown-address', message: t('address.unknown') })
    void go('/', { replace: true })
  }, [t, go])
  return null
}
