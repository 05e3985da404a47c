import { Button, Group, Modal, Text } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import type { Backup } from '@velvet-porch/core/schema'
import { useTranslation } from 'react-i18next'
import { restoreChanges } from '../../state/backup.ts'

interface Props {
  readonly backup: Backup
  /** Recordings that come with it. */
  readonly recordings: number
  readonly onClose: () => void
  readonly onBring: (how: 'add' | 'replace') => void
}

/** Titles that are named; how many more there are is said. */
const NAMED = 5

/** What bringing a backup in would change, before anything is. */
export function RestoreDialog({ backup, recordings, onClose, onBring }: Props) {
  const { t } = useTranslation()
  const { data: changes } = useQuery({
    queryKey: ['restore', backup.madeAt],
    queryFn: () => restoreChanges(backup),
    networkMode: 'always',
    gcTime: 0,
    staleTime: 0,
  })
  const listed = (titles: readonly string[]) => {
    const named = titles.slice(0, NAMED).map((title) => `“${title}”`)
    const more = titles.length - named.length
    return more > 0 ? t('data.andMore', { list: named.join(', '), count: more }) : named.join(', ')
  }
  return (
    <Modal
      opened
      onClose={onClose}
      title={t('data.bringTitle')}
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      <Text>{t('data.holds', { count: backup.rows.tunes.length, date: backup.madeAt.slice(0, 10) })}</Text>
      {changes ? (
        <ul data-testid="restore-changes">
          <li>
            {changes.come.length > 0
              ? t('data.come', { count: changes.come.length, list: listed(changes.come) })
              : t('data.comeNone')}
          </li>
          {changes.students > 0 ? <li>{t('data.students', { count: changes.students })}</li> : null}
          {recordings > 0 ? <li>{t('data.recordings', { count: recordings })}</li> : null}
          {changes.here.length > 0 ? (
            <li>{t('data.here', { count: changes.here.length, list: listed(changes.here) })}</li>
          ) : null}
          {changes.gone.length > 0 ? (
            <li>{t('data.gone', { count: changes.gone.length, list: listed(changes.gone) })}</li>
          ) : null}
        </ul>
      ) : null}
      <Text size="sm" c="dimmed" my="sm">
        {t('data.choice')}
      </Text>
      <Group justify="flex-end">
        <Button variant="default" color="red" onClick={() => onBring('replace')}>
          {t('data.replace')}
        </Button>
        <Button onClick={() => onBring('add')}>{t('data.add')}</Button>
      </Group>
    </Modal>
  )
}
