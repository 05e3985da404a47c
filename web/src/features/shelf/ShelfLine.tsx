import { ActionIcon, Text } from '@mantine/core'
import { IconDots } from '@tabler/icons-react'
import { lazy, memo, Suspense, useState, type Ref } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { useComesBehind } from '../../state/arrangedBehind.ts'
import type { ShelfRow } from '../../state/db.ts'
import { useNames } from '../../ui/names/useNames.ts'
import type { LineAction } from './LineMenu.tsx'
import css from './ShelfTable.module.css'
import shelfCss from './shelf.module.css'

const LineMenu = lazy(async () => ({ default: (await import('./LineMenu.tsx')).LineMenu }))

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
    <tr ref={ref} data-index={index} aria-rowindex={index === undefined ? undefined : index + 2}>
      <td>
        <Link to={`/tunes/${row.id}/arrange`}>{row.title}</Link>{' '}
        {row.composer ? <span style={{ color: 'var(--ink-soft)', fontSize: 13 }}>{row.composer}</span> : null}{' '}
        {row.set ? <span className={css.set}>{row.set}</span> : null}
        <ComesBehind id={row.id} />
      </td>
      <td className={shelfCss['wide-only']}>{names.shape(row.key)}</td>
      <td className={shelfCss['wide-only']}>{row.metre}</td>
      <td className={shelfCss['wide-only']} data-end>
        {row.measures}
      </td>
      <td className={shelfCss['wide-only']}>{when.format(row.changedAt)}</td>
      <td data-end>
        <MenuOnceAsked row={row} act={act} />
      </td>
    </tr>
  )
})

/** The menu of a line is made, and its code brought, when it is first asked for. */
function MenuOnceAsked({ row, act }: Pick<LineProps, 'row' | 'act'>) {
  const { t } = useTranslation()
  const [wanted, setWanted] = useState(false)
  const dots = (
    <ActionIcon
      variant="subtle"
      color="gray"
      aria-label={t('shelf.actions', { title: row.title })}
      aria-haspopup="menu"
      aria-expanded={false}
      onClick={() => setWanted(true)}
    >
      <IconDots size={18} />
    </ActionIcon>
  )
  return wanted ? (
    <Suspense fallback={dots}>
      <LineMenu row={row} act={act} />
    </Suspense>
  ) : (
    dots
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
