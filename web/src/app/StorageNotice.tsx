import { Alert, Button, Group, Text } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { saveAs } from '../ui/saveAs.ts'
import { everything } from '../state/backup.ts'
import { retryWrites } from '../state/openScore.ts'
import { endTrouble, useStorageTrouble } from '../state/storageTrouble.ts'

/** Says, once, that the browser's storage failed, and what to do: nothing that is on the page is lost by it. */
export function StorageNotice() {
  const { t } = useTranslation()
  const trouble = useStorageTrouble()
  if (!trouble) return null
  const { kind, reason } = trouble
  const save = () =>
    everything().then(
      ({ name, text }) => saveAs(name, text, 'application/json'),
      () => undefined,
    )
  return (
    <Alert
      color="red"
      m="xs"
      className="no-print"
      role="alert"
      title={t(`storage.title.${kind}`)}
      data-testid="storage-trouble"
    >
      <Text size="sm">{t(`storage.text.${kind}`)}</Text>
      <Text size="sm" c="dimmed">
        {t('storage.reason', { reason })}
      </Text>
      <Group gap="xs" mt="xs">
        <Button
          size="compact-sm"
          onClick={() => {
            endTrouble()
            retryWrites()
          }}
        >
          {t('storage.retry')}
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => void save()}>
          {t('storage.save')}
        </Button>
      </Group>
    </Alert>
  )
}
