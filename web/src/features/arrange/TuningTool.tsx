import { Button, Popover, Stack, TextInput } from '@mantine/core'
import { namedTunings, readTuning, tuningId, type Tuning } from '@velvet-porch/core/instrument'
import { nameText, plainPitch } from '@velvet-porch/core/music'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import { TuningFaultText } from '../../ui/instrument/TuningFaultText.tsx'
import { LookSelect } from '../../ui/LookSelect.tsx'
import { useBenchPage } from './bench/BenchContext.ts'
import type { Settings } from './settings.ts'
import type { BenchArranger } from './useArranger.ts'

/** What stands in the list for notes of one's own. */
const OTHER = 'other'

const notesOf = (tuning: Tuning) =>
  tuning
    .toReversed()
    .map((m) => nameText(plainPitch(m, false)))
    .join(' ')

/** The tuning: a known one, one of the teacher's own with its name, or notes typed from the lowest string. */
export function TuningTool({ settings, arranger }: { settings: Settings; arranger: BenchArranger }) {
  const { t } = useTranslation()
  const { tunings } = usePrefs()
  const { look } = useBenchPage()
  const [opened, setOpened] = useState(false)
  const { instrument, tuning } = settings
  const named = namedTunings(instrument)
  const own = tunings.filter((o) => o.kind === instrument)
  const id = tuningId(instrument, tuning)
  const mine = own.find((o) => o.notes === notesOf(tuning))
  const unnamed = id === undefined && mine === undefined
  const use = (next: Tuning, name: string) =>
    void arranger.choose(t('arrange.command.tuning', { to: name }), () => ({ tuning: next, locks: [] }))
  return (
    <Popover opened={opened} onChange={setOpened} position="bottom-start" shadow="md" withinPortal trapFocus>
      <Popover.Target>
        <LookSelect
          size="xs"
          w={112}
          onLook={(v) => {
            const known = named.find((n) => n.id === v)
            look(known && known.id !== id ? () => ({ tuning: known.tuning, locks: [] }) : undefined)
          }}
          aria-label={t('instrument.tuning')}
          value={id ?? mine?.name ?? OTHER}
          allowDeselect={false}
          onChange={(v) => {
            const known = named.find((n) => n.id === v)
            const kept = own.find((o) => o.name === v)
            const read = kept && readTuning(instrument, kept.notes)
            if (known) use(known.tuning, t(`instrument.tunings.${known.id}`))
            else if (kept && read && 'tuning' in read) use(read.tuning, kept.name)
            else setOpened(true)
          }}
          data={[
            ...named.map((n) => ({ value: n.id, label: t(`instrument.tunings.${n.id}`) })),
            ...own.map((o) => ({ value: o.name, label: o.name })),
            { value: OTHER, label: unnamed ? notesOf(tuning) : t('instrument.own') },
          ]}
          // Notes that have no name yet are chosen again to be changed.
          onOptionSubmit={(v) => v === OTHER && setOpened(true)}
        />
      </Popover.Target>
      <Popover.Dropdown>
        {opened ? (
          <OwnNotes
            settings={settings}
            onUse={(next, name) => {
              setOpened(false)
              if (name) {
                const others = tunings.filter((o) => o.kind !== instrument || o.name !== name)
                setPrefs({ tunings: [...others, { kind: instrument, name, notes: notesOf(next) }] })
              }
              use(next, name || notesOf(next))
            }}
          />
        ) : null}
      </Popover.Dropdown>
    </Popover>
  )
}

/** Notes typed from the lowest string, and the name by which they are kept. */
function OwnNotes({
  settings,
  onUse,
}: {
  settings: Settings
  onUse: (tuning: Tuning, name: string) => void
}) {
  const { t } = useTranslation()
  const [notes, setNotes] = useState(notesOf(settings.tuning))
  const [name, setName] = useState('')
  const read = readTuning(settings.instrument, notes)
  const fault = 'fault' in read ? read.fault : undefined
  return (
    <Stack gap={8} w={250}>
      <TextInput
        size="xs"
        label={t('instrument.notes')}
        placeholder={t('instrument.notesHint')}
        value={notes}
        data-autofocus
        error={fault && notes ? <TuningFaultText fault={fault} /> : undefined}
        onChange={(e) => setNotes(e.currentTarget.value)}
      />
      <TextInput
        size="xs"
        label={t('instrument.ownName')}
        value={name}
        maxLength={40}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button
        size="compact-sm"
        disabled={'fault' in read}
        onClick={() => 'tuning' in read && onUse(read.tuning, name.trim())}
      >
        {t('instrument.use')}
      </Button>
    </Stack>
  )
}
