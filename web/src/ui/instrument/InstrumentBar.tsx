import { Chip, Group, NumberInput, Popover, Select, TextInput, Button } from '@mantine/core'
import { useDebouncedCallback } from '@mantine/hooks'
import { highestCapo, INSTRUMENTS, namedTunings, type InstrumentKind } from '@velvet-porch/core/instrument'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { usePlayers } from '../../state/players.ts'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import { TuningFaultText } from './TuningFaultText.tsx'
import type { useInstrument } from './useInstrument.ts'

const KINDS = Object.keys(INSTRUMENTS) as InstrumentKind[]
const OWN = 'own'

/** Instrument, tuning, capo and hand of a reference page. */
export function InstrumentBar({ instrument }: { instrument: ReturnType<typeof useInstrument> }) {
  const { t } = useTranslation()
  const { kind, tuningText, tuningFault, capo, capoStrings, setup, set } = instrument
  const named = namedTunings(kind)
  const kept = usePrefs().tunings.filter((o) => o.kind === kind)
  const known = named.some((n) => n.id === tuningText) || kept.some((o) => o.notes === tuningText)
  const [ownOpen, setOwnOpen] = useState(!known)
  const [draft, setDraft] = useState(known ? '' : tuningText)
  const commit = useDebouncedCallback((text: string) => set({ tuning: text }), 350)
  const players = usePlayers()
  const { player } = usePrefs()
  const own = ownOpen || !known
  return (
    <Group gap="xs" align="flex-start">
      <Select
        w={120}
        label={t('instrument.kind')}
        data={KINDS.map((k) => ({ value: k, label: t(`instrument.kinds.${k}`) }))}
        value={kind}
        allowDeselect={false}
        onChange={(value) => {
          setOwnOpen(false)
          setDraft('')
          set({ instrument: value ?? 'guitar', tuning: '', capo: '', capoStrings: '' })
        }}
      />
      <Select
        w={150}
        label={t('instrument.tuning')}
        data={[
          ...named.map((n) => ({ value: n.id, label: t(`instrument.tunings.${n.id}`) })),
          ...kept.map((o) => ({ value: o.notes, label: o.name })),
          { value: OWN, label: t('instrument.own') },
        ]}
        value={own ? OWN : tuningText}
        allowDeselect={false}
        onChange={(value) => {
          setOwnOpen(value === OWN)
          if (value && value !== OWN) set({ tuning: value })
        }}
      />
      {own ? (
        <TextInput
          w={190}
          label={t('instrument.notes')}
          placeholder={t('instrument.notesHint')}
          value={draft}
          error={tuningFault && draft ? <TuningFaultText fault={tuningFault} /> : undefined}
          onChange={(event) => {
            setDraft(event.currentTarget.value)
            commit(event.currentTarget.value)
          }}
        />
      ) : null}
      <NumberInput
        w={92}
        label={t('instrument.capo')}
        min={0}
        max={highestCapo(kind)}
        clampBehavior="strict"
        allowDecimal={false}
        value={capo}
        onChange={(value) => set({ capo: value ? String(value) : '', ...(value ? {} : { capoStrings: '' }) })}
      />
      {capo > 0 ? (
        <Popover position="bottom-start" withArrow>
          <Popover.Target>
            <Button variant="default" mt={25}>
              {capoStrings
                ? t('instrument.capoOn', { strings: capoStrings.join(' ') })
                : t('instrument.capoAll')}
            </Button>
          </Popover.Target>
          <Popover.Dropdown>
            <Chip.Group
              multiple
              value={(capoStrings ?? setup.tuning.map((_, i) => i + 1)).map(String)}
              onChange={(strings: string[]) =>
                set({
                  capoStrings:
                    strings.length === 0 || strings.length === setup.tuning.length
                      ? ''
                      : strings.sort().reverse().join(','),
                })
              }
            >
              <Group gap={6}>
                {setup.tuning.map((_, i) => {
                  const string = setup.tuning.length - i
                  return (
                    <Chip key={string} value={String(string)} size="sm">
                      {string}
                    </Chip>
                  )
                })}
              </Group>
            </Chip.Group>
          </Popover.Dropdown>
        </Popover>
      ) : null}
      {players.length > 0 ? (
        <Select
          w={150}
          label={t('instrument.hand')}
          data={[
            { value: '', label: t('instrument.adult') },
            ...players.map((p) => ({ value: p.id, label: p.name })),
          ]}
          value={players.some((p) => p.id === player) ? (player ?? '') : ''}
          allowDeselect={false}
          onChange={(value) => setPrefs({ player: value ?? '' })}
        />
      ) : null}
    </Group>
  )
}
