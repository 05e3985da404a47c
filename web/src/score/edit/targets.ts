import type { Score, TabNote } from '@velvet-porch/core/document'
import { chosenNotes, type Choosing, type EditCommand } from '@velvet-porch/core/edit'
import { useCallback, useMemo } from 'react'
import type { MarkedMeasures } from '../sheet/selection.ts'
import { noteAt, type Cell } from '../sheet/cells.ts'
import { restringEdits } from './restring.ts'
import type { Writing } from './useWriting.ts'

/** An edit of a note that is not there; refused in the usual words. */
const NOWHERE: EditCommand = { do: 'erase', note: '' }

/** Which notes are chosen: those of the marked measures, else of the pen's measure, or the one under the cursor. */
export interface Targeting {
  readonly cell: Cell | undefined
  readonly choosing: Choosing | undefined
  readonly marked: MarkedMeasures | undefined
}

/** The notes that the note tools change. */
export function targetNotes(score: Score, { cell, choosing, marked }: Targeting): readonly TabNote[] {
  const { tune, arrangement } = score
  if (!choosing) {
    const note = cell && noteAt(score, cell)
    return note ? [note] : []
  }
  const range = marked ?? (cell && { from: cell.measure, to: cell.measure })
  return range && arrangement ? chosenNotes(tune, arrangement.base, range.from, range.to, choosing) : []
}

/** Writes edits of all chosen notes, as one step; they are looked up when its turn comes. */
export type OnTargets = (
  kind: EditCommand['do'],
  edits: (notes: readonly TabNote[]) => readonly EditCommand[],
) => Promise<boolean>

/** The same, ahead of what is drawn: what is chosen is what was marked and chosen last, however fast the keys follow. */
function useOnTargets(writing: Writing, markedNow: () => MarkedMeasures | undefined): OnTargets {
  const { run, cellNow, choosingNow } = writing
  return useCallback(
    (kind, edits) => {
      const [choosing, marked] = [choosingNow(), markedNow()]
      const of = (score: Score) => {
        const notes = targetNotes(score, { cell: cellNow(), choosing, marked })
        return notes.length > 0 ? edits(notes) : NOWHERE
      }
      return run(Object.assign(of, { kind }))
    },
    [run, cellNow, choosingNow, markedNow],
  )
}

/** What writes on the chosen notes; the same for as long as the pen is. */
export interface NoteWriting {
  readonly onTargets: OnTargets
  /** Puts what is chosen on the neighbouring strings; the cursor goes along with the note that it stands on. */
  readonly onRestring: (by: 1 | -1) => void
  /** Ties the note under the cursor to the next or over the bar line, or parts the melody's time in three. */
  readonly onMelody: (what: 'tie' | 'triplet') => void
}

export function useNoteWriting(writing: Writing, markedNow: () => MarkedMeasures | undefined): NoteWriting {
  const { run, cellNow, choosingNow, setCell } = writing
  const onTargets = useOnTargets(writing, markedNow)
  return useMemo(
    () => ({
      onTargets,
      onRestring: (by) => {
        const [cell, choosing] = [cellNow(), choosingNow()]
        void onTargets('restring', (notes) => restringEdits(notes, by)).then((done) => {
          if (done && cell && !choosing) setCell({ ...cell, string: cell.string + by })
        })
      },
      onMelody: (what) => {
        const edit = (score: Score): EditCommand => {
          const at = cellNow()
          const found = at && noteAt(score, at)
          if (!found) return NOWHERE
          // Below the melody there is no tune to tie: the note is held over the bar line.
          return what === 'tie' && found.role !== 'melody'
            ? { do: 'hold', note: found.id }
            : { do: what, at: found.pos }
        }
        void run(Object.assign(edit, { kind: what }))
      },
    }),
    [run, cellNow, choosingNow, setCell, onTargets],
  )
}
