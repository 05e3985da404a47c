import { present } from '@velvet-porch/core/invariant'
import { Alert, Button, Container, Group, Text, Title } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core/document'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { Working } from './Working.tsx'
import { saveAs } from './saveAs.ts'
import { useDocLock } from '../state/useDocLock.ts'
import { everything } from '../state/backup.ts'
import { setTabAside } from '../state/documents.ts'
import { checkAgain, type Opened } from '../state/useTune.ts'

interface Props {
  readonly opened: Opened<TuneDoc>
  readonly children: (tune: TuneDoc) => ReactNode
}

/** Lets a stage in when its tune is there, whole, and not being worked on in another tab. */
export function TuneGate({ opened, children }: Props) {
  const { t } = useTranslation()
  const { writable, takeOver } = useDocLock(present(useParams().id))
  return (
    <WholeTune opened={opened}>
      {(tune) => (
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
            {children(tune)}
          </fieldset>
        </>
      )}
    </WholeTune>
  )
}

/** Lets a page in that only shows a tune, when that is there and whole; says what is wrong with it otherwise. */
export function WholeTune({ opened, children }: Props) {
  const { t } = useTranslation()
  const id = present(useParams().id)
  if (opened.state === 'loading') return <Working />
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
  if (opened.state === 'broken') return <Broken id={id} opened={opened} />
  return children(opened.doc)
}

/** A tune or tab that storage holds and that cannot be read: its data out, everything out, a file back in. */
function Broken({ id, opened }: { id: string; opened: Opened<TuneDoc> & { state: 'broken' } }) {
  const { t } = useTranslation()
  const tab = opened.what === 'tab'
  const { reason, newer } = opened.refusal
  const save = async () => {
    const { name, text } = await everything()
    saveAs(name, text, 'application/json')
  }
  const open = async () => {
    await setTabAside(id)
    checkAgain(id)
    location.reload()
  }
  return (
    <Container size="sm" py={80} data-testid="broken">
      <Title order={1}>{t(newer ? 'tune.newer' : tab ? 'tune.brokenTab' : 'tune.broken')}</Title>
      <Text my="md">{t(newer ? 'tune.newerText' : tab ? 'tune.brokenTabText' : 'tune.brokenText')}</Text>
      <Text my="md" c="dimmed">
        {reason}
      </Text>
      <Group gap="sm">
        <Button
          onClick={() => saveAs('tune.json', JSON.stringify(opened.raw, undefined, 2), 'application/json')}
        >
          {t('tune.download')}
        </Button>
        <Button variant="default" onClick={() => void save()}>
          {t('tune.downloadAll')}
        </Button>
        <Button variant="default" component={Link} to="/settings">
          {t('tune.restore')}
        </Button>
        {tab && !newer ? (
          <Button variant="default" color="red" onClick={() => void open()}>
            {t('tune.withoutTab')}
          </Button>
        ) : (
          <Button variant="subtle" component={Link} to="/">
            {t('tune.toShelf')}
          </Button>
        )}
      </Group>
    </Container>
  )
}
