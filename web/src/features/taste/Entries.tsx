import { CloseButton, Select, Switch, Table, Text } from '@mantine/core'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { shapeFault, type TasteDoc, type TasteEntry } from '@velvet-porch/core/taste'
import { useTranslation } from 'react-i18next'
import { useCurrentPlayer } from '../../state/players.ts'
import { changeTaste } from '../../state/tastes.ts'
import { STRENGTHS, strengthOf, useTasteWords, type Strength } from './useTasteWords.ts'

/** What a taste says, entry by entry: on or off, how much, where, and where it comes from. */
export function Entries({ taste }: { taste: TasteDoc }) {
  const { t } = useTranslation()
  const words = useTasteWords()
  const change = (entry: TasteEntry) =>
    void changeTaste(taste.id, (doc) => ({
      ...doc,
      entries: doc.entries.map((e) => (e.id === entry.id ? entry : e)),
    }))
  const hand = useCurrentPlayer()
  /** Why a shape does nothing for the hand in use. */
  const faultOf = ({ says }: TasteEntry) => {
    if (says.kind !== 'shape') return undefined
    const { chord, tuning } = says.shape
    const guitar = guitarSetup()
    // Shapes of other instruments are for other hands.
    const fault =
      tuning.length === guitar.instrument.strings
        ? shapeFault({ ...guitar, tuning, player: hand }, says.shape)
        : undefined
    return fault && t(`taste.nothing.${fault}`, { chord })
  }
  return (
    <section>
      <h2>{t('taste.entries')}</h2>
      {taste.entries.length === 0 ? (
        <p className="soft">{t('taste.none')}</p>
      ) : (
        <Table.ScrollContainer minWidth={620} maw={900}>
          <Table data-testid="taste-entries">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>{t('taste.on')}</Table.Th>
                <Table.Th>{t('taste.what')}</Table.Th>
                <Table.Th>{t('taste.strength')}</Table.Th>
                <Table.Th>{t('taste.where')}</Table.Th>
                <Table.Th>{t('taste.from')}</Table.Th>
                <Table.Td />
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {taste.entries.map((entry) => {
                const what = words.says(entry.says)
                return (
                  <Table.Tr key={entry.id}>
                    <Table.Td>
                      <Switch
                        aria-label={what}
                        checked={entry.on}
                        onChange={(e) => change({ ...entry, on: e.currentTarget.checked })}
                      />
                    </Table.Td>
                    <Table.Td>
                      {what}
                      {faultOf(entry) ? (
                        <Text size="xs" c="red.8">
                          {faultOf(entry)}
                        </Text>
                      ) : null}
                    </Table.Td>
                    <Table.Td>
                      <StrengthSelect entry={entry} label={what} onChange={change} />
                    </Table.Td>
                    <Table.Td>{words.scope(entry.scope)}</Table.Td>
                    <Table.Td>
                      {entry.from === 'hand' ? t('taste.byHand') : words.cases(entry.cases)}
                    </Table.Td>
                    <Table.Td ta="right">
                      <CloseButton
                        aria-label={t('taste.forget', { what })}
                        onClick={() =>
                          void changeTaste(taste.id, (doc) => ({
                            ...doc,
                            entries: doc.entries.filter((e) => e.id !== entry.id),
                          }))
                        }
                      />
                    </Table.Td>
                  </Table.Tr>
                )
              })}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
      )}
    </section>
  )
}

/** How much a like or dislike weighs; a shape is taken or not. */
function StrengthSelect({
  entry,
  label,
  onChange,
}: {
  entry: TasteEntry
  label: string
  onChange: (entry: TasteEntry) => void
}) {
  const { t } = useTranslation()
  const { says } = entry
  if (says.kind !== 'price') return '–'
  return (
    <Select
      w={130}
      size="xs"
      aria-label={`${label}: ${t('taste.strength')}`}
      allowDeselect={false}
      value={strengthOf(says.price)}
      data={(Object.keys(STRENGTHS) as Strength[]).map((s) => ({
        value: s,
        label: t(`taste.strengths.${s}`),
      }))}
      onChange={(s) =>
        s && onChange({ ...entry, says: { ...says, price: Math.sign(says.price) * STRENGTHS[s] } })
      }
    />
  )
}
