import { Button, Group, Modal, Table, Text } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { binned, deleteForGood, putBack } from '../../state/shelf.ts'
import { useStored } from '../../state/useStored.ts'

/** Removed tunes: put back, or deleted for good before their days are over. */
export function BinDialog({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const { t } = useTranslation()
  const tunes = useStored(() => (opened ? binned() : []), [opened])
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title={t('shelf.bin.title')}
      size="lg"
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      <Text size="sm" c="dimmed" mb="sm">
        {t('shelf.bin.hint')}
      </Text>
      {tunes?.length === 0 ? <Text>{t('shelf.bin.empty')}</Text> : null}
      <Table data-testid="bin">
        <Table.Tbody>
          {(tunes ?? []).map(({ row, daysLeft }) => (
            <Table.Tr key={row.id}>
              <Table.Td>
                {row.title}
                <Text size="xs" c="dimmed">
                  {t('shelf.bin.left', { count: daysLeft })}
                </Text>
              </Table.Td>
              <Table.Td>
                <Group gap="xs" justify="flex-end" wrap="nowrap">
                  <Button
                    size="compact-sm"
                    aria-label={t('shelf.bin.backTitle', { title: row.title })}
                    onClick={() => void putBack(row.id)}
                  >
                    {t('shelf.undo')}
                  </Button>
                  <Button
                    size="compact-sm"
                    variant="subtle"
                    color="red"
                    aria-label={t('shelf.bin.goneTitle', { title: row.title })}
                    onClick={() => void deleteForGood([row.id])}
                  >
                    {t('shelf.bin.gone')}
                  </Button>
                </Group>
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Modal>
  )
}
