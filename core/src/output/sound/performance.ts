import { knownIn } from '../../invariant.ts'
import { groupBy } from 'es-toolkit'
import type { Timeline } from '../../document/form/timeline.ts'
import { feelOfMeasures, swungBeats } from '../../document/swing.ts'
import { withVariant } from '../../document/variants.ts'
import type { Unfolded } from '../../document/form/unfold.ts'
import type { Layer, Region, Variant } from '../../document/arrangement.ts'
import { isArrival, type Arrival, type Attack, type Role, type TabNote } from '../../document/tab.ts'
import { GRACE_S } from '../../arrange/ornament/usualTimes.ts'
import { inTime } from '../../arrange/manual/reaching.ts'
import { stating, type Expression } from '../../document/expression.ts'
import type { Id } from '../../document/ids.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { SLIDE_MARKS, slideEnd, type SlideMark } from '../../document/marks.ts'
import { lastFret, pitchAt, type Setup } from '../../instrument/setup.ts'
import { hertz } from '../../music/pitch/pitch.ts'
import { ringOf } from '../../hand/ring/ring.ts'
import { beatLength, inFullMeasure } from '../../music/time/metre.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { paced } from './pace.ts'
import { bpmAt, tempoMap, type TempoChange } from '../../document/form/tempoMap.ts'

/** A note to be sounded, in played order. */
export interface ScoreNote {
  readonly at: Ticks
  readonly until: Ticks
  readonly string: number
  readonly hertz: number
  readonly role: Role
  /** How hard it is struck, 0 to 1. */
  readonly velocity: number
  /** Sounded by the fretting hand alone: the string goes on at another pitch. */
  readonly arrival?: Arrival
  /** Seconds that the string takes to its new pitch. */
  readonly glide?: number
  readonly vibrato?: true
  /** What touches the string, and where on its length it is plucked, where the tab says so. */
  readonly touch?: Expression['touch']
  readonly pluckAt?: Expression['pluckAt']
  /** A palm on the bridge shortens it; a muted string only clicks. */
  readonly damping?: 'palm' | 'muted'
}

/** A beat: a click of the metronome, a number counted aloud. */
export interface Click {
  readonly at: Ticks
  readonly strong: boolean
  /** The beat in its measure, from 1. */
  readonly number: number
}

/** Everything that the sequencer plays. Plain data: it crosses to the audio thread as it is. */
export interface Performance {
  readonly notes: readonly ScoreNote[]
  readonly clicks: readonly Click[]
  readonly tempos: readonly TempoChange[]
  readonly length: Ticks
  /** Ticks of one beat at the start, for the count-in, and beats of the first full measure. */
  readonly beat: Ticks
  readonly countIn: number
}

/** Seconds between neighbouring strings of a brush, and of a rolled chord. Common practice, no source. */
const BRUSH_S = 0.011
const ROLL_S = 0.045

/** Velocities: the melody stands out, an accent more; a brush spreads its force over its strings. */
const VELOCITY = { melody: 1, other: 0.72, brush: 0.5, accent: 1.35 }

/** Loudness against a note of which nothing is said. No source. */
const LOUDNESS = { pp: 0.35, p: 0.5, mp: 0.7, mf: 0.85, f: 1.1, ff: 1.35 } as const

/** Share of its ringing that is left of a note cut short. */
const CUT_SHORT = 0.45

/** Ticks between two strokes of a tremolo. */
const TREMOLO_STROKE: Ticks = QUARTER / 8

/**
 * Unfolds an arrangement into what is heard.
 * @param variants other versions of measures; those for a pass are played on it
 * @param regions whose feel is played; none: all is straight
 */
export function scoreOf(
  tune: TuneDoc,
  setup: Setup,
  layer: Layer,
  timeline: Timeline,
  unfolded: Unfolded,
  variants: readonly Variant[] = [],
  regions: readonly Region[] = [],
): Performance {
  const swung = swungBeats(tune, feelOfMeasures(tune, regions), timeline, layer.notes)
  const marks = paced(tempoMap(tune, timeline), layer.notes, timeline, swung)
  const sounded = (of: Layer) => soundedByMeasure(setup, of, timeline, marks)
  const plain = sounded(layer)
  // A measure may be played otherwise on one of its passes.
  const onPass = variants.flatMap((v) =>
    v.when.pass === undefined
      ? []
      : [
          {
            pass: v.when.pass,
            measures: new Set(v.measures),
            notes: sounded(withVariant(layer, v)),
          },
        ],
  )
  const notesOf = (measure: number, pass: number) => {
    const id = tune.measures[measure]!.id
    const other = onPass.find((v) => v.pass === pass && v.measures.has(id))
    return (other?.notes ?? plain).get(measure) ?? []
  }
  const notes: ScoreNote[] = []
  const clicks: Click[] = []
  const tempos: TempoChange[] = []
  for (const { measure, startTick, pass } of unfolded.order) {
    const m = tune.measures[measure]!
    const from = timeline.starts[measure]!
    const bpm = bpmAt(marks, from)
    if (tempos.at(-1)?.bpm !== bpm) tempos.push({ at: startTick, bpm })
    for (const t of marks)
      if (t.at > from && t.at < from + m.length) tempos.push({ at: startTick + t.at - from, bpm: t.bpm })
    for (const n of notesOf(measure, pass)) {
      const { ring, ...note } = n
      notes.push({ ...note, at: startTick + n.at, until: startTick + n.at + ring })
    }
    const beat = beatLength(m.metre)
    const offset = inFullMeasure(m, 0)
    for (let t = Math.ceil(offset / beat) * beat; t < offset + m.length; t += beat) {
      clicks.push({ at: startTick + t - offset, strong: t === 0, number: Math.round(t / beat) + 1 })
    }
  }
  const first = tune.measures.find((m) => m.length >= m.nominal) ?? tune.measures[0]!
  const beat = beatLength(first.metre)
  return {
    notes: notes.sort((a, b) => a.at - b.at),
    clicks,
    tempos,
    length: unfolded.length,
    beat,
    countIn: Math.max(2, Math.round(first.nominal / beat)),
  }
}

type MeasureNotes = ReadonlyMap<number, readonly (Omit<ScoreNote, 'until'> & { readonly ring: Ticks })[]>

/** What each measure sounds, its times from the measure's start. */
function soundedByMeasure(
  setup: Setup,
  layer: Layer,
  timeline: Timeline,
  tempos: readonly TempoChange[],
): MeasureNotes {
  const rings = ringOf(layer, timeline)
  const byMeasure = new Map<number, (Omit<ScoreNote, 'until'> & { ring: Ticks })[]>()
  const brushes = brushOrder(layer)
  for (const [n, said] of stating(inTime(layer.notes, timeline))) {
    const m = knownIn(timeline.indexOf, n.pos.measure)
    const own = byMeasure.get(m) ?? []
    const { dynamic, touch, pluckAt } = said
    const plucked = {
      string: n.place.string,
      hertz: soundingHertz(setup, n),
      role: n.role,
      velocity: Math.min(1, velocityOf(n) * (dynamic ? LOUDNESS[dynamic] : 1)),
      ...(touch ? { touch } : {}),
      ...(pluckAt ? { pluckAt } : {}),
      ...(n.vibrato ? { vibrato: true as const } : {}),
      ...(n.attack === 'muted'
        ? { damping: 'muted' as const }
        : n.palmMute
          ? { damping: 'palm' as const }
          : {}),
    }
    const whole = knownIn(rings, n.id)
    const ring = n.staccato ? Math.max(1, Math.round(Math.min(whole, n.dur.ticks) * CUT_SHORT)) : whole
    const bpm = bpmAt(tempos, timeline.starts[m]! + n.pos.tick)
    const ticksOf = (seconds: number) => Math.round((seconds * bpm * QUARTER) / 60)
    const late = ticksOf((brushes.get(n.id) ?? 0) * (n.rolled ? ROLL_S : BRUSH_S))
    const slides = SLIDE_MARKS.filter((m) => n[m])
    if (n.graces || n.bend || isArrival(n.attack) || slides.length > 0)
      own.push(...withSlides(articulated(n, setup, plucked, ring, ticksOf), n, setup, slides, ticksOf))
    else if (n.attack !== 'tremolo')
      own.push({ ...plucked, at: n.pos.tick + late, ring: Math.max(1, ring - late) })
    // A tremolo is a stroke each 32nd; the last one rings on.
    else
      for (let at = 0; at < n.dur.ticks; at += TREMOLO_STROKE) {
        const last = at + TREMOLO_STROKE >= n.dur.ticks
        own.push({ ...plucked, at: n.pos.tick + at, ring: last ? ring - at : TREMOLO_STROKE })
      }
    byMeasure.set(m, own)
  }
  return byMeasure
}

/** Seconds that a slide, a bend and its release are on their way before they arrive. Common practice, no source. */
const GLIDES: Readonly<Partial<Record<Attack, number>>> = { slide: 0.08, bend: 0.16, release: 0.12 }

type Sounded = Omit<ScoreNote, 'at' | 'until'>

/** A note with its short notes, its arrival, its bend: one event each, in order of time. */
function articulated(
  n: TabNote,
  setup: Setup,
  plain: Sounded,
  ring: Ticks,
  ticksOf: (seconds: number) => Ticks,
): (Sounded & { readonly at: Ticks; readonly ring: Ticks })[] {
  const graces = n.graces ?? []
  const short = ticksOf(GRACE_S)
  const events: (Sounded & { at: Ticks; ring: Ticks })[] = graces.map((g, i) => ({
    ...plain,
    ...arriving(g.attack),
    string: g.place.string,
    hertz: hertz(pitchAt(setup, g.place)),
    at: n.pos.tick + i * short,
    ring: short,
  }))
  const at = n.pos.tick + graces.length * short
  const rest = Math.max(1, ring - graces.length * short)
  // A slide or a bend is on its way before it arrives.
  const seconds = GLIDES[n.attack] ?? 0
  const early = Math.min(ticksOf(seconds), Math.max(0, at))
  const glide = seconds > 0 ? { glide: seconds } : {}
  return [...events, { ...plain, ...arriving(n.attack), ...glide, at: at - early, ring: rest + early }]
}

/** Seconds that a finger slides to a note from none, and off it. Common practice, no source. */
const SLIDE_IN_S = 0.08
const SLIDE_OFF_S = 0.16

type SoundedAt = Sounded & { readonly at: Ticks; readonly ring: Ticks }

/**
 * A note's events with its slides from and to nowhere: the first is plucked beside its fret, a little early, and glides
 * there; at its written end the last one glides off and dies.
 */
function withSlides(
  events: readonly SoundedAt[],
  n: TabNote,
  setup: Setup,
  slides: readonly SlideMark[],
  ticksOf: (seconds: number) => Ticks,
): SoundedAt[] {
  const out = [...events]
  const last = lastFret(setup, n.place.string)
  const away = (mark: SlideMark) => 2 ** ((slideEnd(mark, n.place.fret, last) - n.place.fret) / 12)
  for (const mark of slides) {
    if (mark === 'slideFromBelow' || mark === 'slideFromAbove') {
      const first = out[0]!
      const early = Math.min(ticksOf(SLIDE_IN_S), first.at)
      const at = first.at - early
      const { vibrato: _, ...beside } = first
      out.splice(
        0,
        1,
        { ...beside, hertz: first.hertz * away(mark), at, ring: 1 },
        { ...first, arrival: 'slide', glide: SLIDE_IN_S, at: at + 1, ring: first.ring + early - 1 },
      )
    } else {
      const end = out.at(-1)!
      const until = Math.min(end.at + end.ring, n.pos.tick + n.dur.ticks)
      const off = Math.min(ticksOf(SLIDE_OFF_S), Math.floor((until - end.at) / 2))
      const { vibrato: _, ...going } = end
      out.splice(
        -1,
        1,
        { ...end, ring: until - off - end.at },
        {
          ...going,
          hertz: end.hertz * away(mark),
          arrival: 'slide',
          glide: SLIDE_OFF_S,
          at: until - off,
          ring: off,
        },
      )
    }
  }
  return out
}

const arriving = (attack: string): Pick<ScoreNote, 'arrival'> =>
  isArrival(attack) ? { arrival: attack } : {}

/** A note's frequency, its bend and its cents off the fret included. */
const soundingHertz = (setup: Setup, { place, bend = 0 }: TabNote): number =>
  hertz(pitchAt(setup, place) + bend) * 2 ** ((place.offsetCents ?? 0) / 1200)

function velocityOf({ role, attack, accent }: TabNote): number {
  const plain =
    attack === 'brush' || attack === 'muted'
      ? VELOCITY.brush
      : role === 'melody'
        ? VELOCITY.melody
        : VELOCITY.other
  return plain * (accent ? VELOCITY.accent : 1)
}

/** How many strings of its brush, or rolled chord, are struck before each note: from the low ones down, from string 1 up. */
function brushOrder(layer: Layer): Map<Id, number> {
  const strokes = groupBy(
    layer.notes.filter((n) => n.attack === 'brush' || n.attack === 'muted' || n.rolled),
    (n) => `${n.pos.measure} ${n.pos.tick}`,
  )
  const order = new Map<Id, number>()
  for (const notes of Object.values(strokes)) {
    const sign = notes[0]!.right === 'up' ? 1 : -1
    notes.sort((a, b) => sign * (a.place.string - b.place.string)).forEach((n, i) => order.set(n.id, i))
  }
  return order
}
