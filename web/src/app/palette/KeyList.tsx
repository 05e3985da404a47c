import { Kbd, Modal, Table, UnstyledButton } from '@mantine/core'
import { present } from '@velvet-porch/core/invariant'
import { useTranslation } from 'react-i18next'
import type { Action } from '../../state/actions.ts'
import { shownKeys } from './shownKeys.ts'

/** The keys that count on the page that is open, and what each does. */
export function KeyList({
  opened,
  actions,
  onClose,
}: {
  opened: boolean
  actions: readonly Action[]
  onClose: () => void
}) {
  const { t } = useTranslation()
  return (
    <Modal
      opened={opened}
      onClose={onClose}
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
                      onClose()
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
