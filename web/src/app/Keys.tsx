import { present } from '@velvet-porch/core/invariant'
import { Kbd, Modal, Table, UnstyledButton } from '@mantine/core'
import { Spotlight, spotlight } from '@mantine/spotlight'
import { useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useReadOnly } from '../state/writeLock.ts'
import { actionFor, useOfferedActions, type Action } from '../state/actions.ts'

/** The command palette (Ctrl+K) and the list of keys (?). Both show what can be done now. */
export function Keys() {
  const { t } = useTranslation()
  const offered = useOfferedActions()
  const readOnly = useReadOnly(useParams().id)
  const actions = useMemo(() => (readOnly ? offered.filter((a) => !a.writes) : offered), [offered, readOnly])
  const [listed, setListed] = useState(false)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const own: readonly Action[] = [
        { id: 'palette', label: '', keys: 'Mod+K', run: spotlight.open },
        { id: 'keys', label: '', keys: '?', run: () => setListed(true) },
      ]
      const action = actionFor(event, [...actions, ...own])
      if (!action) return
      event.preventDefault()
      action.run()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [actions])
  const close = () => setListed(false)
  return (
    <>
      <Spotlight
        shortcut={null}
        actions={actions.map((a) => ({
          id: a.id,
          label: a.label,
          onClick: a.run,
          rightSection: a.keys ? <Kbd>{shownKeys(a.keys)}</Kbd> : undefined,
        }))}
        nothingFound={t('keys.nothing')}
        searchProps={{ 'aria-label': t('keys.search'), placeholder: t('keys.search') }}
        highlightQuery
        scrollable
        maxHeight="60vh"
      />
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
            <Table.Tr>
              <Table.Td>{t('keys.palette')}</Table.Td>
              <Table.Td ta="right">
                <Kbd>Ctrl+K</Kbd>
              </Table.Td>
            </Table.Tr>
          </Table.Tbody>
        </Table>
      </Modal>
    </>
  )
}

const shownKeys = (keys: string) => keys.replace('Mod', 'Ctrl')
