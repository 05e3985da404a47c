import { BAR_FINGER, barNotes, ticksAt, type Grip, type PressedPlace } from '@velvet-porch/core/document'
import type { SheetModel, SheetPosition } from '../sheet/sheetModel.ts'

export interface HandMoment {
  readonly before: Grip | undefined
  readonly now: Grip
  readonly next: Grip | undefined
  /** The bottleneck, where it lies on the strings now. */
  readonly bottle?: Bottleneck
}

/** A bottleneck over a fret: it lies across the strings from one to another. */
export interface Bottleneck {
  readonly fret: number
  /** The highest and the lowest string, by number. */
  readonly strings: readonly [number, number]
}

/** The grip at a spot, the one before it and the next. A grip that has begun earlier is there already: it stays. */
export function handAt(model: SheetModel, position: SheetPosition): HandMoment | undefined {
  const grips = model.layer?.grips
  if (!grips) return undefined
  const at = model.timeline.starts[position.measure]! + position.tick
  let low = 0
  let high = grips.length - 1
  if (high < 0 || ticksAt(model.timeline, grips[0]!.pos) > at) return undefined
  while (low < high) {
    const mid = (low + high + 1) >> 1
    if (ticksAt(model.timeline, grips[mid]!.pos) <= at) low = mid
    else high = mid - 1
  }
  const now = grips[low]!
  const begins = ticksAt(model.timeline, now.pos) === at
  const bottle = bottleneckOf(model, now)
  return {
    before: begins ? grips[low - 1] : now,
    now,
    next: grips[low + 1],
    ...(bottle ? { bottle } : {}),
  }
}

/** The bottleneck of a grip that is one: the strings that it stops lie under one bar. */
function bottleneckOf({ layer }: SheetModel, { pos, pressed }: Grip): Bottleneck | undefined {
  const under = pressed.filter((p) => p.finger === BAR_FINGER)
  const [first] = under
  if (!layer || !first) return undefined
  const onBar = barNotes(layer)
  const slid = layer.notes.some(
    (n) =>
      onBar.has(n.id) &&
      n.pos.measure === pos.measure &&
      n.pos.tick >= pos.tick &&
      n.place.fret === first.fret,
  )
  const strings = under.map((p) => p.string)
  return slid ? { fret: first.fret, strings: [Math.min(...strings), Math.max(...strings)] } : undefined
}

/** The same with the fingers that wait for a pull-off or stay under a hammer-on: all that is down. */
export function withReadyFingers(moment: HandMoment | undefined): HandMoment | undefined {
  if (!moment) return undefined
  const whole = (g: Grip) => (g.ready ? { ...g, pressed: [...g.pressed, ...g.ready] } : g)
  const { before, now, next } = moment
  return { ...moment, before: before && whole(before), now: whole(now), next: next && whole(next) }
}

/** The same for a hand that lifts some fingers first: one that comes back to its place lands there anew. */
export function withLifted(
  moment: HandMoment | undefined,
  lifted: readonly PressedPlace['finger'][],
): HandMoment | undefined {
  if (!moment?.before || lifted.length === 0) return moment
  const pressed = moment.before.pressed.filter((p) => !lifted.includes(p.finger))
  return { ...moment, before: { ...moment.before, pressed } }
}
