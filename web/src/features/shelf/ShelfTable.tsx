import { Button, Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { memo, Suspense, useCallback, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { brought } from '../../ui/brought.ts'
import { download, saveAs } from '../../ui/saveAs.ts'
import type { ShelfRow } from '../../state/db.ts'
import { duplicateTune } from '../../state/shelf.ts'
import { noteShelfStep, removeTune } from '../../state/shelfSteps.ts'
import type { LineAction } from './LineMenu.tsx'
import { ShelfLine } from './ShelfLine.tsx'
import { useShelfUndo } from './useShelfUndo.ts'
import css from './ShelfTable.module.css'
import shelfCss from './shelf.module.css'

const LinesInView = brought(async () => (await import('./LinesInView.tsx')).LinesInView)

const RenameDialog = brought(async () => (await import('./RenameDialog.tsx')).RenameDialog)

/** A long shelf shows its newest tunes first and the rest on request. */
const SHOWN_AT_FIRST = 60

/** The tunes of the shelf; drawn anew when they change, not at every key of a search. */
export const ShelfTable = memo(function ShelfTable({ rows }: { rows: readonly ShelfRow[] }) {
  const { t, i18n } = useTranslation()
  const [renaming, setRenaming] = useState<ShelfRow>()
  const [all, setAll] = useState(false)
  const when = useMemo(
    () => new Intl.DateTimeFormat(i18n.language, { dateStyle: 'medium', timeStyle: 'short' }),
    [i18n.language],
  )
  const act = useLineActions(setRenaming)
  const isLong = rows.length > SHOWN_AT_FIRST
  const shown = all ? rows.length : Math.min(rows.length, SHOWN_AT_FIRST)
  return (
    <>
      <table className={css['shelf-table']} aria-rowcount={isLong ? shown + 1 : undefined}>
        <thead>
          <tr>
            <th>{t('shelf.columns.title')}</th>
            <th className={shelfCss['wide-only']}>{t('shelf.columns.key')}</th>
            <th className={shelfCss['wide-only']}>{t('shelf.columns.metre')}</th>
            <th className={shelfCss['wide-only']} data-end>
              {t('shelf.columns.measures')}
            </th>
            <th className={shelfCss['wide-only']}>{t('shelf.columns.changed')}</th>
            <td />
          </tr>
        </thead>
        {isLong ? (
          <Suspense>
            <LinesInView
              count={shown}
              line={(index, ref) => {
                const row = rows[index]
                return row ? (
                  <ShelfLine key={row.id} row={row} when={when} act={act} index={index} ref={ref} />
                ) : null
              }}
            />
          </Suspense>
        ) : (
          <tbody>
            {rows.map((row) => (
              <ShelfLine key={row.id} row={row} when={when} act={act} />
            ))}
          </tbody>
        )}
      </table>
      {!all && isLong ? (
        <Button variant="subtle" mt="xs" onClick={() => setAll(true)}>
          {t('shelf.showAll', { count: rows.length })}
        </Button>
      ) : null}
      {renaming ? (
        <Suspense>
          <RenameDialog row={renaming} onClose={() => setRenaming(undefined)} />
        </Suspense>
      ) : null}
    </>
  )
})

/** What the menu of a line does. The same function as long as the page stands, so that lines are not drawn anew for it. */
function useLineActions(onRename: (row: ShelfRow) => void): (action: LineAction, row: ShelfRow) => void {
  const { t } = useTranslation()
  const undo = useShelfUndo()
  return useCallback(
    (action, row) => {
      const does: Record<LineAction, () => Promise<void> | void> = {
        rename: () => onRename(row),
        duplicate: async () => {
          const copy = await duplicateTune(row.id, t('shelf.copyOf', { title: row.title }))
          if (copy !== undefined) noteShelfStep({ kind: 'duplicate', id: copy, title: row.title })
        },
        save: async () => {
          const { tuneFile } = await import('../../state/backup.ts')
          const file = await tuneFile(row.id)
          if (file) saveAs(file.name, file.text, 'application/json')
        },
        saveProject: async () => {
          const { projectOf } = await import('../../state/backupFile.ts')
          const file = await projectOf(row.id)
          if (file) download(file.name, new Blob([file.bytes], { type: 'application/zip' }))
        },
        remove: async () => {
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
        },
      }
      void does[action]()
    },
    [t, undo, onRename],
  )
}
