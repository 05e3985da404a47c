import { Kbd, Modal, Table, UnstyledButton } from '@mantine/core'
import { spotlight } from '@mantine/spotlight'
import { present } from '@velvet-porch/core/invariant'
import { useEffect, useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { actionFor, useOfferedActions, type Action } from '../../state/actions.ts'
import { useReadOnly } from '../../state/writeLock.ts'
import { Palette } from './Palette.tsx'
import { shownKeys } from './shownKeys.ts'

/** The palette (Ctrl+K) and the list of keys (?). Both show what can be done now. */
export function Keys({ listed, onListed }: { listed: boolean; onListed: (listed: boolean) => void }) {
  const { t } = useTranslation()
  const offered = useOfferedActions()
  const readOnly = useReadOnly(useParams().id)
  const actions = useMemo(() => (readOnly ? offered.filter((a) => !a.writes) : offered), [offered, readOnly])
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const own: readonly Action[] = [
        { id: 'palette', label: '', keys: 'Mod+K', run: spotlight.open },
        { id: 'keys', label: '', keys: '?', run: () => onListed(true) },
      ]
      const action = actionFor(event, [...actions, ...own])
      if (!action) return
      event.preventDefault()
      action.run()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [actions, onListed])
  const close = () => onListed(false)
  return (
    <>
      <Palette actions={actions} />
      <Modal
        opened={listed}
        onClose={close}
        title={t('keys.title')}
        closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
      >
        <Table>
          <Table.Tbody>
            {actions
              .filter((a) => a.keys)
              .map((a) => (
                <Table.Tr key={a.id}>
                  <Table.Td>
                    <UnstyledButton
                      onClick={() => {
                        close()
                        a.run()
                      }}
                    >
                      {a.label}
                    </UnstyledButton>
                  </Table.Td>
                  <Table.Td ta="right">
                    <Kbd>{shownKeys(present(a.keys))}</Kbd>
                  </Table.Td>
                </Table.Tr>
              ))}
            {[
              ['Mod+K', t('keys.palette')] as const,
              ['?', t('keys.title')] as const,
              ...keysOfParts().map((k) => [t(`keys.partKeys.${k}`), t(`keys.partDoes.${k}`)] as const),
            ].map(([keys, label]) => (
              <Table.Tr key={keys}>
                <Table.Td>{label}</Table.Td>
                <Table.Td ta="right">
                  <Kbd>{shownKeys(keys)}</Kbd>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Modal>
    </>
  )
}

/** Keys of parts of the page, which count while the keyboard is on them. */
const PARTS = [
  ['walk', '[data-sheet][tabindex]'],
  ['lines', '[data-sheet][tabindex]'],
  ['measures', '[data-sheet][tabindex]'],
  ['ends', '[data-sheet][tabindex]'],
  ['mark', '[data-sheet][tabindex]'],
  ['loop', '[data-sheet][tabindex]'],
  ['neck', '[data-testid="neck"]'],
  ['series', '[data-series]'],
] as const

/** Those of the page that is open. */
const keysOfParts = () => PARTS.filter(([, where]) => document.querySelector(where)).map(([part]) => part)
