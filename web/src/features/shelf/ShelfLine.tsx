import { Text } from '@mantine/core'
import { memo, type Ref } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { useComesBehind } from '../../state/arrangedBehind.ts'
import type { ShelfRow } from '../../state/db.ts'
import { brought } from '../../ui/brought.ts'
import { useNames } from '../../ui/names/useNames.ts'
import { OnceAsked } from '../../ui/OnceAsked.tsx'
import { LineDots } from './LineDots.tsx'
import type { LineAction } from './LineMenu.tsx'
import css from './ShelfTable.module.css'
import shelfCss from './shelf.module.css'

const LineMenu = brought(async () => (await import('./LineMenu.tsx')).LineMenu)

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
        <OnceAsked button={(unfolding) => <LineDots tune={row.title} {...unfolding} />}>
          <LineMenu row={row} act={act} />
        </OnceAsked>
      </td>
    </tr>
  )
})

/** Says of a tune that its tab is on its way. */
function ComesBehind({ id }: { id: string }) {
  const { t } = useTranslation()
  return useComesBehind(id) ? (
    <Text span size="xs" c="dimmed" ml={8}>
      {t('shelf.beingArranged')}
    </Text>
  ) : null
}
