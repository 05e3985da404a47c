import { present } from '@velvet-porch/core/invariant'
import { lastFret } from '@velvet-porch/core/instrument'
import type { ArrangementDoc } from '@velvet-porch/core/document'
import { measureActions } from './measureActions.ts'
import { useEffect, useMemo, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../sheet/selection.ts'
import type { SheetModel } from '../sheet/sheetModel.ts'
import { isTyping, useActions, type Action } from '../../state/actions.ts'
import { noteOfCell } from '../sheet/cells.ts'
import { choicesOf, choiceWords } from './choices.ts'
import { useHeld } from './clipboard.ts'
import { fretEdit } from './fretEdit.ts'
import type { NoteWriting } from './targets.ts'
import {
  eraseEdits,
  LEFT_FINGERS,
  leftEdits,
  leftKey,
  offsetEdits,
  PICKS,
  rightEdits,
  SOUND_KEYS,
  soundEdits,
  soundKind,
  SOUNDS,
} from './noteEdits.ts'
import type { Writing } from './useWriting.ts'
import { momentActions } from './momentActions.ts'
import { neighbourValue } from './values.ts'

/** Quiet time after a digit in which a second one makes a two-digit fret. */
const SECOND_DIGIT_MS = 800

/** Offers writing the tab by key, and takes frets as digits. */
export function useTabActions(
  model: SheetModel,
  doc: ArrangementDoc,
  writing: Writing,
  range: MarkedMeasures | undefined,
  { onTargets, onRestring, onMelody }: NoteWriting,
  onArrange: (from: number, to: number) => Promise<void>,
): void {
  const { t } = useTranslation()
  const held = useHeld()
  const { cell, pen, setPen, setCell, cellNow, penNow, run, setOn, choosing, setChoosing } = writing
  const { strings } = doc.setup.instrument
  const note = cell ? noteOfCell(model, cell) : undefined
  const latest = useRef({ model, writing, note })
  useEffect(() => {
    latest.current = { model, writing, note }
  })
  useEffect(() => {
    let digit: { value: number; at: number; cell: string } | undefined
    const onKey = (event: KeyboardEvent) => {
      if (!/^\d$/.test(event.key) || event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return
      const { model: m, writing: w } = latest.current
      const at = w.cellNow()
      if (!at) return
      event.preventDefault()
      const key = `${at.measure}.${at.tick}.${at.string}`
      const own = Number(event.key)
      const joins = digit && digit.cell === key && event.timeStamp - digit.at < SECOND_DIGIT_MS
      const both = joins ? present(digit).value * 10 + own : own
      const fret = m.setup && both <= lastFret(m.setup, at.string) ? both : own
      digit = { value: fret, at: event.timeStamp, cell: key }
      void w.run(fretEdit(m, { ...w, cell: at }, at.string, fret))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  useActions(
    useMemo(() => {
      const noteActions: Action[] = [
        ...SOUNDS.map((s) => ({
          id: `write.${s}`,
          label: t(`write.sounds.${s}`),
          keys: SOUND_KEYS[s],
          run: () => void onTargets(soundKind(s), (those) => soundEdits(those, s)),
        })),
        ...LEFT_FINGERS.map((finger) => ({
          id: `write.left.${finger}`,
          label: finger === 'T' ? t('write.thumbOver') : t('write.leftFinger', { finger }),
          keys: leftKey(finger),
          run: () => void onTargets('left', leftEdits(finger)),
        })),
        {
          id: 'write.left.0',
          label: t('write.freeFinger'),
          keys: 'Shift+0',
          run: () => void onTargets('left', leftEdits(0)),
        },
        ...([-1, 1] as const).map((way) => ({
          id: way < 0 ? 'write.flatter' : 'write.sharper',
          label: t(way < 0 ? 'write.flatter' : 'write.sharper'),
          keys: way < 0 ? ',' : '.',
          run: () => void onTargets('offset', offsetEdits(way)),
        })),
        ...PICKS.map((sign) => ({
          id: `write.pick.${sign}`,
          label: t(`write.picks.${sign}`),
          keys: sign.toUpperCase(),
          run: () => void onTargets('right', rightEdits(sign)),
        })),
        ...['Delete', 'Backspace'].map((keys) => ({
          id: `write.erase.${keys}`,
          label: t('write.erase'),
          keys,
          run: () => void onTargets('erase', eraseEdits),
        })),
        ...([-1, 1] as const).map((by) => ({
          id: by < 0 ? 'write.up' : 'write.down',
          label: t(by < 0 ? 'write.higherString' : 'write.lowerString'),
          keys: by < 0 ? 'Alt+ArrowUp' : 'Alt+ArrowDown',
          run: () => onRestring(by),
        })),
        ...(['tie', 'triplet'] as const).map((what) => ({
          id: `write.${what}`,
          label: t(`write.${what}`),
          keys: what === 'tie' ? 'Alt+U' : 'Alt+T',
          run: () => onMelody(what),
        })),
        ...choicesOf(strings).map(({ value, choosing, keys }) => ({
          id: `write.choose.${value}`,
          label: choiceWords(t, choosing),
          keys,
          run: () => setChoosing(choosing),
        })),
      ]
      const longer = (by: 1 | -1) => () => {
        const ticks = neighbourValue(note?.dur.ticks ?? pen.ticks, by)
        setPen({ ...pen, ticks })
        if (note) void run({ do: 'length', note: note.id, ticks })
      }
      return [
        ...noteActions,
        { id: 'write.longer', label: t('write.longer'), keys: '+', run: longer(1) },
        { id: 'write.shorter', label: t('write.shorter'), keys: '-', run: longer(-1) },
        ...momentActions(t, { cellNow, penNow, run, setCell }),
        ...measureActions(t, model.tune, doc, range, run, held),
        {
          id: 'write.finger',
          label: t('write.refingerHint'),
          keys: 'F',
          run: () => range && void run({ do: 'finger', ...range }),
        },
        {
          id: 'write.arrange',
          label: t('write.rearrangeHint'),
          keys: 'Q',
          run: () => range && void onArrange(range.from, range.to),
        },
        {
          id: 'write.close',
          label: t('write.close'),
          keys: 'Escape',
          run: () => (choosing ? setChoosing(undefined) : setOn(false)),
        },
      ]
    }, [
      t,
      note,
      model,
      doc,
      strings,
      pen,
      range,
      held,
      run,
      onTargets,
      onRestring,
      onMelody,
      setPen,
      setCell,
      cellNow,
      penNow,
      setOn,
      choosing,
      setChoosing,
      onArrange,
    ]),
  )
}
