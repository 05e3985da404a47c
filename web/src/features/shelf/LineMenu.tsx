import { Menu } from '@mantine/core'
import { IconCopy, IconDeviceFloppy, IconFileZip, IconPencil, IconTrash } from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import type { ShelfRow } from '../../state/db.ts'
import { LineDots } from './LineDots.tsx'

/** What can be done with one tune of the shelf. */
export type LineAction = 'rename' | 'duplicate' | 'save' | 'saveProject' | 'remove'

/** The menu of one tune of the shelf; it is open when it comes. */
export function LineMenu({
  row,
  act,
}: {
  readonly row: ShelfRow
  readonly act: (action: LineAction, row: ShelfRow) => void
}) {
  const { t } = useTranslation()
  const item = (action: LineAction) => () => act(action, row)
  return (
    <Menu position="bottom-end" defaultOpened>
      <Menu.Target>
        <LineDots tune={row.title} />
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item leftSection={<IconPencil size={16} />} onClick={item('rename')}>
          {t('shelf.rename')}
        </Menu.Item>
        <Menu.Item leftSection={<IconCopy size={16} />} onClick={item('duplicate')}>
          {t('shelf.duplicate')}
        </Menu.Item>
        <Menu.Item leftSection={<IconDeviceFloppy size={16} />} onClick={item('save')}>
          {t('shelf.saveTune')}
        </Menu.Item>
        <Menu.Item leftSection={<IconFileZip size={16} />} onClick={item('saveProject')}>
          {t('shelf.saveProject')}
        </Menu.Item>
        <Menu.Item leftSection={<IconTrash size={16} />} onClick={item('remove')}>
          {t('shelf.remove')}
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}
