import { Button, Container, Text, Title } from '@mantine/core'
import { useTranslation } from 'react-i18next'

/** The last net: says that the work is saved and offers a reload. */
export function PageError({ error }: { error: unknown }) {
  const { t } = useTranslation()
  const storage = error instanceof Error && /quota|indexeddb|database/i.test(`${error.name} ${error.message}`)
  return (
    <Container size="sm" py={80} role="alert">
      <Title order={1}>{t(storage ? 'error.storage' : 'error.title')}</Title>
      <Text my="md">{storage ? t('error.storageText', { reason: error.message }) : t('error.text')}</Text>
      <Button onClick={() => location.reload()}>{t('error.reload')}</Button>
    </Container>
  )
}
