import { BAR_FINGER } from '../../document/barNotes.ts'
import type { HeldShape } from '../../chords/textbook.ts'
import type { MomentShapes } from './shapesInForce.ts'
import { withShape } from '../../chords/withShape.ts'
import { fingerOffsets } from '../../hand/grip/fingerOffsets.ts'
import { fingeringsOf } from '../../hand/grip/fingering.ts'
import { positionOf } from '../../hand/grip/position.ts'
import { fingerNumber, pressedKey, THUMB, type Pressed } from '../../hand/grip/pressed.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import { gripTerms, SHAPE_SHARE } from '../search/staticCost.ts'
import { heldOf } from '../search/heldShapeCost.ts'
import { LEVEL_RULES, WEIGHTS } from '../search/weights.ts'
import { leavesRoomForGraces } from './graceFinger.ts'
import { isStruckAt, type Moment } from './moments.ts'
import type { SoundingNote } from './sounding.ts'

/** One way to hold a moment of a given tab. */
export interface HandState {
  /** Everything that is down, fingers of the shape that sound nothing yet among them. */
  readonly pressed: readonly Pressed[]
  /** Finger by string of what sounds, string 1 first; 0 where none presses. */
  readonly fingers: readonly LeftFinger[]
  readonly position: number
  readonly shape: HeldShape | undefined
  /** Price on its own, for as long as the moment lasts. */
  readonly price: number
}

/** Which fingers are settled, and what of the page is to stay. */
export interface GivenFingers {
  /** The finger that a note must have; undefined where it is free. */
  readonly fixed: (s: SoundingNote) => LeftFinger | undefined
  /** True where the fingers on the page stay as far as the hand allows. */
  readonly keep: boolean
}

/** Fingerings of what sounds, and states of a moment, that are weighed. */
const MOST_FINGERINGS = 24
const MOST_STATES = 48

/** Prices beside those of the search. Common practice, no source. */
const PRICE = {
  /** A finger other than the one that stands on the page, where that is to be kept. */
  changed: 4,
  /** A note is let go whose length was guessed. */
  guessedLength: 0.08,
  /** A note is let go from which another is to be reached. */
  letGo: 60,
  /** Harmonics over one fret that one finger could touch together: a further finger. */
  touchedApart: 1.5,
  /** Too few fingers for the short notes before a note. */
  crowded: 40,
  /** Share of a fingering's own cost (learnt from the open chord data set), where it stands for itself. */
  fingering: 0.25,
  /** A place of the figure, or a further one of its shape, that is not down: once a moment. */
  lacking: 0.8,
  lackingUnplayed: 0.05,
  /** A fret that a finger stands beside its own, in a line: a finger a fret. */
  offItsFret: 0.25,
  /** A fret further up, within reach of the open position: where open strings sound, and where none do. */
  upFromOpen: 0.2,
  upTheNeck: 0.05,
  /** Nothing that this hand can hold. */
  impossible: 400,
}
const OPEN_POSITION = 4

/** The moment's price a beat for the share of its shape that is not down, as in the search at the usual level. */
const SHAPE_BEAT = LEVEL_RULES[3].shapeBeat

/** Positions at which a hand that presses nothing may wait. */
const WAITING = Array.from({ length: 14 }, (_, i) => i + 1)

/** The states of a moment, cheapest first: every way to hold what is given, alone and inside each shape. */
export function handStates(
  setup: Setup,
  moment: Moment,
  shapes: MomentShapes,
  given: GivenFingers,
): HandState[] {
  const states = released(moment).flatMap(({ sounding, price }) =>
    statesOf(setup, moment, sounding, shapes, given).map((s) => ({ ...s, price: s.price + price })),
  )
  if (states.length === 0) return [asWritten(setup, moment, given)]
  return withoutTwins(states.sort((a, b) => a.price - b.price)).slice(0, MOST_STATES)
}

/** What may be let go of: nothing, one of the notes that sound on, or all of them. */
function released(moment: Moment): { sounding: readonly SoundingNote[]; price: number }[] {
  const { sounding } = moment
  const held = sounding.filter((s) => !isStruckAt(moment, s) && s.note.place.fret > 0)
  const without = (gone: readonly SoundingNote[]) => ({
    sounding: sounding.filter((s) => !gone.includes(s)),
    price: gone.reduce((sum, s) => sum + releasePrice(s, moment), 0),
  })
  return [
    { sounding, price: 0 },
    ...held.map((s) => without([s])),
    ...(held.length > 1 ? [without(held)] : []),
  ]
}

/** As the search prices a voice that is cut; a length that was guessed gives way to the hand. */
function releasePrice({ note, awaited }: SoundingNote, { guessed, beats }: Moment): number {
  if (awaited) return PRICE.letGo
  if (guessed) return PRICE.guessedLength
  return note.role === 'melody'
    ? WEIGHTS.melodyCut + WEIGHTS.melodyCutBeat * beats
    : WEIGHTS.bassCut + WEIGHTS.bassCutBeat * beats
}

function statesOf(
  setup: Setup,
  moment: Moment,
  sounding: readonly SoundingNote[],
  shapes: MomentShapes,
  given: GivenFingers,
): HandState[] {
  const { strings } = setup.instrument
  const frets: (number | null)[] = Array.from({ length: strings }, () => null)
  const under = sounding.filter((s) => s.bar && s.note.place.fret > 0)
  const bar = under.map(({ note: { place } }): Pressed => ({ ...placeOn(place), finger: BAR_FINGER }))
  // A bottleneck lies over one fret.
  if (bar.some((p) => p.fret !== bar[0]!.fret)) return []
  const fingered = sounding.filter((s) => !s.bar)
  for (const { note } of fingered) frets[note.place.string - 1] = note.place.fret
  const open = fingered.flatMap(({ note: { place } }) =>
    place.fret === 0 || place.harmonic ? [place.string] : [],
  )
  const offsets = fingerOffsets(setup.instrument)
  const all = fingeringsOf(setup, frets, setup.player, MOST_FINGERINGS)
  const easiest = all[0]?.cost ?? 0
  return all
    .filter(
      ({ fingers }) =>
        fingered.every((s) => mayHave(s, fingers[s.note.place.string - 1]!, given)) &&
        (bar.length === 0 || !fingers.includes(BAR_FINGER)),
    )
    .flatMap(({ fingers: free, cost }): HandState[] => {
      const fingers = free.map((f, i) => (bar.some((p) => p.string === i + 1) ? BAR_FINGER : f))
      const touching = pressedIn(
        fingered.filter((s) => s.note.place.harmonic),
        fingers,
      )
      const bare = pressedIn(
        fingered.filter((s) => !s.note.place.harmonic),
        fingers,
      )
      const stateOf = (pressed: readonly Pressed[], position: number, at: number): HandState => ({
        pressed: [...pressed, ...bar],
        fingers,
        position,
        shape: shapes.shapes[at]?.shape,
        price:
          priceOf(setup, moment, pressed, position, shapes, at) +
          (at < 0 && bare.length > 1 ? PRICE.fingering * (cost - easiest) + shapes.unnamed : 0) +
          priceOfFingers(moment, fingered, fingers, given),
      })
      if (bar.length > 0) return [stateOf(bare, bar[0]!.fret, -1)]
      const places =
        bare.length > 0
          ? positionsOf(bare, offsets)
          : touching.length > 0
            ? [positionOf(touching, offsets)]
            : WAITING
      const whole = shapes.shapes.flatMap(({ shape }, i) => {
        if (!hasItsFingers(shape, bare)) return []
        const pressed = withShape(setup, shape, { pressed: bare, touching }, open, strings)
        return pressed.length > bare.length || heldOf(shape, bare) === shape.pressed.length
          ? [stateOf(pressed, positionOf(pressed, offsets), i)]
          : []
      })
      return [...places.map((position) => stateOf(bare, position, -1)), ...whole]
    })
}

const placeOn = ({ string, fret }: { readonly string: number; readonly fret: number }) => ({ string, fret })

/** True where no place of a shape is under another finger than the shape's. */
const hasItsFingers = (shape: HeldShape, pressed: readonly Pressed[]): boolean =>
  pressed.every((p) =>
    shape.pressed.every((s) => s.string !== p.string || s.fret !== p.fret || s.finger === p.finger),
  )

const pressedIn = (sounding: readonly SoundingNote[], fingers: readonly LeftFinger[]): Pressed[] =>
  sounding.flatMap(({ note: { place } }) => {
    const finger = fingers[place.string - 1]!
    return place.fret > 0 && finger !== 0
      ? [{ string: place.string, fret: place.fret, finger: fingerNumber(finger) }]
      : []
  })

function mayHave(s: SoundingNote, finger: LeftFinger, { fixed }: GivenFingers): boolean {
  const own = fixed(s)
  return own === undefined || s.note.place.fret === 0 || finger === own
}

/** The grip by itself, as the search prices it, and the share of the likeliest shape that is not down. */
function priceOf(
  setup: Setup,
  moment: Moment,
  pressed: readonly Pressed[],
  position: number,
  { shapes, figure }: MomentShapes,
  at: number,
): number {
  const shape = shapes[at]?.shape
  const { beats, open } = moment
  const low = open && moment.sounding.every((s) => s.note.place.fret <= OPEN_POSITION)
  let price = (low ? PRICE.upFromOpen : PRICE.upTheNeck) * Math.min(position - 1, OPEN_POSITION)
  gripTerms(
    setup,
    pressed,
    shape ? SHAPE_SHARE : 1,
    shape ? WEIGHTS.pinnedEase : 1,
    (term, cost, perBeat) => {
      // Laying it down is priced where it happens, in the path.
      if (term === 'barre') return
      price += perBeat ? cost * beats : cost
    },
  )
  if (shapes.length === 0) return price + offTheirFrets(setup, moment, pressed, position)
  if (!shape) price += offTheirFrets(setup, moment, pressed, position)
  const isDown = (p: { readonly string: number; readonly fret: number }) =>
    pressed.some((q) => q.string === p.string && q.fret === p.fret)
  const held = shapes.filter((s) => figure.some((p) => s.shape.frets[p.string - 1] === p.fret))
  const lacking = held.length > 0 ? figure.filter((p) => !isDown(p)).length : 0
  const unplayed = (shape ?? shapes[0]!.shape).pressed.filter(
    (p) => !isDown(p) && !figure.some((f) => f.string === p.string),
  ).length
  return (
    price +
    (shapes[at]?.price ?? 0) +
    PRICE.lackingUnplayed * unplayed +
    lacking * (PRICE.lacking + (SHAPE_BEAT * beats) / Math.max(1, figure.length))
  )
}

/** How far the fingers of what is struck stand from their own frets: one a fret, two on a short neck. */
function offTheirFrets(setup: Setup, moment: Moment, pressed: readonly Pressed[], position: number): number {
  const offsets = fingerOffsets(setup.instrument)
  const covers = fretsAFinger(offsets)
  let frets = 0
  for (const s of moment.sounding) {
    if (!isStruckAt(moment, s)) continue
    const p = pressed.find((q) => q.string === s.note.place.string && q.fret === s.note.place.fret)
    if (!p || p.finger === THUMB) continue
    const off = p.fret - position - Math.floor(offsets[p.finger - 1]!)
    frets += off < 0 ? -off : Math.max(0, off - (covers - 1))
  }
  return PRICE.offItsFret * frets
}

/** Where a hand may stand: on a short neck a finger may be at the further of its two frets. */
function positionsOf(pressed: readonly Pressed[], offsets: readonly number[]): number[] {
  const position = positionOf(pressed, offsets)
  return fretsAFinger(offsets) > 1 && position > 1 ? [position, position - 1] : [position]
}

/** Frets that a finger takes in a line. */
const fretsAFinger = (offsets: readonly number[]): number => offsets[1]!

function priceOfFingers(
  moment: Moment,
  sounding: readonly SoundingNote[],
  fingers: readonly LeftFinger[],
  { keep }: GivenFingers,
): number {
  let price = 0
  let weakest = 0
  for (const s of sounding) {
    const finger = fingers[s.note.place.string - 1]!
    if (keep && s.note.left !== 0 && finger !== s.note.left) price += PRICE.changed
    if (!isStruckAt(moment, s)) continue
    if (!leavesRoomForGraces(s.note, finger)) price += PRICE.crowded
    weakest = Math.max(weakest, WEIGHTS.weakFinger[fingerNumber(finger)] ?? 0)
  }
  const touching = sounding.filter((s) => s.note.place.harmonic && isStruckAt(moment, s))
  const touched = new Set(touching.map((s) => s.note.place.fret)).size
  const used = new Set(touching.map((s) => fingers[s.note.place.string - 1])).size
  return price + weakest + PRICE.touchedApart * Math.max(0, used - touched)
}

/** The fingers on the page, and the nearest free one for a note that has none yet: no hand can hold it, and the audit says so. */
function asWritten(setup: Setup, moment: Moment, given: GivenFingers): HandState {
  const fingers: LeftFinger[] = Array.from({ length: setup.instrument.strings }, () => 0)
  const lowest = Math.min(...moment.sounding.flatMap((s) => s.note.place.fret || []))
  for (const s of moment.sounding) {
    const { string, fret } = s.note.place
    if (fret === 0) continue
    if (s.bar) {
      fingers[string - 1] = BAR_FINGER
      continue
    }
    const near = Math.min(4, Math.max(1, fret - lowest + 1)) as LeftFinger
    fingers[string - 1] = given.fixed(s) ?? (s.note.left === 0 ? near : s.note.left)
  }
  const pressed = pressedIn(moment.sounding, fingers)
  const position = positionOf(pressed, fingerOffsets(setup.instrument))
  return { pressed, fingers, position, shape: undefined, price: PRICE.impossible }
}

function withoutTwins(states: readonly HandState[]): HandState[] {
  const known = new Set<string>()
  return states.filter(({ pressed, fingers, position }) => {
    const key = [pressedKey(pressed), fingers.join(), position].join(';')
    if (known.has(key)) return false
    known.add(key)
    return true
  })
}

/** The hand that the page has at a moment, where it is not to be found anew. */
export function stateOnPage(
  setup: Setup,
  grip: { readonly pressed: readonly Pressed[]; readonly position: number },
  sounding: readonly SoundingNote[],
): HandState {
  const fingers: LeftFinger[] = Array.from({ length: setup.instrument.strings }, () => 0)
  for (const { note } of sounding) fingers[note.place.string - 1] = note.left
  return { pressed: grip.pressed, fingers, position: grip.position, shape: undefined, price: 0 }
}
