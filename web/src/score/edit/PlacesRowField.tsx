import { present } from '@velvet-porch/core/invariant'
import { ActionIcon, Button, Popover, TextInput } from '@mantine/core'
import { IconHelp } from '@tabler/icons-react'
import { pitchAt } from '@velvet-porch/core/instrument'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import { handRowEdits, readHandRow, readPlacesRow, rowEdits, type RowFault } from '@velvet-porch/core/edit'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { MarkedMeasures } from '../sheet/selection.ts'
import type { Writing } from './useWriting.ts'
import css from './PlacesRowField.module.css'

/** Places in a row: the string once, then its frets; read as they are typed, written with Enter in one step. */
export function PlacesRowField({
  tune,
  doc,
  writing,
  range,
}: {
  tune: TuneDoc
  doc: ArrangementDoc
  writing: Writing
  /** Marked measures, else that of the pen: what a row for one hand is for. */
  range: MarkedMeasures | undefined
}) {
  const { t } = useTranslation()
  const names = useNames()
  const [text, setText] = useState('')
  const { setup } = doc
  const row = useMemo(() => readPlacesRow(text, setup), [text, setup])
  const hand = useMemo(() => readHandRow(text), [text])
  const handed = useMemo(
    () => (hand && range ? handRowEdits(hand, tune, doc.base.notes, range) : undefined),
    [hand, range, tune, doc],
  )
  const { cell, pen, run, setCell } = writing
  const write = async () => {
    if (handed) {
      if (handed.faults.length === 0 && handed.edits.length > 0 && (await run(handed.edits))) setText('')
      return
    }
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
  const faults = handed
    ? handed.faults.map((f) => t(`write.row.fault.${f.kind}`, { text: f.text, count: f.count }))
    : row.faults.map((f) => faultText(f))
  const says = handed ? t('write.row.hand', { count: handed.edits.length }) : read.join(' ')
  function faultText(fault: RowFault): string {
    const { kind, text: word, string, fret } = fault
    const name = string === undefined ? '' : names.pitch(pitchAt(setup, { string, fret: present(fret) }))
    return t(`write.row.fault.${kind}`, { text: word, string: string ?? 0, fret: fret ?? 0, name })
  }
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
        error={faults.length > 0}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <RowHelp onExample={() => setText(t('write.row.example'))} />
      <span role="status" data-testid="row-read">
        {faults.length > 0 ? faults.join(' ') : says}
      </span>
    </form>
  )
}

/** What can stand in a row, each in a line. */
const SAYS = ['string', 'length', 'together', 'joins', 'signs', 'hands', 'bar', 'claim', 'hand'] as const

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
