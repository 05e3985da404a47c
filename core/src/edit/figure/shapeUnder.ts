import { heldShapesFor } from '../../chords/textbook.ts'
import type { TabNote } from '../../document/tab.ts'
import type { PinnedShape } from '../../document/tune.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { bassPitchClass, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { mod12 } from '../../music/pitch/pitch.ts'

/** What a hand holds for a chord: where a figure finds its notes. */
export interface ShapeUnder {
  /** Fret by string, string 1 first; null where the string is not played. */
  readonly frets: readonly (number | null)[]
  /** The string of the chord's bass. */
  readonly bass: number
}

/** The lowest string that sounds the chord's bass, else the lowest that sounds. */
function bassString(frets: ShapeUnder['frets'], shape: ChordReading, setup: Setup): number {
  const strings = frets.flatMap((fret, i) => (fret === null ? [] : [{ string: i + 1, fret }])).reverse()
  const wanted = mod12(bassPitchClass(shape) + setup.capo[0]!)
  const found = strings.find((place) => mod12(pitchAt(setup, place)) === wanted) ?? strings[0]
  return found?.string ?? setup.instrument.strings
}

const candidates = (shape: ChordReading, setup: Setup, pins: readonly PinnedShape[]): ShapeUnder[] =>
  heldShapesFor(shape, setup, pins).map(({ frets }) => ({ frets, bass: bassString(frets, shape, setup) }))

/** A note of a chord's shape lies where the shape has it; others pass. */
const isIn = ({ frets }: ShapeUnder, { place }: TabNote): boolean => frets[place.string - 1] === place.fret

/** The shape of a chord that most of the notes lie in; what none has is taken from the notes themselves. */
export function shapeUnderNotes(
  notes: readonly TabNote[],
  shape: ChordReading,
  setup: Setup,
  pins: readonly PinnedShape[],
): ShapeUnder {
  const matches = (s: ShapeUnder) => notes.filter((n) => isIn(s, n)).length
  const best = candidates(shape, setup, pins).reduce<ShapeUnder | undefined>(
    (b, s) => (b === undefined || matches(s) > matches(b) ? s : b),
    undefined,
  )
  const own = Array.from({ length: setup.instrument.strings }, (_, i) => {
    const first = notes.find((n) => n.place.string === i + 1 && !n.place.harmonic)
    return first ? first.place.fret : null
  })
  if (best && matches(best) * 2 > notes.length) return best
  return { frets: own, bass: bassString(own, shape, setup) }
}

/** The middle of what a shape presses, in frets; open strings do not count. */
function heightOf({ frets }: ShapeUnder): number {
  const pressed = frets.flatMap((f) => (f ? [f] : []))
  return pressed.length === 0 ? 0 : pressed.reduce((a, b) => a + b, 0) / pressed.length
}

/** The shape of a chord that lies nearest on the neck to another; the book's own first. Undefined where there is none. */
export function shapeNear(
  other: ShapeUnder,
  shape: ChordReading,
  setup: Setup,
  pins: readonly PinnedShape[],
): ShapeUnder | undefined {
  const height = heightOf(other)
  // The first is the one in the books: another one is nearer by more than a position.
  const far = (s: ShapeUnder, i: number) => Math.abs(heightOf(s) - height) + (i === 0 ? 0 : 2.5)
  return candidates(shape, setup, pins)
    .map((s, i) => ({ s, far: far(s, i) }))
    .sort((a, b) => a.far - b.far)[0]?.s
}
