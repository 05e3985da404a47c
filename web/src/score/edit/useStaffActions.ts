import { STEPS, type Pitch, type Step } from '@velvet-porch/core/music'
import type { Score, TuneDoc } from '@velvet-porch/core/document'
import { useCallback, useMemo, type RefObject } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { MarkedMeasures } from '../sheet/selection.ts'
import type { SheetModel } from '../sheet/sheetModel.ts'
import { useActions, type Action } from '../../state/actions.ts'
import { stepped, type Cell } from '../sheet/cells.ts'
import { useHeld } from './clipboard.ts'
import { measureActions } from './measureActions.ts'
import { byHalf, bySteps, eventAt, lengthAt, letterNear, pitchBefore } from './staffPitch.ts'
import type { Writing } from './useWriting.ts'
import { neighbourValue } from './values.ts'

/** What the pen does on the staff: the same by key and by button. */
export function useStaffPen(model: SheetModel, writing: Writing) {
  const { cell, cellNow, penNow, setPen, setCell, run } = writing
  const { tune } = model
  const event = cell ? eventAt(tune, cell) : undefined
  const at = useMemo(
    () => (cell ? { measure: tune.measures[cell.measure]!.id, tick: cell.tick } : undefined),
    [cell, tune],
  )
  const key = tune.measures[cell?.measure ?? 0]!.key
  /** Writes and goes on to the next moment; the pen is ahead of the page, so that fast typing stays in order. */
  const put = useCallback(
    async (pitchOf: ((tune: TuneDoc, at: Cell) => Pitch) | undefined) => {
      const from = cellNow()
      if (!from) return
      const ticks = lengthAt(tune, from, penNow().ticks)
      const place = { measure: tune.measures[from.measure]!.id, tick: from.tick }
      const end = from.tick + ticks
      const inside = end < tune.measures[from.measure]!.length
      setCell({
        ...from,
        ...(inside ? { tick: end } : stepped(model, { ...from, tick: Infinity }, 1, ticks)),
      })
      const wrote = await run(
        pitchOf
          ? Object.assign(
              (score: Score) => ({
                do: 'note' as const,
                at: place,
                ticks,
                pitch: pitchOf(score.tune, from),
              }),
              { kind: 'note' as const },
            )
          : { do: 'rest', at: place, ticks },
      )
      if (!wrote) setCell(from)
    },
    [cellNow, penNow, run, setCell, tune, model],
  )
  const letter = useCallback(
    (step: Step) =>
      void put((now, at) => letterNear(step, pitchBefore(now, at), now.measures[at.measure]!.key)),
    [put],
  )
  /** Another pitch for the note under the pen, from what it is when its turn comes. */
  const repitch = useCallback(
    (to: (pitch: Pitch) => Pitch) => {
      const position = cellNow()
      const seen = event?.pitch
      if (!position || !at || !seen) return
      const edit = (score: Score) => ({
        do: 'pitch' as const,
        at,
        pitch: to(eventAt(score.tune, position)?.pitch ?? seen),
      })
      void run(Object.assign(edit, { kind: 'pitch' as const }))
    },
    [cellNow, at, event, run],
  )
  const value = useCallback(
    (ticks: number) => {
      setPen({ ...penNow(), ticks })
      if (at && event?.pitch) void run({ do: 'value', at, ticks })
    },
    [at, event, penNow, setPen, run],
  )
  return { at, event, key, put, letter, repitch, value }
}

export type StaffPen = ReturnType<typeof useStaffPen>

/** Offers writing on the staff by key. */
export function useStaffActions(
  model: SheetModel,
  writing: Writing,
  staff: StaffPen,
  range: MarkedMeasures | undefined,
  chord: RefObject<HTMLInputElement | null>,
): void {
  const { t } = useTranslation()
  const names = useNames()
  const held = useHeld()
  const { pen, run, setOn } = writing
  const { at, event, key, put, letter, repitch, value } = staff
  useActions(
    useMemo(() => {
      const rest = () => void put(undefined)
      const there: Action[] = at
        ? [
            ...STEPS.map((step) => ({
              id: `write.letter.${step}`,
              label: t('write.letter', { name: names.note({ step, alter: 0 }) }),
              keys: step,
              run: () => letter(step),
            })),
            {
              id: 'write.chord',
              label: t('write.chord'),
              keys: 'K',
              run: () => chord.current?.focus(),
            },
            { id: 'write.rest', label: t('write.makeRest'), keys: 'R', run: rest },
            { id: 'write.erase', label: t('write.erase'), keys: 'Delete', run: rest },
            { id: 'write.tie', label: t('write.tie'), keys: 'L', run: () => void run({ do: 'tie', at }) },
            {
              id: 'write.triplet',
              label: t('write.triplet'),
              keys: 'T',
              run: () => void run({ do: 'triplet', at }),
            },
            {
              id: 'write.up',
              label: t('write.stepUp'),
              keys: 'ArrowUp',
              run: () => repitch((p) => bySteps(p, 1, key)),
            },
            {
              id: 'write.down',
              label: t('write.stepDown'),
              keys: 'ArrowDown',
              run: () => repitch((p) => bySteps(p, -1, key)),
            },
            {
              id: 'write.halfUp',
              label: t('write.halfUp'),
              keys: 'Alt+ArrowUp',
              run: () => repitch((p) => byHalf(p, 1, key)),
            },
            {
              id: 'write.halfDown',
              label: t('write.halfDown'),
              keys: 'Alt+ArrowDown',
              run: () => repitch((p) => byHalf(p, -1, key)),
            },
            {
              id: 'write.octaveUp',
              label: t('write.octaveUp'),
              keys: 'Shift+ArrowUp',
              run: () => repitch((p) => ({ ...p, octave: p.octave + 1 })),
            },
            {
              id: 'write.octaveDown',
              label: t('write.octaveDown'),
              keys: 'Shift+ArrowDown',
              run: () => repitch((p) => ({ ...p, octave: p.octave - 1 })),
            },
          ]
        : []
      const now = event?.pitch ? event.dur.ticks : pen.ticks
      return [
        ...there,
        { id: 'write.longer', label: t('write.longer'), keys: '+', run: () => value(neighbourValue(now, 1)) },
        {
          id: 'write.shorter',
          label: t('write.shorter'),
          keys: '-',
          run: () => value(neighbourValue(now, -1)),
        },
        ...measureActions(t, model.tune, undefined, range, run, held),
        { id: 'write.close', label: t('write.close'), keys: 'Escape', run: () => setOn(false) },
      ]
    }, [t, names, at, event, key, pen, range, held, model, chord, put, letter, repitch, value, run, setOn]),
  )
}
