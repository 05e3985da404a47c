import { omit } from 'es-toolkit'
import { ticksAt, timelineOf, type Timeline } from '../../document/form/timeline.ts'
import { joinedUp } from '../../arrange/manual/placed.ts'
import type { ArrangementDoc, Layer } from '../../document/arrangement.ts'
import { SLIDE_MARKS } from '../../document/marks.ts'
import { layerOfMeasures, withVariant } from '../../document/variants.ts'
import type { Grip, Role, TabNote } from '../../document/tab.ts'
import { durationOf } from '../../document/durationOf.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/**
 * A tab taken apart for learning: whole; the picking pattern on one held shape a measure; the shapes alone, struck once
 * each; the tune; the tune and its harmony; the bass.
 */
export const TEACH_LAYERS = ['whole', 'pattern', 'shapes', 'tune', 'harmony', 'bass'] as const
export type TeachLayer = (typeof TEACH_LAYERS)[number]

/** An arrangement with one of its layers alone, in notes and in what the hand holds; its other versions of measures too. */
export function layerOf(tune: TuneDoc, doc: ArrangementDoc, layer: TeachLayer): ArrangementDoc {
  if (layer === 'whole') return doc
  const timeline = timelineOf(tune.measures)
  const alone = (base: Layer) =>
    layer === 'pattern'
      ? onHeldShapes(base, timeline)
      : layer === 'shapes'
        ? shapesAlone(base, timeline)
        : voicesAlone(base, timeline, VOICES[layer])
  const variants = doc.variants.map((v) => ({
    ...v,
    layer: layerOfMeasures(alone(withVariant(doc.base, v)), new Set(v.measures)),
  }))
  return { ...doc, base: alone(doc.base), variants }
}

const VOICES: Readonly<Record<'tune' | 'harmony' | 'bass', ReadonlySet<Role>>> = {
  tune: new Set(['melody']),
  harmony: new Set(['melody', 'harmony', 'fill']),
  bass: new Set(['bass']),
}

/** Some voices, and of each grip what they need. */
function voicesAlone(base: Layer, timeline: Timeline, voices: ReadonlySet<Role>): Layer {
  const notes = base.notes.filter((n) => voices.has(n.role))
  const kept = new Set(notes.map((n) => n.id))
  const spans = base.spans.filter((s) => kept.has(s.from) && kept.has(s.to))
  const grips = base.grips.map((g): Grip => {
    const from = ticksAt(timeline, g.pos)
    const until = ticksAt(timeline, g.until)
    const pressed = g.pressed.filter((p) =>
      notes.some((n) => {
        const at = ticksAt(timeline, n.pos)
        return n.place.string === p.string && n.place.fret === p.fret && at < until && at + n.dur.ticks > from
      }),
    )
    return { ...g, pressed }
  })
  return joinedUp({ ...base, notes, spans, grips }, timeline)
}

/** All that is plucked, on the first shape of each measure; strings outside it are open. */
export function onHeldShapes(base: Layer, timeline: Timeline): Layer {
  const shapes = new Map<string, Grip>()
  for (const g of base.grips) {
    const own = shapes.get(g.pos.measure)
    if (!own || (own.pressed.length === 0 && g.pressed.length > 0)) shapes.set(g.pos.measure, g)
  }
  const notes = base.notes.map((n): TabNote => {
    const held = shapes.get(n.pos.measure)?.pressed.find((p) => p.string === n.place.string)
    return plainly(n, held?.fret ?? 0, held?.finger ?? 0)
  })
  const grips = base.grips.map((g): Grip => {
    const { ready: _, ...plain } = g
    const shape = shapes.get(g.pos.measure)
    return { ...plain, pressed: shape?.pressed ?? [], position: shape?.position ?? 0 }
  })
  return joinedUp({ ...base, notes, spans: [], grips }, timeline)
}

/** A note as the picking hand alone has it, at a fret. */
export function plainly(n: TabNote, fret: number, left: TabNote['left']): TabNote {
  const plain = omit(n, ['graces', 'bend', ...SLIDE_MARKS])
  const struck = n.right === 'none' ? ('p' as const) : n.right
  return {
    ...plain,
    place: { string: n.place.string, fret },
    left,
    right: struck,
    attack: n.attack === 'tremolo' || n.attack === 'brush' ? n.attack : 'pluck',
  }
}

/** Each shape struck once, where fingers have come down for it, for as long as it is held. */
function shapesAlone(base: Layer, timeline: Timeline): Layer {
  const held: { grip: Grip; at: Ticks }[] = []
  for (const grip of base.grips) {
    const before = held.at(-1)?.grip
    const same = (p: Grip['pressed'][number]) =>
      before?.pressed.some((q) => q.string === p.string && q.fret === p.fret) ?? false
    if (grip.pressed.length >= 2 && !grip.pressed.every(same))
      held.push({ grip, at: ticksAt(timeline, grip.pos) })
  }
  const notes = held.flatMap(({ grip, at }, i) => {
    const until = held[i + 1]?.at ?? timeline.length
    return struckTogether(grip, until - at, `shape.${i}`)
  })
  const grips = held.map(({ grip }, i): Grip => {
    const { ready: _, ...plain } = grip
    return { ...plain, until: held[i + 1]?.grip.pos ?? grip.until }
  })
  return { ...base, notes, spans: [], grips }
}

/** All fretted strings of a grip struck together. */
export function struckTogether(
  { pressed, pos }: Pick<Grip, 'pressed' | 'pos'>,
  ticks: Ticks,
  id: string,
): TabNote[] {
  return pressed.map((p): TabNote => ({
    id: `${id}.${p.string}`,
    pos,
    dur: durationOf(ticks),
    role: 'harmony',
    notationVoice: 2,
    place: { string: p.string, fret: p.fret },
    left: p.finger,
    right: 'p',
    attack: pressed.length > 1 ? 'brush' : 'pluck',
    optional: false,
  }))
}
