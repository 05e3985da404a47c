import { Button, Group } from '@mantine/core'
import {
  IconClipboardText,
  IconFileMusic,
  IconLamp,
  IconLayoutGrid,
  IconMicrophone,
  IconPencil,
} from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import css from './WaysIn.module.css'

interface Props {
  /** False until the shelf is read: an empty one has its buttons elsewhere, and a press meanwhile would be lost. */
  readonly read: boolean
  /** True where nothing is on the shelf yet: the demo comes first then. */
  readonly empty: boolean
  readonly onDemo: () => void
  readonly onNew: () => void
  readonly onPaste: () => void
  readonly onForm: () => void
  readonly onPlayIn: () => void
  readonly onOpen: () => void
}

/** The ways in: demo, an empty page, a paste, a melody played in, a form, files. */
export function WaysIn({ read, empty, onDemo, onNew, onPaste, onForm, onPlayIn, onOpen }: Props) {
  const { t } = useTranslation()
  return (
    <Group
      gap="sm"
      justify={empty ? 'center' : 'flex-end'}
      className={css['ways-in']}
      style={read ? undefined : { visibility: 'hidden' }}
    >
      <Button
        variant={empty ? 'filled' : 'default'}
        leftSection={<IconLamp size={18} />}
        onClick={onDemo}
        data-guide="bring"
      >
        {t('shelf.demo')}
      </Button>
      <Button variant="default" leftSection={<IconPencil size={18} />} onClick={onNew}>
        {t('shelf.newTune')}
      </Button>
      <Button
        variant="default"
        leftSection={<IconClipboardText size={18} />}
        onClick={onPaste}
        data-guide="bring"
      >
        {t('shelf.paste')}
      </Button>
      {empty ? null : (
        <>
          <Button variant="default" leftSection={<IconMicrophone size={18} />} onClick={onPlayIn}>
            {t('shelf.playIn')}
          </Button>
          <Button variant="default" leftSection={<IconLayoutGrid size={18} />} onClick={onForm}>
            {t('form.button')}
          </Button>
        </>
      )}
      <Button
        variant={empty ? 'default' : 'filled'}
        leftSection={<IconFileMusic size={18} />}
        onClick={onOpen}
      >
        {t('shelf.open')}
      </Button>
    </Group>
  )
}
