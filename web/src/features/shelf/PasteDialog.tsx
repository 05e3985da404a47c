import { Alert, Button, Group, Modal, Textarea } from '@mantine/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'

/** A field for pasted ABC. Stays open with its text while nothing in it can be read. */
export function PasteDialog({
  opened,
  onClose,
  onRead,
}: {
  opened: boolean
  onClose: () => void
  onRead: (text: string) => Promise<readonly string[]>
}) {
  const { t } = useTranslation()
  const [text, setText] = useState('')
  const [complaints, setComplaints] = useState<readonly string[]>([])
  const read = async () => setComplaints(await onRead(text))
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title={t('shelf.pasteTitle')}
      size="lg"
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      <Textarea
        label={t('shelf.pasteLabel')}
        description={t('shelf.pasteHint')}
        autosize
        minRows={10}
        maxRows={20}
        value={text}
        data-autofocus
        styles={{ input: { fontFamily: 'Fira Mono, monospace' } }}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      {complaints.length > 0 ? (
        <Alert color="red" mt="sm" title={t('shelf.readNone')} style={{ whiteSpace: 'pre-line' }}>
          {complaints.join('\n')}
        </Alert>
      ) : null}
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onClose}>
          {t('shelf.cancel')}
        </Button>
        <Button onClick={() => void read()}>{t('shelf.read')}</Button>
      </Group>
    </Modal>
  )
}
