import { present } from '@velvet-porch/core/invariant'
import { ActionIcon, Button, Popover, TextInput } from '@mantine/core'
import { IconHelp } from '@tabler/icons-react'
import { pitchAt } from '@velvet-porch/core/instrument'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { readPlacesRow, rowEdits, type RowFault } from '@velvet-porch/core/edit'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { Writing } from './useWriting.ts'
import css from './PlacesRowField.module.css'

/** Places in a row: the string once, then its frets; read as they are typed, written with Enter in one step. */
export function PlacesRowField({
  tune,
  doc,
  writing,
}: {
  tune: TuneDoc
  doc: ArrangementDoc
  writing: Writing
}) {
  const { t } = useTranslation()
  const names = useNames()
  const [text, setText] = useState('')
  const { setup } = doc
  const row = useMemo(() => readPlacesRow(text, setup), [text, setup])
  const { cell, pen, run, setCell } = writing
  const write = async () => {
    if (!cell || row.faults.length > 0 || row.steps.length === 0) return
    const at = { measure: tune.measures[cell.measure]!.id, tick: cell.tick }
    const made = rowEdits(row, tune, setup, at, pen.ticks)
    if (!made)
      return writing.refuse({
        reason: 'noSuchMeasure',
        values: {},
        edit: { do: 'rest', at, ticks: pen.ticks },
      })
    if (!(await run(made.edits))) return
    setText('')
    const measure = tune.measures.findIndex((m) => m.id === made.end.measure)
    setCell({ ...cell, measure, tick: made.end.tick })
  }
  const read = row.steps.map((s) =>
    s.places.length === 0 ? '–' : s.places.map((p) => names.pitch(pitchAt(setup, p))).join('+'),
  )
  const faultText = (fault: RowFault) =>
    t(`write.row.fault.${fault.kind}`, {
      text: fault.text,
      string: fault.string ?? 0,
      fret: fault.fret ?? 0,
      name:
        fault.string === undefined
          ? ''
          : names.pitch(pitchAt(setup, { string: fault.string, fret: present(fault.fret) })),
    })
  return (
    <form
      className={css['places-row']}
      onSubmit={(e) => {
        e.preventDefault()
        void write()
      }}
    >
      <TextInput
        size="xs"
        w={260}
        aria-label={t('write.row.label')}
        placeholder={t('write.row.hint')}
        value={text}
        disabled={!cell}
        error={row.faults.length > 0}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <RowHelp onExample={() => setText(t('write.row.example'))} />
      <span role="status" data-testid="row-read">
        {row.faults.length > 0 ? row.faults.map(faultText).join(' ') : read.join(' ')}
      </span>
    </form>
  )
}

/** What can stand in a row, each in a line. */
const SAYS = ['string', 'length', 'together', 'joins', 'signs', 'hands', 'claim'] as const

/** How a row is written, with an example that fills itself in. */
function RowHelp({ onExample }: { onExample: () => void }) {
  const { t } = useTranslation()
  const [opened, setOpened] = useState(false)
  return (
    <Popover
      opened={opened}
      onChange={setOpened}
      position="bottom-start"
      shadow="md"
      withinPortal
      width={430}
    >
      <Popover.Target>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label={t('write.row.help')}
          onClick={() => setOpened((o) => !o)}
        >
          <IconHelp size={16} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown>
        <ul className={css['row-help']}>
          {SAYS.map((what) => (
            <li key={what}>{t(`write.row.says.${what}`)}</li>
          ))}
        </ul>
        <code>{t('write.row.example')}</code>{' '}
        <Button
          size="compact-xs"
          onClick={() => {
            setOpened(false)
            onExample()
          }}
        >
          {t('write.row.tryIt')}
        </Button>
      </Popover.Dropdown>
    </Popover>
  )
}
