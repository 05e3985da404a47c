import { knownIn } from '../../invariant.ts'
import { heldShapesFor } from '../../chords/textbook.ts'
import type { ArrangementDoc, Layer } from '../../document/arrangement.ts'
import { ticksAt, timelineOf, type Timeline } from '../../document/form/timeline.ts'
import type { Grip, PressedPlace } from '../../document/tab.ts'
import type { TasteShape } from '../../document/taste.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { fingeringsOf } from '../../hand/grip/fingering.ts'
import { fingerNumber } from '../../hand/grip/pressed.ts'
import type { Setup } from '../../instrument/setup.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import { harmonyLine, type HarmonySegment } from '../plan/harmonyLine.ts'

/** What a hand took otherwise in a tab, by measure index. */
export interface TakenByHand {
  readonly shapes: readonly { readonly measure: number; readonly shape: TasteShape }[]
  /** Measures in which a fill was taken out. */
  readonly fillsOut: readonly number[]
}

/** What differs between a tab and the same after a hand changed it: fingers of chord shapes, fills that are gone. */
export function takenByHand(
  tune: TuneDoc,
  { setup, transposed, base }: Pick<ArrangementDoc, 'setup' | 'transposed' | 'base'>,
  after: Pick<Layer, 'notes' | 'grips'>,
): TakenByHand {
  const timeline = timelineOf(tune.measures)
  const left = new Set(after.notes.map((n) => n.id))
  return {
    shapes: shapesTaken(tune, setup, transposed, timeline, changedGrips(base.grips, after.grips, timeline)),
    fillsOut: base.notes
      .filter((n) => n.role === 'fill' && !left.has(n.id))
      .map((n) => measureOf(timeline, n)),
  }
}

/** Grips that hold at their time what none held there before. Most of a tab is untouched: only what is another object is compared. */
function changedGrips(before: readonly Grip[], after: readonly Grip[], timeline: Timeline): readonly Grip[] {
  const keyOf = (g: Grip) => `${ticksAt(timeline, g.pos)} ${pressedText(g.pressed)}`
  const [were, are] = [new Set(before), new Set(after)]
  const gone = new Set(before.filter((g) => !are.has(g)).map(keyOf))
  return after.filter((g) => !were.has(g) && !gone.has(keyOf(g)))
}

function shapesTaken(
  tune: TuneDoc,
  setup: Setup,
  transposed: number,
  timeline: Timeline,
  changed: readonly Grip[],
): TakenByHand['shapes'] {
  if (changed.length === 0) return []
  const harmony = harmonyLine(tune, timeline, setup.capo[0]!, transposed)
  return changed.flatMap((grip) => {
    const shape = shapeIn(setup, segmentAt(harmony, ticksAt(timeline, grip.pos)), grip.pressed)
    return shape ? [{ measure: measureOf(timeline, grip), shape }] : []
  })
}

const pressedText = (pressed: readonly PressedPlace[]) =>
  pressed
    .map((p) => `${p.string}.${p.fret}.${p.finger}`)
    .sort()
    .join()

const measureOf = (timeline: Timeline, { pos }: Pick<Grip, 'pos'>) => knownIn(timeline.indexOf, pos.measure)

const segmentAt = (harmony: readonly HarmonySegment[], at: number) => harmony.findLast((h) => h.start <= at)

/**
 * The chord's book shape with the fingers that are down, where they are others than the book's: the fingers that are not down as they go
 * best with them.
 */
function shapeIn(
  setup: Setup,
  segment: HarmonySegment | undefined,
  pressed: readonly PressedPlace[],
): TasteShape | undefined {
  if (!segment?.shape || pressed.length === 0) return undefined
  const [book] = heldShapesFor(segment.shape, setup)
  if (!book) return undefined
  // One finger tells of a shape where it has its bass: any other may be the tune's.
  if (pressed.length === 1 && book.frets.findLastIndex((f) => f !== null) !== pressed[0]!.string - 1)
    return undefined
  if (pressed.some((p) => book.frets[p.string - 1] !== p.fret)) return undefined
  const isBooks = pressed.every((p) =>
    book.pressed.some((q) => q.string === p.string && q.finger === fingerNumber(p.finger)),
  )
  if (isBooks) return undefined
  const own = fingeringsOf(setup, book.frets, setup.player, Infinity).find(({ fingers }) =>
    pressed.every((p) => fingers[p.string - 1] === p.finger),
  )
  return (
    own && { chord: chordText(segment.shape), tuning: setup.tuning, frets: book.frets, fingers: own.fingers }
  )
}
