import type { TFunction } from 'i18next'
import { Button, CloseButton, Group, Select, Tooltip } from '@mantine/core'
import type { ArrangementDoc, Role, TabNote } from '@velvet-porch/core/document'
import { chosenNotes } from '@velvet-porch/core/edit'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../sheet/selection.ts'
import { beatOf, type SheetModel } from '../sheet/sheetModel.ts'
import { likelyRole, noteOfCell } from '../sheet/cells.ts'
import { Attached } from './Attached.tsx'
import { FormMenu } from './FormMenu.tsx'
import { MeasureMenu } from './MeasureMenu.tsx'
import { TargetSelect } from './TargetSelect.tsx'
import { NoteTools } from './NoteTools.tsx'
import { PenTools } from './PenTools.tsx'
import { PlacesRowField } from './PlacesRowField.tsx'
import { RefusalLine } from './RefusalLine.tsx'
import { TapRhythm } from './TapRhythm.tsx'
import { useNoteWriting } from './targets.ts'
import { useTabActions } from './useTabActions.ts'
import type { Writing } from './useWriting.ts'
import editCss from './edit.module.css'

interface Props {
  readonly model: SheetModel
  readonly doc: ArrangementDoc
  readonly writing: Writing
  readonly marked: MarkedMeasures | undefined
  /** The same, ahead of what is drawn. */
  readonly markedNow: () => MarkedMeasures | undefined
  /** Has some measures arranged anew, around what was written by hand. */
  readonly onArrange: (from: number, to: number) => Promise<void>
}

const ROLES: readonly Role[] = ['melody', 'harmony', 'bass', 'fill']

/** Everything that can be written into the tab by hand, for the cell under the cursor; each with its key. */
export function TabWriteBar({ model, doc, writing, marked, markedNow, onArrange }: Props) {
  const { t } = useTranslation()
  const { cell, pen, setPen, run, setOn, choosing, setChoosing } = writing
  const note = cell ? noteOfCell(model, cell) : undefined
  const range = useMemo(
    () => marked ?? (cell ? { from: cell.measure, to: cell.measure } : undefined),
    [marked, cell],
  )
  const noteWriting = useNoteWriting(writing, markedNow)
  const notes = useMemo(
    () =>
      choosing && range
        ? chosenNotes(model.tune, doc.base, range.from, range.to, choosing)
        : note
          ? [note]
          : [],
    [choosing, range, model.tune, doc.base, note],
  )
  useTabActions(model, doc, writing, range, noteWriting, onArrange)
  const role = cell && !note ? likelyRole(model, cell) : undefined
  return (
    <div className={editCss['write-bar']} data-testid="write-bar">
      <Group gap={8} wrap="wrap">
        <PenTools
          ticks={note?.dur.ticks ?? pen.ticks}
          onTicks={(ticks) => writeLength(ticks, note, writing)}
        />
        <Select
          size="xs"
          w={150}
          aria-label={t('write.role')}
          value={note?.role ?? pen.role}
          disabled={note !== undefined}
          allowDeselect={false}
          data={[
            {
              value: 'likely',
              label: role ? t('write.likelyIs', { role: t(`write.roles.${role}`) }) : t('write.likely'),
            },
            ...ROLES.map((r) => ({ value: r, label: t(`write.roles.${r}`) })),
          ]}
          onChange={(v) => v && setPen({ ...pen, role: v })}
        />
        <MeasureMenu tune={model.tune} doc={doc} range={range} numbers={model.numbers} run={run} />
        <FormMenu tune={model.tune} range={range} numbers={model.numbers} run={run} />
        <TapRhythm
          tune={model.tune}
          at={cell && { measure: model.tune.measures[cell.measure]!.id, tick: cell.tick }}
          run={run}
        />
        <Tooltip label={`${t('write.refingerHint')} (F)`}>
          <Button
            size="compact-sm"
            variant="default"
            disabled={!range}
            onClick={() => range && void run({ do: 'finger', ...range })}
          >
            {t('write.refinger')}
          </Button>
        </Tooltip>
        <Tooltip label={`${t('write.rearrangeHint')} (Q)`}>
          <Button
            size="compact-sm"
            variant="default"
            disabled={!range}
            onClick={() => range && void onArrange(range.from, range.to)}
          >
            {t('write.rearrange')}
          </Button>
        </Tooltip>
        <CloseButton ml="auto" aria-label={t('write.close')} onClick={() => setOn(false)} />
      </Group>
      <Group gap={4} mt={6} wrap="wrap" role="toolbar" aria-label={t('write.note')}>
        <span className={editCss['write-where']} role="status">
          {choosing && range ? t('write.chosen', { count: notes.length }) : where(t, model, cell, note)}
        </span>
        <TargetSelect
          choosing={choosing}
          onChoosing={setChoosing}
          range={range}
          numbers={model.numbers}
          strings={doc.setup.instrument.strings}
        />
        {notes.length > 0 ? (
          <NoteTools
            notes={notes}
            strings={doc.setup.instrument.strings}
            melody={note?.role === 'melody' && !choosing}
            {...noteWriting}
          />
        ) : null}
      </Group>
      <Group gap={8}>
        <PlacesRowField tune={model.tune} doc={doc} writing={writing} range={range} />
        {note ? (
          <Attached
            key={note.id}
            label={t('write.remark')}
            value={note.remark ?? ''}
            wide
            onSet={(text) => run({ do: 'remark', note: note.id, text })}
          />
        ) : null}
      </Group>
      <RefusalLine writing={writing} />
    </div>
  )
}

/** Another length for the note under the cursor, and for the pen. */
function writeLength(ticks: number, note: TabNote | undefined, { pen, setPen, run }: Writing): void {
  setPen({ ...pen, ticks })
  if (note) void run({ do: 'length', note: note.id, ticks })
}

function where(t: TFunction, model: SheetModel, cell: Writing['cell'], note: TabNote | undefined): string {
  if (!cell) return t('write.start')
  const place = t('write.at', {
    number: model.numbers[cell.measure]!,
    beat: beatOf(model, cell),
    string: cell.string,
  })
  return note ? `${place}: ${t(`write.roles.${note.role}`)}` : `${place}: ${t('write.nothing')}`
}
