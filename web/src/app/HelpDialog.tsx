import { Button, Group, Modal, Text } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { callGuide } from '../state/guide.ts'
import type { Place } from './rail/places.ts'

/** What a stage is for, in three lines; from here to its keys and to the first steps. */
export function HelpDialog({
  place,
  opened,
  onClose,
  onKeys,
}: {
  place: Place
  opened: boolean
  onClose: () => void
  onKeys: () => void
}) {
  const { t } = useTranslation()
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title={t('help.of', { place: t(`rail.${place}`) })}
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      {t(`help.${place}`)
        .split('\n')
        .map((line) => (
          <Text key={line} mb={6}>
            {line}
          </Text>
        ))}
      <Group mt="md" gap="sm">
        <Button variant="default" onClick={onKeys}>
          {t('help.keys')}
        </Button>
        <Button
          variant="default"
          onClick={() => {
            callGuide()
            onClose()
          }}
        >
          {t('guide.call')}
        </Button>
      </Group>
    </Modal>
  )
}
