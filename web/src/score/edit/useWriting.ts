import {
  applyEdit,
  WHOLE,
  type Choosing,
  type EditCommand,
  type EditRefusal,
  type Score,
  type Role,
  type Ticks,
} from '@velvet-porch/core'
import { useCallback, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { editScore } from '../../state/openScore.ts'
import type { Cell } from '../sheet/cells.ts'

/** What the pen writes: a length, and for the tab the role of new notes. */
export interface Pen {
  readonly ticks: Ticks
  readonly role: Role | 'likely'
}

const FIRST_PEN: Pen = { ticks: WHOLE / 4, role: 'likely' }

export interface Refused extends EditRefusal {
  readonly edit: EditCommand
}

/** An edit, or several as one, that follow from the score as it is when its turn comes. */
export type EditOf = ((score: Score) => EditCommand | readonly EditCommand[]) & {
  readonly kind: EditCommand['do']
}

function kindOf(wanted: EditCommand | EditOf | readonly EditCommand[]): EditCommand['do'] | undefined {
  if (typeof wanted === 'function') return wanted.kind
  return 'do' in wanted ? wanted.do : wanted[0]?.do
}

export type Writing = ReturnType<typeof useWriting>

/** The state of writing by hand: pen, cell, and what was refused. Each edit is one step of the tune's history. */
export function useWriting(tuneId: string, begins = false) {
  const { t } = useTranslation()
  const [on, setOn] = useState(begins)
  const [pen, showPen] = useState(FIRST_PEN)
  const penRef = useRef(FIRST_PEN)
  const setPen = useCallback((next: Pen) => {
    penRef.current = next
    showPen(next)
  }, [])
  const [cell, showCell] = useState<Cell>()
  const now = useRef<Cell | undefined>(undefined)
  const setCell = useCallback((next: Cell) => {
    now.current = next
    showCell(next)
  }, [])
  /** Where the pen stands and what it writes, ahead of what is drawn while somebody types fast. */
  const cellNow = useCallback(() => now.current, [])
  const penNow = useCallback(() => penRef.current, [])
  /** What the note tools change; undefined: the note under the cursor. */
  const [choosing, showChoosing] = useState<Choosing>()
  const choosingRef = useRef<Choosing | undefined>(undefined)
  const setChoosing = useCallback((next: Choosing | undefined) => {
    choosingRef.current = next
    showChoosing(next)
  }, [])
  const choosingNow = useCallback(() => choosingRef.current, [])
  const [refused, setRefused] = useState<Refused>()
  /** Writes an edit, or several as one step: all of them, or none. */
  const run = useCallback(
    async (wanted: EditCommand | EditOf | readonly EditCommand[]): Promise<boolean> => {
      let refusal: Refused | undefined
      const kind = kindOf(wanted)
      if (!kind) return true
      await editScore(tuneId, t(`write.did.${kind}`), (score) => {
        const asked = typeof wanted === 'function' ? wanted(score) : wanted
        const edits = 'do' in asked ? [asked] : asked
        let now = score
        for (const edit of edits) {
          const edited = applyEdit(now, edit)
          if (!edited.ok) {
            refusal = { ...edited.refusal, edit }
            return undefined
          }
          now = edited.score
        }
        return now
      })
      setRefused(refusal)
      return refusal === undefined
    },
    [tuneId, t],
  )
  const dismiss = useCallback(() => setRefused(undefined), [])
  return useMemo(
    () => ({
      on,
      setOn,
      pen,
      setPen,
      cell,
      cellNow,
      penNow,
      setCell,
      choosing,
      choosingNow,
      setChoosing,
      refused,
      refuse: setRefused,
      dismiss,
      run,
    }),
    [
      on,
      pen,
      setPen,
      cell,
      cellNow,
      penNow,
      setCell,
      choosing,
      choosingNow,
      setChoosing,
      refused,
      dismiss,
      run,
    ],
  )
}
