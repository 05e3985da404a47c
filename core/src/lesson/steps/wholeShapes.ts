import { heldShapesFor, type HeldShape } from '../../chords/textbook.ts'
import type { Grip, PressedPlace } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { fingerNumber, leftFinger, type Pressed } from '../../hand/grip/pressed.ts'
import type { Setup } from '../../instrument/setup.ts'
import { readChordSymbol } from '../../music/harmony/chordSymbol.ts'
import type { HeldFrets } from './heldShape.ts'
import type { StepShape } from './lessonStep.ts'

/** What a shape is called, without the form and the fret at which it stands. */
const plainName = (shape: string): string => shape.replace(/ \(.*\)$/, '')

/** Finds the whole shapes of the name that a grip has: a small form and the barre beside it may share one. */
export function shapesByName(setup: Setup, pins: TuneDoc['pins']): (shape: string) => readonly HeldShape[] {
  const known = new Map<string, readonly HeldShape[]>()
  return (shape) => {
    if (!known.has(shape)) {
      const read = readChordSymbol(plainName(shape))
      const shapes = read.kind === 'chord' ? heldShapesFor(read.chord, setup, pins) : []
      known.set(
        shape,
        shapes.filter((s) => s.name === shape),
      )
    }
    return known.get(shape) ?? []
  }
}

const isOn = (pressed: readonly PressedPlace[], p: Pressed): boolean =>
  pressed.some((q) => q.string === p.string && q.fret === p.fret && fingerNumber(q.finger) === p.finger)

/** Finds the name of the shape that a grip holds: whole, and nothing beside it. */
export function wholeShapes(
  setup: Setup,
  pins: TuneDoc['pins'],
): (grip: Grip) => Omit<StepShape, 'taken'> | undefined {
  const byName = shapesByName(setup, pins)
  return ({ shape, pressed, ready }) => {
    if (!shape || ready) return undefined
    const isHeld = (whole: HeldShape) =>
      whole.pressed.length === pressed.length && whole.pressed.every((p) => isOn(pressed, p))
    if (!byName(shape).some(isHeld)) return undefined
    const fromLowest = [...pressed].sort((a, b) => b.string - a.string).map((p) => p.finger)
    return { name: plainName(shape), fingers: [...new Set(fromLowest)] }
  }
}

/**
 * The shape that some grips hold between them, as it is drawn: with all its fingers, open and silent strings. Passing
 * fingers of the melody have no part in it; of two forms of one name it is the one with more fingers down. Undefined where less than a share of its fingers is ever down.
 */
export function shapeHeldIn(
  grips: readonly Pick<Grip, 'shape' | 'pressed'>[],
  byName: (shape: string) => readonly HeldShape[],
  least: number,
): HeldFrets | undefined {
  const names = [...new Set(grips.flatMap((g) => g.shape ?? []))]
  const whole = names
    .flatMap((name) => byName(name))
    .map((shape) => {
      const down = shape.pressed.filter((p) => grips.some((g) => isOn(g.pressed, p))).length
      return { shape, down, share: down / shape.pressed.length }
    })
    .filter(({ share }) => share >= least)
    .sort((a, b) => b.share - a.share || b.down - a.down)[0]?.shape
  if (!whole) return undefined
  const finger = (string: number) => whole.pressed.find((p) => p.string === string)?.finger ?? 0
  return { frets: whole.frets, fingers: whole.frets.map((_, i) => leftFinger(finger(i + 1))) }
}
