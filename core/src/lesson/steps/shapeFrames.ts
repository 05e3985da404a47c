import { between } from '../../document/form/between.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { harmonyLine } from '../../arrange/plan/harmonyLine.ts'
import { chordText, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { chordShapes } from './chordShapes.ts'
import { heldShape, type HeldFrets } from './heldShape.ts'
import { struckFrom, type StruckMoment } from './struckFrom.ts'
import { shapeHeldIn, shapesByName } from './wholeShapes.ts'

/** One change of shape, in playing order. */
export interface ShapeFrame {
  /** Index of the measure in which it is taken. */
  readonly measure: number
  /** As the hand behind the capo calls it. */
  readonly chord: ChordReading
  readonly held: HeldFrets
  readonly struck: readonly StruckMoment[]
}

/** The frames of one part of the tune, under its name. */
export interface FramePart {
  /** Empty where the tune names no parts. */
  readonly name: string
  readonly frames: readonly ShapeFrame[]
}

/**
 * Every change of shape in playing order, part by part: what a player reads who knows the tune and wants to see what comes
 * next. Where a chord goes on it is one change.
 */
export function shapeFrames(tune: TuneDoc, doc: ArrangementDoc): FramePart[] {
  const timeline = timelineOf(tune.measures)
  const { strings } = doc.setup.instrument
  const byName = shapesByName(doc.setup, tune.pins)
  const usual = new Map(chordShapes(tune, doc).map((s) => [chordText(s.chord), s.held]))
  const sectionOf = new Map(tune.sections.map((s) => [s.measure, s.name]))
  const parts: { name: string; frames: ShapeFrame[] }[] = []
  let part: { name: string; frames: ShapeFrame[] } | undefined
  let before = ''
  let next = 0
  for (const h of harmonyLine(tune, timeline, doc.setup.capo[0]!, doc.transposed)) {
    // A part begins with its first chord, though that may stand later than its first note.
    for (; next < tune.measures.length && timeline.starts[next]! <= h.start; next++) {
      const name = sectionOf.get(tune.measures[next]!.id)
      if (name === undefined && part) continue
      part = { name: name ?? '', frames: [] }
      parts.push(part)
      before = ''
    }
    if (!h.shape || !part) continue
    const grips = between(doc.base.grips, timeline, h.start, h.end)
    const name = chordText(h.shape)
    const held =
      shapeHeldIn(grips, byName, 1) ??
      usual.get(name) ??
      heldShape(doc.base, strings, timeline, h.start, h.end)
    if (!held) continue
    const same = `${name} ${held.frets.join()}`
    if (same === before) continue
    before = same
    part.frames.push({
      measure: next - 1,
      chord: h.shape,
      held,
      struck: struckFrom(tune, doc, timeline, h.start, h.end),
    })
  }
  return parts.filter((p) => p.frames.length > 0)
}
