import { ActionIcon, Menu, Table, Text } from '@mantine/core'
import { IconCopy, IconDeviceFloppy, IconFileZip, IconDots, IconPencil, IconTrash } from '@tabler/icons-react'
import { memo, useState, type Ref } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { useComesBehind } from '../../state/arrangedBehind.ts'
import type { ShelfRow } from '../../state/db.ts'
import { useNames } from '../../ui/names/useNames.ts'
import css from './ShelfTable.module.css'
import shelfCss from './shelf.module.css'

/** What can be done with one tune of the shelf. */
export type LineAction = 'rename' | 'duplicate' | 'save' | 'saveProject' | 'remove'

interface LineProps {
  readonly row: ShelfRow
  readonly when: Intl.DateTimeFormat
  readonly act: (action: LineAction, row: ShelfRow) => void
  /** Its place among all lines, where only those in view are drawn. */
  readonly index?: number
  readonly ref?: Ref<HTMLTableRowElement>
}

/** One tune of the shelf. Drawn anew only where something about it changed: a shelf may hold thousands. */
export const ShelfLine = memo(function ShelfLine({ row, when, act, index, ref }: LineProps) {
  const names = useNames()
  return (
    <Table.Tr ref={ref} data-index={index} aria-rowindex={index === undefined ? undefined : index + 2}>
      <Table.Td>
        <Link to={`/tunes/${row.id}/arrange`}>{row.title}</Link>{' '}
        {row.composer ? <span style={{ color: 'var(--ink-soft)', fontSize: 13 }}>{row.composer}</span> : null}{' '}
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
        <LineMenu row={row} act={act} />
      </Table.Td>
    </Table.Tr>
  )
})

/** The menu of a line is made when it is first asked for. */
function LineMenu({ row, act }: Pick<LineProps, 'row' | 'act'>) {
  const { t } = useTranslation()
  const [wanted, setWanted] = useState(false)
  const label = t('shelf.actions', { title: row.title })
  if (!wanted)
    return (
      <ActionIcon
        variant="subtle"
        color="gray"
        aria-label={label}
        aria-haspopup="menu"
        aria-expanded={false}
        onClick={() => setWanted(true)}
      >
        <IconDots size={18} />
      </ActionIcon>
    )
  const item = (action: LineAction) => () => act(action, row)
  return (
    <Menu position="bottom-end" defaultOpened>
      <Menu.Target>
        <ActionIcon variant="subtle" color="gray" aria-label={label}>
          <IconDots size={18} />
        </ActionIcon>
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

/** Says of a tune that its tab is on its way. */
function ComesBehind({ id }: { id: string }) {
  const { t } = useTranslation()
  return useComesBehind(id) ? (
    <Text span size="xs" c="dimmed" ml={8}>
      {t('shelf.beingArranged')}
    </Text>
  ) : null
}
