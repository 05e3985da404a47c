import type { TFunction } from 'i18next'
import { isArrival, type Score, type TabNote } from '@velvet-porch/core/document'
import type { EditCommand } from '@velvet-porch/core/edit'
import type { Action } from '../../state/actions.ts'
import type { Cell } from '../sheet/cells.ts'
import type { EditOf, Writing } from './useWriting.ts'

/** What is struck where the pen stands, lowest string first. */
function momentAt({ tune, arrangement }: Score, { measure, tick }: Cell): TabNote[] {
  const id = tune.measures[measure]?.id
  return (arrangement?.base.notes ?? [])
    .filter((n) => n.pos.measure === id && n.pos.tick === tick)
    .toSorted((a, b) => b.place.string - a.place.string)
}

const editOf = (kind: EditCommand['do'], of: (score: Score) => readonly EditCommand[]): EditOf =>
  Object.assign(of, { kind })

/** Where the pen comes to after a moment; undefined behind the last measure. */
function nextCell({ tune }: Score, cell: Cell, ticks: number): Cell | undefined {
  const measure = tune.measures[cell.measure]
  if (!measure) return undefined
  if (cell.tick + ticks < measure.length) return { ...cell, tick: cell.tick + ticks }
  return tune.measures[cell.measure + 1] ? { ...cell, measure: cell.measure + 1, tick: 0 } : undefined
}

/** The same note at another moment, played as it is here. */
function again({ tune }: Score, n: TabNote, to: Cell, ticks: number): EditCommand {
  const measure = tune.measures[to.measure]!
  const attack = isArrival(n.attack) ? 'pluck' : n.attack
  return {
    do: 'fret',
    at: { measure: measure.id, tick: to.tick },
    string: n.place.string,
    fret: n.place.fret,
    ticks: Math.min(ticks, measure.length - to.tick),
    role: n.role,
    played: [
      ...(attack === 'pluck' ? [] : [{ do: 'attack' as const, attack }]),
      ...(n.place.harmonic === undefined ? [] : [{ do: 'harmonic' as const, kind: 'natural' as const }]),
      ...(n.place.artificial ? [{ do: 'harmonic' as const, kind: 'artificial' as const }] : []),
    ],
  }
}

type Pen = Pick<Writing, 'cellNow' | 'penNow' | 'run' | 'setCell'>

/** Whole moments by key: all that is struck where the pen stands is erased, or played once more after it. */
export function momentActions(t: TFunction, writing: Pen): Action[] {
  const { cellNow, run } = writing
  return [
    {
      id: 'write.eraseMoment',
      label: t('write.eraseMoment'),
      keys: 'Shift+Delete',
      run: () => {
        const cell = cellNow()
        if (!cell) return
        void run(editOf('erase', (score) => momentAt(score, cell).map((n) => ({ do: 'erase', note: n.id }))))
      },
    },
    {
      id: 'write.repeatMoment',
      label: t('write.repeatMoment'),
      keys: 'Alt+R',
      run: () => {
        const cell = cellNow()
        if (cell) void repeatMoment(cell, writing)
      },
    },
  ]
}

/** Writes a moment once more, a pen's length later, and goes there. */
async function repeatMoment(cell: Cell, { penNow, run, setCell }: Pen): Promise<void> {
  const { ticks } = penNow()
  let after: Cell | undefined
  const repeat = editOf('fret', (score) => {
    const to = nextCell(score, cell, ticks)
    after = to
    return to ? momentAt(score, cell).map((n) => again(score, n, to, ticks)) : []
  })
  if ((await run(repeat)) && after) setCell(after)
}
