import { Alert, Button, FileButton, Group, Modal, Text } from '@mantine/core'
import type { Backup } from '@velvet-porch/core/schema'
import { IconDeviceFloppy, IconFolderOpen } from '@tabler/icons-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { saveAs } from '../../ui/saveAs.ts'
import { everything, restore } from '../../state/backup.ts'
import { TABLES_VERSION } from '../../state/db.ts'
import { errorWords } from '../../workers/errorWords.ts'

type Outcome = { readonly kind: 'done' | 'failed'; readonly text: string }

/** Everything that this browser keeps, out as one file and in again. */
export function YourData() {
  const { t } = useTranslation()
  const [found, setFound] = useState<Backup>()
  const [outcome, setOutcome] = useState<Outcome>()
  const failed = (error: unknown) => setOutcome({ kind: 'failed', text: errorWords(t, error) })
  const save = async () => {
    try {
      const { name, text } = await everything()
      saveAs(name, text, 'application/json')
      setOutcome({ kind: 'done', text: t('data.saved', { name }) })
    } catch (error) {
      failed(error)
    }
  }
  const look = async (file: File | null) => {
    if (!file) return
    setOutcome(undefined)
    try {
      const { readBackup } = await import('@velvet-porch/core/schema')
      let value: unknown
      try {
        value = JSON.parse(await file.text())
      } catch {
        throw new Error(t('data.notJson', { name: file.name }))
      }
      setFound(readBackup(value, TABLES_VERSION))
    } catch (error) {
      failed(error)
    }
  }
  const bring = async (backup: Backup, how: 'add' | 'replace') => {
    setFound(undefined)
    try {
      const { added, kept } = await restore(backup, how)
      setOutcome({
        kind: 'done',
        text: kept > 0 ? t('data.addedKept', { added, kept }) : t('data.added', { count: added }),
      })
    } catch (error) {
      failed(error)
    }
  }
  return (
    <section data-testid="your-data">
      <h2>{t('data.title')}</h2>
      <p className="soft">{t('data.hint')}</p>
      <Group gap="sm">
        <Button leftSection={<IconDeviceFloppy size={18} />} onClick={() => void save()}>
          {t('data.save')}
        </Button>
        <FileButton accept=".json,application/json" onChange={(file) => void look(file)}>
          {(props) => (
            <Button {...props} variant="default" leftSection={<IconFolderOpen size={18} />}>
              {t('data.open')}
            </Button>
          )}
        </FileButton>
      </Group>
      {outcome ? (
        <Alert mt="sm" color={outcome.kind === 'done' ? 'plum' : 'red'} role="status">
          {outcome.text}
        </Alert>
      ) : null}
      <Modal
        opened={found !== undefined}
        onClose={() => setFound(undefined)}
        title={t('data.bringTitle')}
        closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
      >
        {found ? (
          <>
            <Text>
              {t('data.holds', {
                count: found.rows.tunes.length,
                date: found.madeAt.slice(0, 10),
              })}
            </Text>
            <Text size="sm" c="dimmed" my="sm">
              {t('data.choice')}
            </Text>
            <Group justify="flex-end">
              <Button variant="default" color="red" onClick={() => void bring(found, 'replace')}>
                {t('data.replace')}
              </Button>
              <Button onClick={() => void bring(found, 'add')}>{t('data.add')}</Button>
            </Group>
          </>
        ) : null}
      </Modal>
    </section>
  )
}
