import { Button, SegmentedControl, Table } from '@mantine/core'
import { NOTE_NAMINGS, noteIn } from '@velvet-porch/core/music'
import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { newId } from '../../newId.ts'
import type { PlayerRow } from '../../state/db.ts'
import { usePlayers } from '../../state/players.ts'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import { PlayerForm } from './PlayerForm.tsx'
import { WithoutNetwork } from './WithoutNetwork.tsx'
import { YourData } from './YourData.tsx'

/** Note names, and the hands that the teacher works for. */
export function SettingsPage() {
  const { t } = useTranslation()
  const { naming, player } = usePrefs()
  const players = usePlayers()
  const [edited, setEdited] = useState<PlayerRow>()
  const example = (n: (typeof NOTE_NAMINGS)[number]) =>
    [
      { step: 'C', alter: 0 },
      { step: 'F', alter: 1 },
      { step: 'B', alter: -1 },
      { step: 'B', alter: 0 },
    ]
      .map((name) => noteIn(n, name as { step: 'C'; alter: number }))
      .join(' ')
  return (
    <div className="reference settings">
      <h1>{t('settings.title')}</h1>
      <section>
        <h2>{t('settings.naming')}</h2>
        <SegmentedControl
          aria-label={t('settings.naming')}
          data={NOTE_NAMINGS.map((n) => ({ value: n, label: `${t(`settings.names.${n}`)}: ${example(n)}` }))}
          value={naming}
          onChange={(value) => setPrefs({ naming: value })}
        />
        <p className="soft">{t('settings.namingHint')}</p>
      </section>
      <section>
        <h2>{t('settings.players')}</h2>
        <p className="soft">{t('settings.playersHint')}</p>
        {players.length > 0 ? (
          <Table.ScrollContainer minWidth={620} maw={820}>
            <Table data-testid="players">
              <Table.Thead>
                <Table.Tr>
                  <Table.Th>{t('settings.name')}</Table.Th>
                  <Table.Th>{t('settings.widest')}</Table.Th>
                  <Table.Th>{t('settings.school')}</Table.Th>
                  <Table.Th>{t('settings.measuredFor')}</Table.Th>
                  <Table.Td />
                </Table.Tr>
              </Table.Thead>
              <Table.Tbody>
                {players.map((p) => (
                  <Table.Tr key={p.id}>
                    <Table.Td>{p.name}</Table.Td>
                    <Table.Td>{t('shapes.mm', { mm: Math.round(p.spans['14']) })}</Table.Td>
                    <Table.Td>{t(`settings.schools.${p.school}`)}</Table.Td>
                    <Table.Td>
                      <Button
                        size="compact-sm"
                        variant={p.id === player ? 'filled' : 'default'}
                        aria-pressed={p.id === player}
                        onClick={() => setPrefs({ player: p.id === player ? '' : p.id })}
                      >
                        {t(p.id === player ? 'settings.inUse' : 'settings.use')}
                      </Button>
                    </Table.Td>
                    <Table.Td ta="right">
                      <Button size="compact-sm" variant="subtle" onClick={() => setEdited(p)}>
                        {t('settings.edit', { name: p.name })}
                      </Button>
                    </Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
          </Table.ScrollContainer>
        ) : null}
        <Button mt="sm" onClick={() => setEdited({ id: newId(), ...DEFAULT_PLAYER })}>
          {t('settings.add')}
        </Button>
      </section>
      <YourData />
      <WithoutNetwork />
      {edited ? <PlayerForm key={edited.id} row={edited} onDone={() => setEdited(undefined)} /> : null}
    </div>
  )
}
