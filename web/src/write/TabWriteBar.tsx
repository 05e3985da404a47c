import { Button, CloseButton, Group, Select, Tooltip } from '@mantine/core'
import type { ArrangementDoc, Role, TabNote } from '@velvet-porch/core'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../sheet/Sheet.tsx'
import { beatOf, type SheetModel } from '../sheet/sheetModel.ts'
import { likelyRole, noteIn } from './cells.ts'
import { Attached } from './Attached.tsx'
import { ExpressionMenu } from './ExpressionMenu.tsx'
import { FormMenu } from './FormMenu.tsx'
import { MeasureMenu } from './MeasureMenu.tsx'
import { LEFT_FINGERS, PICKS, SOUND_KEYS, SOUNDS, soundEdit, soundsSo, STROKES } from './noteEdits.ts'
import { PenTools } from './PenTools.tsx'
import { PlacesRow } from './PlacesRow.tsx'
import { RefusalLine } from './RefusalLine.tsx'
import { restring } from './restring.ts'
import { TapRhythm } from './TapRhythm.tsx'
import { useTabActions } from './useTabActions.ts'
import type { Pen, Writing } from './useWriting.ts'

interface Props {
  readonly model: SheetModel
  readonly doc: ArrangementDoc
  readonly writing: Writing
  readonly marked: MarkedMeasures | undefined
  /** Has some measures arranged anew, around what was written by hand. */
  readonly onArrange: (from: number, to: number) => Promise<void>
}

const ROLES: readonly Role[] = ['melody', 'harmony', 'bass', 'fill']

/** Everything that can be written into the tab by hand, for the cell under the cursor; each with its key. */
export function TabWriteBar({ model, doc, writing, marked, onArrange }: Props) {
  const { t } = useTranslation()
  const { cell, pen, setPen, run, setOn } = writing
  const note = cell ? noteIn(model, cell) : undefined
  const range = useMemo(
    () => marked ?? (cell ? { from: cell.measure, to: cell.measure } : undefined),
    [marked, cell],
  )
  useTabActions(model, doc, writing, range, onArrange)
  const role = cell && !note ? likelyRole(model, cell) : undefined
  return (
    <div className="write-bar" data-testid="write-bar">
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
          onChange={(v) => v && setPen({ ...pen, role: v as Pen['role'] })}
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
        <span className="write-where" role="status">
          {where(t, model, cell, note)}
        </span>
        {note ? <NoteTools note={note} writing={writing} strings={doc.setup.instrument.strings} /> : null}
      </Group>
      <Group gap={8}>
        <PlacesRow tune={model.tune} doc={doc} writing={writing} />
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

function where(
  t: ReturnType<typeof useTranslation>['t'],
  model: SheetModel,
  cell: Writing['cell'],
  note: TabNote | undefined,
): string {
  if (!cell) return t('write.start')
  const place = t('write.at', {
    number: model.numbers[cell.measure],
    beat: beatOf(model, cell),
    string: cell.string,
  })
  return note ? `${place}: ${t(`write.roles.${note.role}`)}` : `${place}: ${t('write.nothing')}`
}

function NoteTools({ note, writing, strings }: { note: TabNote; writing: Writing; strings: number }) {
  const { t } = useTranslation()
  const { run } = writing
  return (
    <>
      {SOUNDS.map((s) => (
        <Tooltip key={s} label={`${t(`write.sounds.${s}`)} (${SOUND_KEYS[s]})`}>
          <Button
            size="compact-xs"
            h={24}
            variant={soundsSo(note, s) ? 'filled' : 'default'}
            aria-pressed={soundsSo(note, s)}
            onClick={() => void run(soundEdit(note, s))}
          >
            {t(`write.sounds.${s}`)}
          </Button>
        </Tooltip>
      ))}
      <ExpressionMenu note={note} run={run} />
      <span className="write-part">{t('write.finger')}</span>
      {LEFT_FINGERS.map((f) => (
        <Button
          key={f}
          size="compact-xs"
          h={24}
          variant={note.left === f ? 'filled' : 'default'}
          aria-label={t('write.leftFinger', { finger: f })}
          aria-pressed={note.left === f}
          onClick={() => void run({ do: 'left', note: note.id, finger: f })}
        >
          {f}
        </Button>
      ))}
      <span className="write-part">{t('write.pick')}</span>
      {[...PICKS, ...STROKES].map((s) => (
        <Button
          key={s}
          size="compact-xs"
          h={24}
          variant={note.right === s ? 'filled' : 'default'}
          aria-label={t(`write.picks.${s}`)}
          aria-pressed={note.right === s}
          onClick={() => void run({ do: 'right', note: note.id, sign: s })}
        >
          {s === 'down' ? '⊓' : s === 'up' ? '∨' : s}
        </Button>
      ))}
      <span className="write-part">{t('write.string')}</span>
      {([-1, 1] as const).map((by) => (
        <Button
          key={by}
          size="compact-xs"
          h={24}
          variant="default"
          disabled={note.place.string + by < 1 || note.place.string + by > strings}
          aria-label={t(by < 0 ? 'write.higherString' : 'write.lowerString')}
          onClick={() => void restring(note, by, writing)}
        >
          {by < 0 ? '↑' : '↓'}
        </Button>
      ))}
      <Button
        size="compact-xs"
        h={24}
        variant="default"
        color="red"
        onClick={() => void run({ do: 'erase', note: note.id })}
      >
        {t('write.erase')}
      </Button>
    </>
  )
}
