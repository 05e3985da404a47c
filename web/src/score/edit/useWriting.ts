import type { Score } from '@velvet-porch/core/document'
import { applyEdit, type Choosing, type EditCommand } from '@velvet-porch/core/edit'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useStore } from 'zustand'
import { editScore } from '../../state/openScore.ts'
import type { Cell } from '../sheet/cells.ts'
import { createPen, type Pen, type Refused } from './penStore.ts'

/** An edit, or several as one, that follow from the score as it is when its turn comes. */
export type EditOf = ((score: Score) => EditCommand | readonly EditCommand[]) & {
  readonly kind: EditCommand['do']
}

function kindOf(wanted: EditCommand | EditOf | readonly EditCommand[]): EditCommand['do'] | undefined {
  if (typeof wanted === 'function') return wanted.kind
  return 'do' in wanted ? wanted.do : wanted[0]?.do
}

/** Is told what an edit made of a score. */
type OnEdited = (before: Score, after: Score) => void
const ignored: OnEdited = () => undefined

export type Writing = ReturnType<typeof useWriting>

/**
 * Writing by hand on one page, with what can be done there. Each edit is one step of the tune's history.
 * @param begins true where the pen is taken at once
 * @param first where the pen stands at first; absent: nowhere until a place is chosen
 * @param onEdited is told of each edit; keeps its identity
 */
export function useWriting(tuneId: string, begins = false, first?: Cell, onEdited: OnEdited = ignored) {
  const { t } = useTranslation()
  const [store] = useState(() => createPen(begins, begins ? first : undefined))
  const state = useStore(store)
  const actions = useMemo(() => {
    const refuse = (refused: Refused | undefined) => store.setState({ refused })
    return {
      setOn: (on: boolean) => store.setState({ on }),
      toggle: () => store.setState(({ on, cell }) => ({ on: !on, cell: cell ?? first })),
      setPen: (pen: Pen) => store.setState({ pen }),
      setCell: (cell: Cell) => store.setState({ cell }),
      setChoosing: (choosing: Choosing | undefined) => store.setState({ choosing }),
      refuse,
      dismiss: () => refuse(undefined),
      /** Where the pen stands and what it writes, ahead of what is drawn while somebody types fast. */
      cellNow: () => store.getState().cell,
      penNow: () => store.getState().pen,
      choosingNow: () => store.getState().choosing,
      /** Writes an edit, or several as one step: all of them, or none. */
      async run(wanted: EditCommand | EditOf | readonly EditCommand[]): Promise<boolean> {
        let refusal: Refused | undefined
        let done: { before: Score; after: Score } | undefined
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
          done = { before: score, after: now }
          return now
        })
        if (done) onEdited(done.before, done.after)
        refuse(refusal)
        return refusal === undefined
      },
    }
  }, [store, tuneId, first, t, onEdited])
  return useMemo(() => ({ ...state, ...actions }), [state, actions])
}
