import { Alert, Button, Center, Container, Loader, Text, Title } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { saveAs } from '../arrange/saveAs.ts'
import { useDocLock } from '../store/useDocLock.ts'
import type { Opened } from '../store/useTune.ts'

/** Lets a stage in when its tune is there, whole, and not being worked on in another tab. */
export function TuneGate({
  opened,
  children,
}: {
  opened: Opened<TuneDoc>
  children: (tune: TuneDoc) => ReactNode
}) {
  const { t } = useTranslation()
  const id = useParams().id!
  const { writable, takeOver } = useDocLock(id)
  if (opened.state === 'loading')
    return (
      <Center h="60%">
        <Loader color="plum" />
      </Center>
    )
  if (opened.state === 'missing') {
    return (
      <Container size="sm" py={80}>
        <Title order={1}>{t('tune.missing')}</Title>
        <Text my="md">{t('tune.missingText')}</Text>
        <Button component={Link} to="/">
          {t('tune.toShelf')}
        </Button>
      </Container>
    )
  }
  if (opened.state === 'broken') {
    return (
      <Container size="sm" py={80}>
        <Title order={1}>{t('tune.broken')}</Title>
        <Text my="md">{t('tune.brokenText')}</Text>
        <Text my="md" c="dimmed">
          {opened.reason}
        </Text>
        <Button
          onClick={() => saveAs('tune.json', JSON.stringify(opened.raw, undefined, 2), 'application/json')}
        >
          {t('tune.download')}
        </Button>
      </Container>
    )
  }
  return (
    <>
      {writable ? null : (
        <Alert color="lamp" title={t('lock.title')} m="xs">
          {t('lock.text')}{' '}
          <Button size="compact-sm" ml="sm" onClick={takeOver}>
            {t('lock.take')}
          </Button>
        </Alert>
      )}
      <fieldset disabled={!writable} inert={!writable} style={{ all: 'unset', display: 'contents' }}>
        {children(opened.doc)}
      </fieldset>
    </>
  )
}
