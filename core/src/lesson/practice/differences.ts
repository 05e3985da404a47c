import { groupBy, uniq } from 'es-toolkit'
import type { Finger } from '../../hand/moves/placedFinger.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { Attack, TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { PickingSign } from '../../instrument/hand.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { beatCount, type Count } from '../steps/beatCount.ts'
import type { Piece } from './piece.ts'

/** One thing that a piece has otherwise than the piece it is like. */
export type PieceDifference = {
  /** Index of the measure, and where in it. */
  readonly measure: number
  readonly tick: Ticks
  readonly count: Count
  readonly string: number
} & (
  | { readonly kind: 'joins' | 'frets'; readonly fret: number }
  | { readonly kind: 'leaves' }
  /** The note goes to another string. */
  | { readonly kind: 'strings'; readonly was: number; readonly fret: number }
  | { readonly kind: 'finger'; readonly finger: Finger }
  | { readonly kind: 'picking'; readonly picking: Exclude<PickingSign, 'none'> }
  | { readonly kind: 'attack'; readonly attack: Attack }
  | { readonly kind: 'length' }
)

/**
 * What a piece has otherwise than an earlier one of as many measures, beat by beat: notes that join or leave, go to
 * another fret or string, or are fingered, plucked or sounded otherwise.
 */
export function differencesOf(
  tune: TuneDoc,
  { base }: Pick<ArrangementDoc, 'base'>,
  piece: Pick<Piece, 'from' | 'to'>,
  like: Pick<Piece, 'from'>,
): PieceDifference[] {
  const found: PieceDifference[] = []
  for (let measure = piece.from; measure <= piece.to; measure++) {
    const now = byTick(base.notes, tune.measures[measure]!.id)
    const was = byTick(base.notes, tune.measures[like.from + measure - piece.from]!.id)
    const ticks = uniq([...Object.keys(now), ...Object.keys(was)].map(Number)).sort((a, b) => a - b)
    for (const tick of ticks)
      for (const d of momentDiffers(was[tick] ?? [], now[tick] ?? []))
        found.push({
          measure,
          tick,
          count: beatCount(tune.measures[measure]!, tick),
          ...d,
        })
  }
  return found
}

const byTick = (notes: readonly TabNote[], measure: string): Record<Ticks, TabNote[]> =>
  groupBy(
    notes.filter((n) => n.pos.measure === measure),
    (n) => n.pos.tick,
  )

type Unplaced<T> = T extends PieceDifference ? Omit<T, 'measure' | 'tick' | 'count'> : never

function momentDiffers(was: readonly TabNote[], now: readonly TabNote[]): Unplaced<PieceDifference>[] {
  const gone = was.filter((w) => !now.some((n) => n.place.string === w.place.string))
  const found: Unplaced<PieceDifference>[] = []
  for (const n of [...now].sort((a, b) => b.place.string - a.place.string)) {
    const { string, fret } = n.place
    const old = was.find((w) => w.place.string === string)
    if (old) found.push(...noteDiffers(old, n))
    else {
      // What one voice leaves on one string and takes up on another has moved.
      const moved = gone.findIndex((w) => w.role === n.role)
      if (moved < 0) found.push({ kind: 'joins', string, fret })
      else found.push({ kind: 'strings', string, fret, was: gone.splice(moved, 1)[0]!.place.string })
    }
  }
  return [
    ...found,
    ...gone.map((w): Unplaced<PieceDifference> => ({ kind: 'leaves', string: w.place.string })),
  ]
}

/** Of a note that stays on its string the greatest difference alone: another fret wants another finger anyway. */
function noteDiffers(was: TabNote, now: TabNote): Unplaced<PieceDifference>[] {
  const { string, fret } = now.place
  if (was.place.fret !== fret) return [{ kind: 'frets', string, fret }]
  const found: Unplaced<PieceDifference>[] = []
  if (was.attack !== now.attack) found.push({ kind: 'attack', string, attack: now.attack })
  if (was.left !== now.left && now.left !== 0) found.push({ kind: 'finger', string, finger: now.left })
  if (was.right !== now.right && now.right !== 'none')
    found.push({ kind: 'picking', string, picking: now.right })
  if (found.length === 0 && was.dur.ticks !== now.dur.ticks) found.push({ kind: 'length', string })
  return found
}
