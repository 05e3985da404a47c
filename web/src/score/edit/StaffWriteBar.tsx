import { Button, CloseButton, Group } from '@mantine/core'
import { STEPS } from '@velvet-porch/core/music'
import { useMemo, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { MarkedMeasures } from '../sheet/selection.ts'
import { focusSheet } from '../sheet/focusSheet.ts'
import { beatOf, type SheetModel } from '../sheet/sheetModel.ts'
import { Attached } from './Attached.tsx'
import { FormMenu } from './FormMenu.tsx'
import { KeysPanel } from './KeysPanel.tsx'
import { MeasureMenu } from './MeasureMenu.tsx'
import { PenTools } from './PenTools.tsx'
import { RefusalLine } from './RefusalLine.tsx'
import { TapRhythm } from './TapRhythm.tsx'
import { useStaffActions, useStaffPen, type StaffPen } from './useStaffActions.ts'
import { byHalf, bySteps } from './staffPitch.ts'
import type { Writing } from './useWriting.ts'
import editCss from './edit.module.css'

interface Props {
  readonly model: SheetModel
  readonly writing: Writing
  readonly marked: MarkedMeasures | undefined
}

/** Writing the melody on the staff: notes by letter or click, lengths, ties, triplets, chords, words, measures, form. */
export function StaffWriteBar({ model, writing, marked }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const { cell, pen, setOn, run } = writing
  const staff = useStaffPen(model, writing)
  const { at, event } = staff
  const range = useMemo(
    () => marked ?? (cell ? { from: cell.measure, to: cell.measure } : undefined),
    [marked, cell],
  )
  const chord = useRef<HTMLInputElement>(null)
  useStaffActions(model, writing, staff, range, chord)
  const place = cell
    ? `${t('write.atStaff', { number: model.numbers[cell.measure]!, beat: beatOf(model, cell) })}: ${
        event?.pitch ? names.note(event.pitch) + String(event.pitch.octave) : t('write.rest')
      }`
    : t('write.staffStart')
  return (
    <div className={editCss['write-bar']} data-testid="write-bar">
      <Group gap={8} wrap="wrap">
        <PenTools ticks={pen.ticks} onTicks={staff.value} />
        <MeasureMenu tune={model.tune} doc={undefined} range={range} numbers={model.numbers} run={run} />
        <FormMenu tune={model.tune} range={range} numbers={model.numbers} run={run} />
        <TapRhythm tune={model.tune} at={at} run={run} />
        <KeysPanel tuneKey={staff.key} onPitch={(pitch) => void staff.put(() => pitch)} />
        <CloseButton ml="auto" aria-label={t('write.close')} onClick={() => setOn(false)} />
      </Group>
      <Group gap={4} mt={6} wrap="wrap" role="toolbar" aria-label={t('write.note')}>
        <span className={editCss['write-where']} role="status">
          {place}
        </span>
        {at ? <PitchTools staff={staff} run={run} /> : null}
      </Group>
      {at ? (
        <Group gap={8} mt={6}>
          <Attached
            key={`chord.${at.measure}.${at.tick}`}
            label={t('write.chord')}
            field={chord}
            onDone={focusSheet}
            value={
              model.tune.chords.find((c) => c.pos.measure === at.measure && c.pos.tick === at.tick)?.symbol ??
              ''
            }
            onSet={(symbol) => run({ do: 'chord', at, symbol: names.letters(symbol) })}
          />
          {event?.pitch ? (
            <Attached
              key={`word.${event.id}`}
              label={t('write.word')}
              value={event.lyric ?? ''}
              onSet={(text) => run({ do: 'word', at, text })}
            />
          ) : null}
        </Group>
      ) : null}
      <RefusalLine writing={writing} />
    </div>
  )
}

function PitchTools({ staff, run }: { staff: StaffPen; run: Writing['run'] }) {
  const { t } = useTranslation()
  const names = useNames()
  const { at, event, key, put, letter, repitch } = staff
  const tools: readonly (readonly [string, string, () => void, boolean])[] = [
    ['↑', t('write.stepUp'), () => repitch((p) => bySteps(p, 1, key)), true],
    ['↓', t('write.stepDown'), () => repitch((p) => bySteps(p, -1, key)), true],
    ['♯', t('write.halfUp'), () => repitch((p) => byHalf(p, 1, key)), true],
    ['♭', t('write.halfDown'), () => repitch((p) => byHalf(p, -1, key)), true],
    ['+8', t('write.octaveUp'), () => repitch((p) => ({ ...p, octave: p.octave + 1 })), true],
    ['−8', t('write.octaveDown'), () => repitch((p) => ({ ...p, octave: p.octave - 1 })), true],
    [t('write.tie'), t('write.tie'), () => at && void run({ do: 'tie', at }), true],
    [t('write.triplet'), t('write.triplet'), () => at && void run({ do: 'triplet', at }), false],
    [t('write.makeRest'), t('write.makeRest'), () => void put(undefined), false],
  ]
  return (
    <>
      {STEPS.map((step) => (
        <Button
          key={step}
          size="compact-xs"
          h={24}
          variant="default"
          aria-label={t('write.letter', { name: names.note({ step, alter: 0 }) })}
          onClick={() => letter(step)}
        >
          {names.note({ step, alter: 0 })}
        </Button>
      ))}
      {tools.map(([sign, label, act, onNote]) => (
        <Button
          key={label}
          size="compact-xs"
          h={24}
          variant="default"
          aria-label={label}
          disabled={onNote && !event?.pitch}
          onClick={act}
        >
          {sign}
        </Button>
      ))}
    </>
  )
}
