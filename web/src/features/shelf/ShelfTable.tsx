import { ActionIcon, Button, Group, Menu, Modal, Table, Text, TextInput } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconCopy, IconDeviceFloppy, IconFileZip, IconDots, IconPencil, IconTrash } from '@tabler/icons-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { Link } from 'react-router'
import { download, saveAs } from '../../ui/saveAs.ts'
import { projectOf, tuneFile } from '../../state/backup.ts'
import { useComesBehind } from '../../state/arrangedBehind.ts'
import type { ShelfRow } from '../../state/db.ts'
import { duplicateTune } from '../../state/shelf.ts'
import { noteShelfStep, removeTune, renameTune } from '../../state/shelfSteps.ts'
import { useShelfUndo } from './useShelfUndo.ts'
import css from './ShelfTable.module.css'
import shelfCss from './shelf.module.css'

/** A long shelf shows its newest tunes first and the rest on request. */
const SHOWN_AT_FIRST = 60

export function ShelfTable({ rows }: { rows: readonly ShelfRow[] }) {
  const { t, i18n } = useTranslation()
  const names = useNames()
  const [renaming, setRenaming] = useState<ShelfRow>()
  const [all, setAll] = useState(false)
  const undo = useShelfUndo()
  const duplicate = async ({ id, title }: ShelfRow) => {
    const copy = await duplicateTune(id, t('shelf.copyOf', { title }))
    if (copy !== undefined) noteShelfStep({ kind: 'duplicate', id: copy, title })
  }
  const when = new Intl.DateTimeFormat(i18n.language, { dateStyle: 'medium', timeStyle: 'short' })
  const save = async ({ id }: ShelfRow) => {
    const file = await tuneFile(id)
    if (file) saveAs(file.name, file.text, 'application/json')
  }
  const saveProject = async ({ id }: ShelfRow) => {
    const file = await projectOf(id)
    if (file) download(file.name, new Blob([file.bytes], { type: 'application/zip' }))
  }
  const remove = async (row: ShelfRow) => {
    await removeTune(row.id, row.title)
    const note = notifications.show({
      message: (
        <Group justify="space-between" wrap="nowrap">
          {t('shelf.removed', { title: row.title })}
          <Button
            size="compact-sm"
            variant="light"
            onClick={() => {
              notifications.hide(note)
              void undo()
            }}
          >
            {t('shelf.undo')}
          </Button>
        </Group>
      ),
      autoClose: 12_000,
    })
  }
  return (
    <>
      <Table className={css['shelf-table']} verticalSpacing={6} highlightOnHover>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>{t('shelf.columns.title')}</Table.Th>
            <Table.Th className={shelfCss['wide-only']}>{t('shelf.columns.key')}</Table.Th>
            <Table.Th className={shelfCss['wide-only']}>{t('shelf.columns.metre')}</Table.Th>
            <Table.Th className={shelfCss['wide-only']} ta="right">
              {t('shelf.columns.measures')}
            </Table.Th>
            <Table.Th className={shelfCss['wide-only']}>{t('shelf.columns.changed')}</Table.Th>
            <Table.Td />
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {(all ? rows : rows.slice(0, SHOWN_AT_FIRST)).map((row) => (
            <Table.Tr key={row.id}>
              <Table.Td>
                <Link to={`/tunes/${row.id}/arrange`}>{row.title}</Link>{' '}
                {row.composer ? (
                  <span style={{ color: 'var(--ink-soft)', fontSize: 13 }}>{row.composer}</span>
                ) : null}{' '}
                {row.set ? <span className={css.set}>{row.set}</span> : null}
                <ComesBehind id={row.id} />
              </Table.Td>
              <Table.Td className={shelfCss['wide-only']}>{names.shape(row.key)}</Table.Td>
              <Table.Td className={shelfCss['wide-only']}>{row.metre}</Table.Td>
              <Table.Td className={shelfCss['wide-only']} ta="right">
                {row.measures}
              </Table.Td>
              <Table.Td className={shelfCss['wide-only']}>{when.format(row.changedAt)}</Table.Td>
              <Table.Td ta="right">
                <Menu position="bottom-end">
                  <Menu.Target>
                    <ActionIcon
                      variant="subtle"
                      color="gray"
                      aria-label={t('shelf.actions', { title: row.title })}
                    >
                      <IconDots size={18} />
                    </ActionIcon>
                  </Menu.Target>
                  <Menu.Dropdown>
                    <Menu.Item leftSection={<IconPencil size={16} />} onClick={() => setRenaming(row)}>
                      {t('shelf.rename')}
                    </Menu.Item>
                    <Menu.Item leftSection={<IconCopy size={16} />} onClick={() => void duplicate(row)}>
                      {t('shelf.duplicate')}
                    </Menu.Item>
                    <Menu.Item leftSection={<IconDeviceFloppy size={16} />} onClick={() => void save(row)}>
                      {t('shelf.saveTune')}
                    </Menu.Item>
                    <Menu.Item leftSection={<IconFileZip size={16} />} onClick={() => void saveProject(row)}>
                      {t('shelf.saveProject')}
                    </Menu.Item>
                    <Menu.Item leftSection={<IconTrash size={16} />} onClick={() => void remove(row)}>
                      {t('shelf.remove')}
                    </Menu.Item>
                  </Menu.Dropdown>
                </Menu>
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {!all && rows.length > SHOWN_AT_FIRST ? (
        <Button variant="subtle" mt="xs" onClick={() => setAll(true)}>
          {t('shelf.showAll', { count: rows.length })}
        </Button>
      ) : null}
      {renaming ? <RenameDialog row={renaming} onClose={() => setRenaming(undefined)} /> : null}
    </>
  )
}

/** Says of a tune that its tab is on its way. */
function ComesBehind({ id }: { id: string }) {
  const { t } = useTranslation()
  return useComesBehind(id) ? (
    <Text span size="xs" c="dimmed" ml={8}>
      {t('shelf.beingArranged')}
    </Text>
  ) : null
}

function RenameDialog({ row, onClose }: { row: ShelfRow; onClose: () => void }) {
  const { t } = useTranslation()
  const [title, setTitle] = useState(row.title)
  const save = async () => {
    const name = title.trim()
    if (name) await renameTune(row.id, row.title, name)
    onClose()
  }
  return (
    <Modal
      opened
      onClose={onClose}
      title={t('shelf.renameTitle')}
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault()
          void save()
        }}
      >
        <TextInput
          label={t('shelf.name')}
          value={title}
          maxLength={300}
          data-autofocus
          onChange={(e) => setTitle(e.currentTarget.value)}
        />
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            {t('shelf.cancel')}
          </Button>
          <Button type="submit" disabled={title.trim() === ''}>
            {t('shelf.save')}
          </Button>
        </Group>
      </form>
    </Modal>
  )
}
