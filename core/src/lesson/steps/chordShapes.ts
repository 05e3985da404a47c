import { struckFrom, type StruckMoment } from './struckFrom.ts'
import { present } from '../../invariant.ts'
import { between } from '../../document/form/between.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import { handFault } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import { chordText, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { harmonyLine } from '../../arrange/plan/harmonyLine.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { heldShape, type HeldFrets } from './heldShape.ts'
import { shapeHeldIn, shapesByName } from './wholeShapes.ts'

/** A shape that a tab uses for a chord, and how its strings are first struck. */
export interface ChordShape {
  /** As the hand behind the capo calls it. */
  readonly chord: ChordReading
  readonly held: HeldFrets
  /** How its strings are first struck, to the end of that measure. */
  readonly struck: readonly StruckMoment[]
}

/** Boxes that one chord gets at most: those that are held longest. */
const MOST_A_CHORD = 2

/**
 * The shapes of a tab in the order in which they come. What a chord uses of one shape at one time and another are put
 * together where one hand can hold both; of a chord's shapes those that are held longest are shown.
 */
export function chordShapes(tune: TuneDoc, doc: ArrangementDoc): ChordShape[] {
  const timeline = timelineOf(tune.measures)
  const strings = doc.setup.instrument.strings
  const byName = shapesByName(doc.setup, tune.pins)
  const shapes: ShownShape[] = []
  for (const h of harmonyLine(tune, timeline, doc.setup.capo[0]!, doc.transposed)) {
    const grips = between(doc.base.grips, timeline, h.start, h.end)
    const whole = shapeHeldIn(grips, byName, 1)
    const held =
      whole ??
      shapeHeldIn(grips, byName, MOST_OF_IT) ??
      heldShape(doc.base, strings, timeline, h.start, h.end)
    if (!h.shape || !held) continue
    const chord = h.shape
    const name = chordText(chord)
    const at = shapes.findIndex(
      (s) => chordText(s.chord) === name && together(doc.setup, s.held, held) !== undefined,
    )
    const ticks = h.end - h.start
    const known = shapes[at]
    if (!known)
      shapes.push({
        chord,
        held,
        struck: struckFrom(tune, doc, timeline, h.start, h.end),
        ticks,
        whole: whole !== undefined,
      })
    else
      shapes[at] = {
        ...known,
        held: known.whole ? known.held : (whole ?? present(together(doc.setup, known.held, held))),
        ticks: known.ticks + ticks,
        whole: known.whole || whole !== undefined,
      }
  }
  const longer = (a: ShownShape, b: ShownShape) =>
    a.ticks > b.ticks || (a.ticks === b.ticks && shapes.indexOf(a) < shapes.indexOf(b))
  return shapes
    .filter((s) => {
      const others = shapes.filter((o) => o !== s && chordText(o.chord) === chordText(s.chord))
      // Where a whole grip is held under the name, parts of others are no shapes of their own.
      if (!s.whole && others.some((o) => o.whole)) return false
      const mostOf = s.whole ? MOST_A_CHORD : 1
      return others.filter((o) => o.whole === s.whole && longer(o, s)).length < mostOf
    })
    .map(({ ticks: _, whole: __, ...s }) => s)
}

interface ShownShape extends ChordShape {
  readonly ticks: Ticks
  /** True where the whole grip is held at some time. */
  readonly whole: boolean
}

/** Share of a shape's fingers with which it is drawn whole, though all are never down. */
const MOST_OF_IT = 0.5

/** Two shapes as one; undefined where they differ on a string or no hand holds both. */
function together(setup: Setup, a: HeldFrets, b: HeldFrets): HeldFrets | undefined {
  const differs = a.frets.some((fret, i) => {
    const other = b.frets[i]!
    return fret !== null && other !== null && (fret !== other || a.fingers[i] !== b.fingers[i])
  })
  // A finger that is on one string here and on another there is no barre.
  const moves = a.fingers.some((f, i) => f !== 0 && a.fingers[i] !== b.fingers[i] && b.fingers.includes(f))
  if (differs || moves) return undefined
  const frets = a.frets.map((fret, i) => fret ?? b.frets[i]!)
  const fingers = a.frets.map((fret, i) => (fret === null ? b.fingers[i]! : a.fingers[i]!))
  const pressed = frets.flatMap((fret, i) =>
    fret !== null && fret > 0 && fingers[i] !== 0 ? [{ string: i + 1, fret, finger: fingers[i]! }] : [],
  )
  const open = frets.flatMap((fret, i) => (fret === 0 ? [i + 1] : []))
  return handFault(setup, setup.player.spans, pressedOf(pressed), open) ? undefined : { frets, fingers }
}
