import { Button, Group, Text } from '@mantine/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { takeNewer, useAppVersion } from '../../state/appVersion.ts'
import css from './VersionNotice.module.css'

/** Offers a newer version of the app; it is never taken by itself. */
export function VersionNotice() {
  const { t } = useTranslation()
  const { newer } = useAppVersion()
  const [later, setLater] = useState<typeof newer>()
  if (!newer || newer === later) return null
  return (
    <Group className={`${css['version-notice']} no-print`} gap="sm" role="status" data-testid="newer-version">
      <Text size="sm">{t(`version.${newer}`)}</Text>
      <Button size="compact-sm" onClick={() => void takeNewer()}>
        {t('version.take')}
      </Button>
      <Button size="compact-sm" variant="subtle" onClick={() => setLater(newer)}>
        {t('version.later')}
      </Button>
    </Group>
  )
}
