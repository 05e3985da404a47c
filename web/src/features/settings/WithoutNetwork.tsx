import { Button } from '@mantine/core'
import { IconDeviceLaptop } from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import { useAppVersion } from '../../state/appVersion.ts'
import { install, useCanInstall } from '../../state/install.ts'

/** Whether the app opens without a network here, and its installation where the browser offers one. */
export function WithoutNetwork() {
  const { t } = useTranslation()
  const { keptHere } = useAppVersion()
  const canInstall = useCanInstall()
  return (
    <section data-testid="without-network">
      <h2>{t('offline.title')}</h2>
      <p className="soft" role="status">
        {t(keptHere ? 'offline.kept' : 'offline.notKept')}
      </p>
      {canInstall ? (
        <Button
          variant="default"
          leftSection={<IconDeviceLaptop size={18} />}
          onClick={() => void install().catch(() => undefined)}
        >
          {t('offline.install')}
        </Button>
      ) : null}
    </section>
  )
}
