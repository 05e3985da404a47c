import { Button, Group, Modal, TextInput } from '@mantine/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { ShelfRow } from '../../state/db.ts'
import { renameTune } from '../../state/shelfSteps.ts'

/** Asks for another name of a tune. */
export function RenameDialog({ row, onClose }: { row: ShelfRow; onClose: () => void }) {
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
