import { Kbd, Modal, Table, TextInput, UnstyledButton } from '@mantine/core'
import { useEffect, useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useReadOnly } from '../state/writeLock.ts'
import { actionFor, useOfferedActions } from '../state/actions.ts'

/** The command palette (Ctrl+K) and the list of keys (?). Both show what can be done now. */
export function Keys() {
  const { t } = useTranslation()
  const offered = useOfferedActions()
  const readOnly = useReadOnly(useParams().id)
  const actions = useMemo(() => (readOnly ? offered.filter((a) => !a.writes) : offered), [offered, readOnly])
  const [open, setOpen] = useState<'palette' | 'keys'>()
  const [search, setSearch] = useState('')
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault()
        setOpen('palette')
        return
      }
      const own = { id: 'keys', label: '', keys: '?', run: () => setOpen('keys') }
      const action = actionFor(event, [...actions, own])
      if (!action) return
      event.preventDefault()
      action.run()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [actions])
  const found = useMemo(
    () => actions.filter((a) => a.label.toLowerCase().includes(search.toLowerCase())),
    [actions, search],
  )
  const close = () => {
    setOpen(undefined)
    setSearch('')
  }
  return (
    <Modal
      opened={open !== undefined}
      onClose={close}
      title={t(open === 'keys' ? 'keys.title' : 'keys.palette')}
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      {open === 'palette' ? (
        <form
          onSubmit={(event) => {
            event.preventDefault()
            close()
            found[0]?.run()
          }}
        >
          <TextInput
            data-autofocus
            aria-label={t('keys.search')}
            placeholder={t('keys.search')}
            value={search}
            onChange={(e) => setSearch(e.currentTarget.value)}
            mb="sm"
          />
        </form>
      ) : null}
      <Table>
        <Table.Tbody>
          {(open === 'palette' ? found : actions.filter((a) => a.keys)).map((a) => (
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
              <Table.Td ta="right">{a.keys ? <Kbd>{a.keys.replace('Mod', 'Ctrl')}</Kbd> : null}</Table.Td>
            </Table.Tr>
          ))}
          {open === 'keys' ? (
            <Table.Tr>
              <Table.Td>{t('keys.palette')}</Table.Td>
              <Table.Td ta="right">
                <Kbd>Ctrl+K</Kbd>
              </Table.Td>
            </Table.Tr>
          ) : null}
        </Table.Tbody>
      </Table>
      {open === 'palette' && found.length === 0 ? t('keys.nothing') : null}
    </Modal>
  )
}
