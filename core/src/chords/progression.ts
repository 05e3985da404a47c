import { cheapestChain } from '../cheapestChain.ts'
import { finish } from '../turns.ts'
import { fingeringsOf } from '../hand/grip/fingering.ts'
import { silentWithin } from '../hand/picking/pickingPrice.ts'
import { bassPitchClass, chordText, type ChordReading } from '../music/harmony/chordSymbol.ts'
import type { LeftFinger } from '../instrument/hand.ts'
import type { Setup } from '../instrument/setup.ts'
import { mod12 } from '../music/pitch/pitch.ts'
import {
  changeCost,
  chordChange,
  handPositions,
  type ChordChange,
  type HandPositions,
} from './chordChange.ts'
import { findShapes, isSelective, handFor, shownOrder, stretchOf, type Shape } from './findShapes.ts'
import { soundingPitches } from './nameShape.ts'
import type { ShapeFilters } from './shapeQuery.ts'

/** What a path through a progression should care for. */
export interface ProgressionFilters extends ShapeFilters {
  /** Keep the highest or the lowest note moving by the smallest steps. */
  readonly lead?: 'melody' | 'bass'
  /** Shapes that are held for a chord whatever they cost, by the chord's text. */
  readonly pinned?: ReadonlyMap<string, Shape>
  /** True where the lowest note must be the chord's bass, if any shape has it there. */
  readonly rooted?: boolean
  /** True where every string is to sound, if any shape has them all. */
  readonly full?: boolean
  /** True where one stroke goes over the strings: each one between the outer two that is silent costs more. */
  readonly strummed?: boolean
  /** Shapes that the hand knows, by their frets (joined), with their fingers: others cost more, so do other fingers. */
  readonly familiar?: ReadonlyMap<string, readonly LeftFinger[]>
}

/** One chord of the path with the change that leads to it. */
export interface ProgressionStep {
  readonly chord: ChordReading
  readonly shape: Shape
  readonly change?: ChordChange
}

/** Shapes that compete for each chord, and fingerings of each. */
const SHAPES_A_CHORD = 16
const FINGERINGS_A_SHAPE = 2
/** Among so many is the one that the hand knows, where it knows one. */
const MANY_FINGERINGS = 12

/** Weights of a shape's own rank, of a change, and of a semitone in the led voice. No source. */
const SHAPE_WEIGHT = 1
const CHANGE_WEIGHT = 0.9
const SEMITONE = 0.6

/** In a progression thin shapes and other basses than the chord's would be taken for their easy changes alone. No source. */
const THIN = 1.5
const OTHER_BASS = 2.5

/** What a shape out of no book costs more where familiar ones are asked for, and what some strings of one that is. No source. */
const UNFAMILIAR = 10
const PART_OF_BOOK = 2

/** Strings that a part of a shape sounds at least. */
const FULL_ENOUGH = 4

/** What a string costs that a stroke goes over and that must be kept silent. No source. */
const SILENT_WITHIN = 8

/** What a known shape costs more under other fingers than the hand knows: a D stays 1 3 2 for the ease of one change. No source. */
const OTHER_FINGERS = 8

interface Contender {
  readonly shape: Shape
  readonly price: number
  readonly top: number
  readonly low: number
  readonly positions: HandPositions
}

/**
 * The shapes that take a hand through a progression with the least work: an exact shortest path over the best shapes of
 * each chord and their fingerings. Empty when a chord has no shape under the filters.
 */
export function progressionPath(
  setup: Setup,
  chords: readonly ChordReading[],
  filters: ProgressionFilters = {},
): ProgressionStep[] {
  const known = new Map<string, Contender[]>()
  const columns = chords.map((chord) => {
    const text = chordText(chord)
    const column = known.get(text) ?? contenders(setup, chord, filters)
    known.set(text, column)
    return column
  })
  if (columns.length === 0 || columns.some((c) => c.length === 0)) return []
  const { choice } = finish(
    cheapestChain(
      columns.map((column) => ({ prices: column.map((c) => c.price) })),
      (k) => (i, j) => stepPrice(setup, columns[k - 1]![i]!, columns[k]![j]!, filters),
    ),
  )
  return chords.map((chord, k) => {
    const { shape } = columns[k]![choice[k]!]!
    if (k === 0) return { chord, shape }
    return { chord, shape, change: chordChange(setup, columns[k - 1]![choice[k - 1]!]!.shape, shape) }
  })
}

function stepPrice(setup: Setup, a: Contender, b: Contender, { lead }: ProgressionFilters): number {
  const change = CHANGE_WEIGHT * changeCost(setup, a.positions, b.positions)
  if (!lead) return change
  return change + SEMITONE * Math.abs(lead === 'melody' ? a.top - b.top : a.low - b.low)
}

function contenders(setup: Setup, chord: ChordReading, filters: ProgressionFilters): Contender[] {
  const pinned = filters.pinned?.get(chordText(chord))
  const rows = pinned ? [] : shownOrder(findShapes(setup, chord, filters))
  const found = rows.map((r) => r.head).sort((a, b) => a.cost - b.cost)
  const rooted = filters.rooted
    ? found.filter((s) => mod12(Math.min(...soundingPitches(setup, s.frets))) === bassPitchClass(chord))
    : []
  const full = filters.full ? found.filter((s) => s.frets.every((f) => f !== null)) : []
  const wanted = [full, rooted].find((some) => some.length > 0) ?? found
  const { familiar } = filters
  const heads = wanted.filter(
    (s, i) => i < SHAPES_A_CHORD || (familiar && strangeness(s, familiar) < UNFAMILIAR),
  )
  const player = handFor(setup.player, filters)
  return (pinned ? [pinned] : heads).flatMap((shape) => {
    const pitches = soundingPitches(setup, shape.frets)
    const ends = { top: Math.max(...pitches), low: Math.min(...pitches) }
    const thin = THIN * Math.max(0, 4 - pitches.length)
    const bass = filters.full || mod12(ends.low) === (filters.bass ?? bassPitchClass(chord)) ? 0 : OTHER_BASS
    const within = filters.strummed ? SILENT_WITHIN * silentWithin(shape.frets) : 0
    const extra = thin + bass + within + strangeness(shape, familiar)
    if (pinned) return [{ shape, price: 0, ...ends, positions: handPositions(shape) }]
    if (isSelective(filters))
      return [{ shape, price: SHAPE_WEIGHT * shape.cost + extra, ...ends, positions: handPositions(shape) }]
    const book = filters.familiar?.get(shape.frets.join())
    const asKnown = (fingers: readonly LeftFinger[]) => !book || book.join() === fingers.join()
    const ways = fingeringsOf(setup, shape.frets, player, book ? MANY_FINGERINGS : FINGERINGS_A_SHAPE)
    return ways
      .filter((w, i) => i < FINGERINGS_A_SHAPE || (book && asKnown(w.fingers)))
      .map(({ fingers, cost }) => ({
        shape: { ...shape, fingers, strain: cost, stretchMm: stretchOf(setup, shape.frets, fingers) },
        price:
          SHAPE_WEIGHT * (shape.cost + (cost - shape.strain)) +
          extra +
          (asKnown(fingers) ? 0 : OTHER_FINGERS),
        ...ends,
        positions: handPositions({ frets: shape.frets, fingers }),
      }))
  })
}

/** What a shape costs more that the hand does not know; some strings of one that it knows are half known. */
function strangeness({ frets }: Shape, familiar: ProgressionFilters['familiar']): number {
  if (!familiar || familiar.has(frets.join())) return 0
  const isPart = (book: readonly string[]) => frets.every((f, i) => f === null || `${f}` === book[i])
  const sounding = frets.filter((f) => f !== null).length
  return sounding >= FULL_ENOUGH && [...familiar.keys()].some((key) => isPart(key.split(',')))
    ? PART_OF_BOOK
    : UNFAMILIAR
}
