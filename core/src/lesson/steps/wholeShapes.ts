import { heldShapesFor } from '../../chords/textbook.ts'
import type { Grip } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { pressedOf, type Pressed } from '../../hand/grip/pressed.ts'
import type { Setup } from '../../instrument/setup.ts'
import { readChordSymbol } from '../../music/harmony/chordSymbol.ts'
import type { StepShape } from './lessonStep.ts'

/** What a shape is called, without the form and the fret at which it stands. */
const plainName = (shape: string): string => shape.replace(/ \(.*\)$/, '')

/** Finds the name of the shape that a grip holds: whole, and nothing beside it. */
export function wholeShapes(
  setup: Setup,
  pins: TuneDoc['pins'],
): (grip: Grip) => Omit<StepShape, 'taken'> | undefined {
  const known = new Map<string, readonly Pressed[] | undefined>()
  const pressedBy = (shape: string): readonly Pressed[] | undefined => {
    if (!known.has(shape)) {
      const read = readChordSymbol(plainName(shape))
      const shapes = read.kind === 'chord' ? heldShapesFor(read.chord, setup, pins) : []
      known.set(shape, shapes.find((s) => s.name === shape)?.pressed)
    }
    return known.get(shape)
  }
  return ({ shape, pressed, ready }) => {
    const whole = shape ? pressedBy(shape) : undefined
    if (!shape || !whole || ready || whole.length !== pressed.length) return undefined
    const down = pressedOf(pressed)
    const has = (p: Pressed) =>
      down.some((q) => q.string === p.string && q.fret === p.fret && q.finger === p.finger)
    if (!whole.every(has)) return undefined
    const fromLowest = [...pressed].sort((a, b) => b.string - a.string).map((p) => p.finger)
    return { name: plainName(shape), fingers: [...new Set(fromLowest)] }
  }
}
