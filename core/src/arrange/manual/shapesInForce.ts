import { present } from '../../invariant.ts'
import { heldShapesFor, type HeldShape, shapeOfGrip } from '../../chords/textbook.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Grip } from '../../document/tab.ts'
import { pressedKey } from '../../hand/grip/pressed.ts'
import { fingeringsOf } from '../../hand/grip/fingering.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { mapInTurns, type Turns } from '../../turns.ts'
import type { HarmonySegment } from '../plan/harmonyLine.ts'
import { isStruckAt, type Moment } from './moments.ts'

/** Shapes of one chord, and ways to finger what a figure spells, that are tried at a moment. */
const MOST_OF_A_CHORD = 3
const MOST_OF_A_FIGURE = 3

/** Prices of shapes. Common practice, no source. */
const PRICE = {
  /** A note of the figure that is not in the chord's shape. */
  against: 0.35,
  /** A note of the figure for which the shape has no finger and no string. */
  beside: 0.4,
  /** A string of the shape that the figure does not play. */
  unplayed: 0.1,
  /** Another form of the chord, where an earlier one holds as much. */
  otherForm: 0.1,
  /** Share of a fingering's own cost, which was learnt from the open chord data set. */
  fingering: 0.4,
  /** A figure's own shape where the chord has one. */
  notTheChords: 1.2,
}

/** A shape that could be held, with what speaks against it. */
export interface ShapeInForce {
  readonly shape: HeldShape
  readonly price: number
}

/** What may be held at a moment. */
export interface MomentShapes {
  /** The likeliest first. */
  readonly shapes: readonly ShapeInForce[]
  /** Price of holding several places otherwise than in a shape: where the chord has one. */
  readonly unnamed: number
  /** Fretted places that the figure around the moment plays, each on a string of its own. */
  readonly figure: readonly { readonly string: number; readonly fret: number }[]
}

/** A stretch of written time, the end exclusive. */
interface Stretch {
  readonly from: Ticks
  readonly to: Ticks
}

/**
 * The shapes that a hand could hold at each moment, the likeliest first: those on the page already, those of the chord,
 * and those that the notes of a figure spell by themselves.
 * @param onPage grips that stand on the page and are to be kept; in order of time
 */
export function* findingShapes(
  moments: readonly Moment[],
  tune: TuneDoc,
  timeline: Timeline,
  setup: Setup,
  harmony: readonly HarmonySegment[],
  onPage: readonly { readonly at: Ticks; readonly grip: Grip }[],
): Turns<MomentShapes[]> {
  const ofChord = new Map<string, readonly HeldShape[]>()
  const ofFigure = new Map<string, readonly ShapeInForce[]>()
  const known = new Map<string, MomentShapes>()
  const placesIn = placesOfStretches(moments)
  const segmentAt = latestInTime(harmony, (h) => h.start)
  const keptAt = latestInTime(onPage, (g) => g.at)
  return yield* mapInTurns(
    moments,
    ({ at, measure }) => {
      const last = segmentAt(at)
      const segment = last && at < last.end ? last : undefined
      const start = timeline.starts[measure]!
      const whole = { from: start, to: start + tune.measures[measure]!.length }
      const figures = figuresAt(at, whole, tune.measures[measure]!.nominal, segment).map((f) =>
        placesIn(f, measure),
      )
      const kept = keptAt(at)?.grip
      const own = kept && kept.pressed.length > 1 ? shapeOfGrip(kept, setup) : undefined
      const key = [segment?.symbol, ...figures.map((f) => f.join(' ')), own && pressedKey(own.pressed)].join(
        ';',
      )
      return cached(known, key, () => {
        const named = segment?.shape
          ? cached(ofChord, segment.symbol, () => heldShapesFor(present(segment.shape), setup, tune.pins))
          : []
        const fitting = fittingShapes(named, figures[0]!)
        const beside = fitting.length > 0 ? PRICE.notTheChords : 0
        const spelled = figures.flatMap((figure) =>
          cached(ofFigure, figure.join(), () => spelledBy(figure, setup)).map(({ shape, price }) => ({
            shape,
            price: price + beside,
          })),
        )
        return {
          shapes: withoutTwins([...(own ? [{ shape: own, price: 0 }] : []), ...fitting, ...spelled]),
          unnamed: own ? 0 : beside,
          figure: own ? placesOf(own) : figurePlaces(figures[0]!, fitting[0]?.shape),
        }
      })
    },
    8,
  )
}

/** The last item that has begun at a time; asked in order of time. */
export function latestInTime<T>(
  items: readonly T[],
  startOf: (item: T) => Ticks,
): (at: Ticks) => T | undefined {
  let next = 0
  return (at) => {
    while (next < items.length && startOf(items[next]!) <= at) next++
    return items[next - 1]
  }
}

/** The shapes of a chord that hold what a figure plays, the fittest first. */
const fittingShapes = (named: readonly HeldShape[], figure: Figure): ShapeInForce[] =>
  named
    .map((shape) => ({ shape, on: agreement(shape, figure) }))
    .filter(({ shape, on }) => on.held >= Math.min(2, shape.pressed.length) && on.held > on.against)
    .map(({ shape, on }, i) => ({
      shape,
      price:
        PRICE.against * on.against +
        PRICE.beside * on.beside +
        PRICE.unplayed * (shape.pressed.length - on.held) +
        PRICE.otherForm * i,
    }))
    .sort((a, b) => a.price - b.price)
    .slice(0, MOST_OF_A_CHORD)

function cached<T>(known: Map<string, T>, key: string, make: () => T): T {
  const before = known.get(key)
  if (before !== undefined) return before
  const made = make()
  known.set(key, made)
  return made
}

/** Stretches whose notes may belong to one shape: the chord's part of the measure, the measure, its half. */
function figuresAt(
  at: Ticks,
  whole: Stretch,
  nominal: Ticks,
  segment: HarmonySegment | undefined,
): Stretch[] {
  const named = segment?.shape
    ? { from: Math.max(whole.from, segment.start), to: Math.min(whole.to, segment.end) }
    : whole
  const middle = whole.from + nominal / 2
  const half =
    at < middle ? { from: whole.from, to: Math.min(middle, whole.to) } : { from: middle, to: whole.to }
  const within = { from: Math.max(half.from, named.from), to: Math.min(half.to, named.to) }
  return within.from === named.from && within.to === named.to ? [named] : [named, within]
}

/** Fret by string of what is struck in a stretch, string 1 first; null where nothing is, undefined where several frets are. */
type Figure = readonly (number | null | undefined)[]

function placesOfStretches(moments: readonly Moment[]): (stretch: Stretch, measure: number) => Figure {
  const inMeasure = new Map<number, Moment[]>()
  for (const m of moments) {
    const own = inMeasure.get(m.measure)
    if (own) own.push(m)
    else inMeasure.set(m.measure, [m])
  }
  const known = new Map<string, Figure>()
  return ({ from, to }, measure) =>
    cached(known, `${from} ${to}`, () => {
      const frets: (number | null | undefined)[] = [null, null, null, null, null, null]
      for (const m of inMeasure.get(measure) ?? []) {
        if (m.at < from || m.at >= to) continue
        for (const s of m.sounding) {
          if (!isStruckAt(m, s) || s.note.place.harmonic || s.bar) continue
          const { string, fret } = s.note.place
          const before = frets[string - 1]
          frets[string - 1] = before === null || before === fret ? fret : undefined
        }
      }
      return frets
    })
}

const placesOf = ({ pressed }: HeldShape) => pressed.map(({ string, fret }) => ({ string, fret }))

/** What of a figure is to be down together: where its chord has a shape, what belongs to that; the melody comes and goes. */
const figurePlaces = (figure: Figure, shape: HeldShape | undefined) =>
  figure.flatMap((fret, i) => (fret && (!shape || shape.frets[i] === fret) ? [{ string: i + 1, fret }] : []))

/** Fretted notes of a figure that a shape holds, and those that speak against it. */
function agreement({ frets }: HeldShape, figure: Figure): { held: number; against: number; beside: number } {
  let [held, against, beside] = [0, 0, 0]
  figure.forEach((fret, i) => {
    if (typeof fret !== 'number') return
    if (frets[i] === fret) held++
    else if (frets[i] === null) beside++
    else against++
  })
  return { held, against, beside }
}

/** Ways to hold what a figure plays on strings of their own; none for a line, which goes along its strings. */
function spelledBy(figure: Figure, setup: Setup): ShapeInForce[] {
  const frets = Array.from({ length: setup.instrument.strings }, (_, i) => figure[i] ?? null)
  const alone = frets.filter((f) => f !== null)
  const along = figure.filter((f) => f === undefined).length
  if (alone.length < 3 || along > 1 || alone.filter((f) => f > 0).length < 2) return []
  const found = fingeringsOf(setup, frets, setup.player, MOST_OF_A_FIGURE)
  return found.map(({ fingers, cost }) => ({
    price: PRICE.fingering * (cost - found[0]!.cost),
    shape: shapeOfGrip(
      {
        pressed: frets.flatMap((fret, i) => {
          const finger = fingers[i]!
          return fret && finger ? [{ string: i + 1, fret, finger }] : []
        }),
      },
      setup,
    ),
  }))
}

function withoutTwins(shapes: readonly ShapeInForce[]): ShapeInForce[] {
  const known = new Set<string>()
  return shapes.filter(({ shape }) => {
    const key = pressedKey(shape.pressed)
    if (known.has(key)) return false
    known.add(key)
    return true
  })
}
