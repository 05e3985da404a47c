import { lastFret, type ArrangementDoc, type EditCommand, type Score, type TabNote } from '@velvet-porch/core'
import { measureActions } from './measureActions.ts'
import { useEffect, useMemo, useRef } from 'react'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../sheet/Sheet.tsx'
import type { SheetModel } from '../sheet/sheetModel.ts'
import { isTyping, useActions, type Action } from '../shell/actions.ts'
import { noteAt, noteIn } from './cells.ts'
import { useHeld } from './clipboard.ts'
import { fretEdit } from './fretEdit.ts'
import { LEFT_FINGERS, PICKS, SOUND_KEYS, SOUNDS, soundEdit, soundKind } from './noteEdits.ts'
import { restring } from './restring.ts'
import type { Writing } from './useWriting.ts'
import { neighbourValue } from './values.ts'

/** Quiet time after a digit in which a second one makes a two-digit fret. */
const SECOND_DIGIT_MS = 800

/** An edit of a note that is not there; refused in the usual words. */
const NOWHERE: EditCommand = { do: 'erase', note: '' }

/** Offers writing the tab by key, and takes frets as digits. */
export function useTabActions(
  model: SheetModel,
  doc: ArrangementDoc,
  writing: Writing,
  range: MarkedMeasures | undefined,
  onArrange: (from: number, to: number) => Promise<void>,
): void {
  const { t } = useTranslation()
  const held = useHeld()
  const { cell, cellNow, pen, setPen, run, setOn } = writing
  const note = cell ? noteIn(model, cell) : undefined
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
      const both = joins ? digit!.value * 10 + own : own
      const fret = m.setup && both <= lastFret(m.setup, at.string) ? both : own
      digit = { value: fret, at: event.timeStamp, cell: key }
      void w.run(fretEdit(m, { ...w, cell: at }, at.string, fret))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  useActions(
    useMemo(() => {
      // The note is looked up when the edit's turn comes, however fast the keys follow.
      const onNote = (kind: EditCommand['do'], edit: (note: TabNote) => EditCommand) => () => {
        const of = (score: Score) => {
          const at = cellNow()
          const found = at && noteAt(score, at)
          return found ? edit(found) : NOWHERE
        }
        void run(Object.assign(of, { kind }))
      }
      const noteActions: Action[] = [
        ...SOUNDS.map((s) => ({
          id: `write.${s}`,
          label: t(`write.sounds.${s}`),
          keys: SOUND_KEYS[s],
          run: onNote(soundKind(s), (n) => soundEdit(n, s)),
        })),
        ...LEFT_FINGERS.map((finger) => ({
          id: `write.left.${finger}`,
          label: t('write.leftFinger', { finger }),
          keys: `Shift+${finger}`,
          run: onNote('left', (n) => ({ do: 'left', note: n.id, finger })),
        })),
        {
          id: 'write.left.0',
          label: t('write.freeFinger'),
          keys: 'Shift+0',
          run: onNote('left', (n) => ({ do: 'left', note: n.id, finger: 0 })),
        },
        ...PICKS.map((sign) => ({
          id: `write.pick.${sign}`,
          label: t(`write.picks.${sign}`),
          keys: sign.toUpperCase(),
          run: onNote('right', (n) => ({ do: 'right', note: n.id, sign })),
        })),
        ...['Delete', 'Backspace'].map((keys) => ({
          id: `write.erase.${keys}`,
          label: t('write.erase'),
          keys,
          run: onNote('erase', (n) => ({ do: 'erase', note: n.id })),
        })),
        {
          id: 'write.up',
          label: t('write.higherString'),
          keys: 'Alt+ArrowUp',
          run: () => note && void restring(note, -1, writing),
        },
        {
          id: 'write.down',
          label: t('write.lowerString'),
          keys: 'Alt+ArrowDown',
          run: () => note && void restring(note, 1, writing),
        },
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
        { id: 'write.close', label: t('write.close'), keys: 'Escape', run: () => setOn(false) },
      ]
    }, [t, cellNow, note, model, doc, pen, range, held, writing, run, setPen, setOn, onArrange]),
  )
}
