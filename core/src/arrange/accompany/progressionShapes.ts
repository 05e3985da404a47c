import { present } from '../../invariant.ts'
import { bassPitchClass, chordText, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import type { Level } from '../../document/style.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import type { PinnedShape } from '../../document/tune.ts'
import { withKindHand, type Setup } from '../../instrument/setup.ts'
import type { HarmonySegment } from '../plan/harmonyLine.ts'
import { findShapes, fingeredShape, type Shape } from '../../chords/findShapes.ts'
import { bassPitch } from './bassRun.ts'
import { progressionPath } from '../../chords/progression.ts'
import type { ShapeFilters } from '../../chords/shapeQuery.ts'
import { heldShapesFor, openShapeFor, type HeldShape } from '../../chords/textbook.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { hasFinger, leftFinger } from '../../hand/grip/pressed.ts'
import type { LeftFinger } from '../../instrument/hand.ts'

/** The highest fret of an accompaniment's shapes by level, and whether a barre may be laid. */
const LEVEL_SHAPES: Readonly<Record<Level, ShapeFilters>> = {
  1: { zone: [1, 4], noBarre: true },
  2: { zone: [1, 6] },
  3: { zone: [1, 6] },
  4: { zone: [1, 6] },
  5: { zone: [1, 7] },
}

/** Levels whose chords are those of a first book wherever it has them, so that they are learned once. Common practice, no source. */
const BOOK_FIRST: ReadonlySet<Level> = new Set([1])

/** A shape held through a segment of harmony. */
export type SegmentShape = Pick<Shape, 'frets' | 'fingers'>

/** What an accompaniment's shapes may be. */
export interface ShapeRules {
  /** The same shape for a chord wherever it comes. */
  readonly alike: boolean
  /** Fingers may lie across strings. */
  readonly barres: boolean
  /** The hand may be stretched as far as it reaches. */
  readonly stretches: boolean
  /** Chords over all strings, whatever lies lowest: an instrument without bass strings is strummed whole. */
  readonly full: boolean
  /** One stroke goes over the strings: none between the outer two should be silent. */
  readonly strummed: boolean
}

/**
 * A shape for each segment of a harmony: the path through the progression that asks the least of the hand, within the
 * level's part of the neck; pinned shapes as they are. Where the level has no shape for a chord, the limits of the
 * level give way before the chord does.
 * @returns undefined for a segment without a chord, or whose chord this hand cannot hold anywhere
 */
export function progressionShapes(
  own: Setup,
  segments: readonly HarmonySegment[],
  level: Level,
  pins: readonly PinnedShape[],
  { alike, barres, stretches, full, strummed }: ShapeRules,
): (SegmentShape | undefined)[] {
  const setup = stretches ? own : withKindHand(own)
  const filters = barres ? LEVEL_SHAPES[level] : { ...LEVEL_SHAPES[level], noBarre: true }
  const books = BOOK_FIRST.has(level) ? bookShapes(setup, segments, barres) : []
  const pinned = new Map([...books, ...pinnedShapes(setup, segments, pins)])
  const ways: readonly ShapeFilters[] = [filters, { zone: present(filters.zone) }, { zone: [1, 7] }, {}]
  const wanted = new Map<string, ShapeFilters | undefined>()
  for (const { sounding } of segments) {
    if (!sounding || wanted.has(chordText(sounding))) continue
    const held = pinned.has(chordText(sounding))
    wanted.set(
      chordText(sounding),
      held
        ? filters
        : (ways.find((w) => hasShape(setup, sounding, w, full ? isFull : isRooted)) ??
            ways.find((w) => hasShape(setup, sounding, w, () => true))),
    )
  }
  const familiar = new Map(
    segments.flatMap(({ shape }) =>
      shape
        ? heldShapesFor(shape, setup)
            .slice(0, 1)
            .map((f) => [f.frets.join(), fingersOf(f)] as const)
        : [],
    ),
  )
  const result: (SegmentShape | undefined)[] = segments.map(() => undefined)
  // Stretches of chords that the same limits serve are solved as one path.
  for (let from = 0; from < segments.length;) {
    const own = filtersAt(segments[from]!, wanted)
    let to = from + 1
    while (to < segments.length && filtersAt(segments[to]!, wanted) === own) to++
    if (own) {
      const chords = segments.slice(from, to).map((s) => present(s.sounding))
      progressionPath(setup, chords, {
        ...own,
        pinned,
        ...(full ? { full } : { familiar, rooted: true, strummed }),
      }).forEach((step, k) => (result[from + k] = step.shape))
    }
    from = to
  }
  return alike ? sameShapes(segments, result) : result
}

/** The fingers of a held shape by string, string 1 first; 0 for none. */
const fingersOf = ({ frets, pressed }: HeldShape): LeftFinger[] =>
  frets.map((_, i) => {
    const finger = pressed.find((p) => p.string === i + 1)?.finger
    return finger === undefined ? 0 : leftFinger(finger)
  })

/** One shape for each chord: the one that the path holds most often, the first of them where several are. */
function sameShapes(
  segments: readonly HarmonySegment[],
  shapes: readonly (SegmentShape | undefined)[],
): (SegmentShape | undefined)[] {
  const held = new Map<string, Map<string, { shape: SegmentShape; times: number }>>()
  segments.forEach(({ sounding }, i) => {
    const shape = shapes[i]
    if (!sounding || !shape) return
    const own = held.get(chordText(sounding)) ?? new Map<string, { shape: SegmentShape; times: number }>()
    held.set(chordText(sounding), own)
    const key = `${shape.frets.join()}/${shape.fingers.join()}`
    own.set(key, { shape, times: (own.get(key)?.times ?? 0) + 1 })
  })
  return segments.map(({ sounding }, i) => {
    const own = sounding && held.get(chordText(sounding))
    if (!own || !shapes[i]) return undefined
    return [...own.values()].reduce((a, b) => (b.times > a.times ? b : a)).shape
  })
}

const filtersAt = ({ sounding }: HarmonySegment, wanted: ReadonlyMap<string, ShapeFilters | undefined>) =>
  sounding ? wanted.get(chordText(sounding)) : undefined

type Wish = (frets: Shape['frets'], chord: ChordReading, setup: Setup) => boolean

const isRooted: Wish = (frets, chord, setup) => mod12(bassPitch(setup, frets)) === bassPitchClass(chord)

const isFull: Wish = (frets) => frets.every((f) => f !== null)

const hasShape = (setup: Setup, chord: ChordReading, filters: ShapeFilters, isWanted: Wish): boolean =>
  findShapes(setup, chord, filters).zones.some(({ rows }) =>
    rows.some(({ head }) => isWanted(head.frets, chord, setup)),
  )

/** The open shapes that a first book prints for these chords, as far as this hand holds them. */
function bookShapes(
  setup: Setup,
  segments: readonly HarmonySegment[],
  barres: boolean,
): (readonly [string, Shape])[] {
  return segments.flatMap(({ sounding, shape }) => {
    const book = shape && openShapeFor(shape, setup)
    if (!sounding || !book) return []
    const lies = book.fingers.some((places) => places.length > 1)
    const { techniques } = setup.player
    const reached = book.pressed.every((p) => hasFinger(techniques, p.finger))
    if (
      !reached ||
      (lies && !(barres && techniques.barre)) ||
      handFault(setup, setup.player.spans, book.pressed)
    )
      return []
    const held = { fingers: fingersOf(book), cost: 0 }
    return [[chordText(sounding), fingeredShape(setup, sounding, book.frets, held)] as const]
  })
}

function pinnedShapes(
  setup: Setup,
  segments: readonly HarmonySegment[],
  pins: readonly PinnedShape[],
): Map<string, Shape> {
  const pinned = new Map<string, Shape>()
  if (pins.length === 0) return pinned
  for (const { sounding, shape } of segments) {
    if (!sounding || !shape) continue
    const pin = heldShapesFor(shape, setup, pins).find((f) => f.pinned)
    const held = pin && pins.find((p) => p.frets.join() === pin.frets.join())
    if (held)
      pinned.set(
        chordText(sounding),
        fingeredShape(setup, sounding, held.frets, { fingers: held.fingers, cost: 0 }),
      )
  }
  return pinned
}
