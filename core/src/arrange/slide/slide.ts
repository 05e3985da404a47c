import { knownIn } from '../../invariant.ts'
import { BAR_FINGER } from '../../document/barNotes.ts'
import { measureAt, posAt, ticksAt, type MelodyNote } from '../../document/form/timeline.ts'
import { chordPitchClasses } from '../../music/harmony/chordSymbol.ts'
import type { Level } from '../../document/style.ts'
import type { Grip, PressedPlace, Span, TabNote } from '../../document/tab.ts'
import { USUAL_SCHOOL } from '../../document/school.ts'
import type { Pos, TuneDoc } from '../../document/tune.ts'
import { openPitch, pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { assignPicking } from '../../hand/picking/assignPicking.ts'
import { mod12, midiOf, pitchClass } from '../../music/pitch/pitch.ts'
import { segmentAt } from '../plan/harmonyLine.ts'
import { pickedLine, pickingHand } from '../plan/pickingOf.ts'
import type { Plan } from '../plan/plan.ts'
import { beatStarts, inFullMeasure, missingHead, strongBeats } from '../../music/time/metre.ts'
import { type Ticks } from '../../music/time/ticks.ts'
import { durationOf } from '../../document/durationOf.ts'
import { LONG_S, slidePath, type SlideNote } from './slidePath.ts'
import { straightAcross } from './straightAcross.ts'

/** What each level of the bottleneck plays besides the melody. */
const LEVELS: Readonly<
  Record<
    Level,
    {
      readonly bass: 'none' | 'strong' | 'beats'
      /** A second note straight across, on beats or with every note. */
      readonly double: 'none' | 'beats' | 'all'
      /** Notes reached by sliding: where the bar stays on its string; from below too, on strong beats. */
      readonly slides: 'none' | 'near' | 'below'
    }
  >
> = {
  1: { bass: 'none', double: 'none', slides: 'none' },
  2: { bass: 'strong', double: 'none', slides: 'near' },
  3: { bass: 'strong', double: 'beats', slides: 'near' },
  4: { bass: 'beats', double: 'beats', slides: 'below' },
  5: { bass: 'beats', double: 'all', slides: 'below' },
}

/** Farthest slide between two notes, and from below into one, in frets. Common practice, no source. */
const FARTHEST = 5
const FROM_BELOW = 2

/** Notes under the last one: thumb and two fingers. */
const MOST_UNDER = 3

/** A pure major third lies this many cents under the fret's (5:4 against equal temperament: 386.3 and 400 cents). */
const PURE_THIRD = -14

type Unpicked = Omit<TabNote, 'right'>

/**
 * Plays the measures of the bottleneck style: the melody by the cheapest way of the bar, open strings as its time to
 * travel, double stops straight across, open basses of the chord, slides, pure thirds, vibrato on long notes, and what is
 * to be damped.
 */
export function slide(
  tune: TuneDoc,
  setup: Setup,
  plan: Plan,
): { notes: TabNote[]; grips: Grip[]; spans: Span[] } {
  const open = straightAcross(setup)
  if (plan.slid.length === 0 || !open) return { notes: [], grips: [], spans: [] }
  const end = Math.max(...[...plan.slid, ...plan.melody, ...plan.sung].map((n) => n.start))
  const line = plan.slid.map((note): SlideNote => {
    const chord = plan.harmony[segmentAt(plan.harmony, note.start)]?.sounding
    return {
      note,
      midi: midiOf(note.pitch) + plan.transposed + (note.moved ?? 0),
      seconds: plan.secondsBetween(note.start, note.start + note.duration),
      chordFret: chord ? mod12(pitchClass(chord.root) - open.root) : undefined,
      rests: note.start === end,
    }
  })
  const places = slidePath(setup, line)
  const writer = new SlideWriter(tune, setup, plan, line, places)
  return writer.write()
}

class SlideWriter {
  private readonly spans: Span[] = []
  /** Where the tune comes to rest. */
  private readonly rest: Ticks

  constructor(
    private readonly tune: TuneDoc,
    private readonly setup: Setup,
    private readonly plan: Plan,
    private readonly line: readonly SlideNote[],
    private readonly places: readonly (Place | undefined)[],
  ) {
    this.rest = line.find((l) => l.rests)?.note.start ?? Infinity
  }

  write(): { notes: TabNote[]; grips: Grip[]; spans: Span[] } {
    const onsets = new Map<Ticks, Unpicked[]>()
    const add = (at: Ticks, notes: readonly Unpicked[]) =>
      onsets.set(at, [...(onsets.get(at) ?? []), ...notes])
    this.line.forEach((_, i) => this.places[i] && add(this.line[i]!.note.start, this.melodyAt(i)))
    const measures = this.plan.regions.flatMap((r, m) => (r?.style === 'bottleneck' ? [m] : []))
    for (const m of measures)
      for (const b of this.bassesIn(m, onsets)) add(ticksAt(this.plan.timeline, b.pos), [b])
    const times = [...onsets.keys()].sort((a, b) => a - b)
    return {
      notes: this.picked(times.map((t) => knownIn(onsets, t))),
      grips: this.gripsAt(times, onsets),
      spans: this.spans,
    }
  }

  private level(measure: number): (typeof LEVELS)[Level] {
    return LEVELS[this.plan.regions[measure]?.level ?? 1]
  }

  private pos(at: Ticks): Pos {
    return posAt(this.tune.measures, this.plan.timeline, at)
  }

  private note(at: Ticks, ticks: Ticks, place: Place, id: string): Omit<Unpicked, 'role' | 'notationVoice'> {
    return {
      id,
      pos: this.pos(at),
      dur: durationOf(ticks),
      place,
      left: place.fret === 0 ? 0 : BAR_FINGER,
      attack: place.fret === 0 ? 'pluck' : 'bottle',
      optional: false,
    }
  }

  /** The melody note, how it is reached, and the second voice straight across. */
  private melodyAt(i: number): Unpicked[] {
    const { note, midi, seconds, rests } = this.line[i]!
    const { slides, double, bass } = this.level(note.measure)
    const place = this.pure(this.places[i]!, midi, note.start, seconds)
    const next = this.places[i + 1]
    const long = place.fret > 0 && seconds >= LONG_S
    let melody: Unpicked = {
      ...this.note(note.start, note.duration, place, `n.${note.sourceId}`),
      sourceId: note.sourceId,
      role: 'melody',
      notationVoice: 1,
      ...(long ? { vibrato: true as const } : {}),
      ...(next && next.string !== place.string && next.fret > 0 ? { damp: true as const } : {}),
    }
    if (rests && bass !== 'none') return [melody, ...this.restingOn(note, place, midi)]
    if (slides !== 'none' && this.isNear(i)) {
      melody = { ...melody, attack: 'slide' }
      this.spans.push({
        id: `s.${melody.id}`,
        kind: 'slide',
        from: `n.${this.line[i - 1]!.note.sourceId}`,
        to: melody.id,
      })
    } else if (slides === 'below' && long && place.fret > FROM_BELOW && this.isOn(note.start, 'strong')) {
      const from = { string: place.string, fret: place.fret - FROM_BELOW }
      melody = { ...melody, attack: 'slide', graces: [{ place: from, left: BAR_FINGER, attack: 'pluck' }] }
    }
    const second = double === 'all' || (double === 'beats' && this.isOn(note.start, 'beats'))
    const plucked = melody.attack !== 'slide' || melody.graces !== undefined
    return second && plucked ? [melody, ...this.across(note, place, midi)] : [melody]
  }

  /** True where the bar stays on its string and slides a little, off the beat or to a longer note. */
  private isNear(i: number): boolean {
    const [from, to] = [this.places[i - 1], this.places[i]!]
    const before = this.line[i - 1]
    const here = this.line[i]!
    if (!from || !before || from.string !== to.string || from.fret === 0 || to.fret === 0) return false
    if (before.note.start + before.note.duration !== here.note.start || from.fret === to.fret) return false
    const entered = this.plan.junctions.some((j) => j.to === here.note.measure)
    if (entered && here.note.measure !== before.note.measure) return false
    return (
      Math.abs(from.fret - to.fret) <= FARTHEST &&
      (!this.isOn(here.note.start, 'beats') || here.seconds >= LONG_S)
    )
  }

  private isOn(at: Ticks, grid: 'beats' | 'strong'): boolean {
    const m = measureAt(this.plan.timeline, at)
    const measure = this.tune.measures[m]!
    const within = inFullMeasure(measure, at - this.plan.timeline.starts[m]!)
    return (grid === 'beats' ? beatStarts(measure.metre) : strongBeats(measure.metre)).includes(within)
  }

  /** A held major third of its chord is played pure: the bar stands a little before the fret. */
  private pure(place: Place, midi: number, at: Ticks, seconds: number): Place {
    const chord = this.plan.harmony[segmentAt(this.plan.harmony, at)]?.sounding
    const third = chord && chord.intervals.includes(4) && mod12(midi - pitchClass(chord.root)) === 4
    return third && place.fret > 0 && seconds >= LONG_S ? { ...place, offsetCents: PURE_THIRD } : place
  }

  /** A chord tone on the string below at the same fret, under the melody. */
  private across({ start, duration, sourceId }: MelodyNote, place: Place, midi: number): Unpicked[] {
    const chord = this.plan.harmony[segmentAt(this.plan.harmony, start)]?.sounding
    const string = place.string + 1
    if (!chord || string > Math.min(4, this.setup.instrument.strings)) return []
    const { offsetCents: _, ...plain } = place
    const under = { ...plain, string }
    const pitch = pitchAt(this.setup, under)
    if (pitch >= midi || !chordPitchClasses(chord).includes(mod12(pitch))) return []
    return [
      {
        ...this.note(start, duration, under, `h.${sourceId}`),
        role: 'harmony',
        notationVoice: 2,
      },
    ]
  }

  /** The chord under the last note: straight across the strings below it, as many as the fingers pluck. */
  private restingOn({ start, duration, sourceId }: MelodyNote, place: Place, midi: number): Unpicked[] {
    const chord = this.plan.harmony[segmentAt(this.plan.harmony, start)]?.sounding
    if (!chord) return []
    const tones = chordPitchClasses(chord)
    const { strings } = this.setup.instrument
    const { offsetCents: _, ...plain } = place
    const below = Array.from({ length: strings - place.string }, (_, k) => ({
      ...plain,
      string: place.string + 1 + k,
    }))
    const across = below.filter(
      (p) => pitchAt(this.setup, p) < midi && tones.includes(mod12(pitchAt(this.setup, p))),
    )
    const root = across.findLast((p) => mod12(pitchAt(this.setup, p)) === pitchClass(chord.root))
    const upper = across.filter((p) => !root || p.string < root.string).slice(0, MOST_UNDER - (root ? 1 : 0))
    return [...upper, ...(root ? [root] : [])].map((p, k) => ({
      ...this.note(start, duration, p, `h.${sourceId}.${k}`),
      role: 'harmony',
      notationVoice: 2,
    }))
  }

  /** Open basses of the chord under the melody: the root where it lies open, else another tone. */
  private bassesIn(m: number, onsets: ReadonlyMap<Ticks, readonly Unpicked[]>): Unpicked[] {
    const { bass } = this.level(m)
    if (bass === 'none') return []
    const measure = this.tune.measures[m]!
    const from = this.plan.timeline.starts[m]!
    const grid = bass === 'beats' ? beatStarts(measure.metre) : strongBeats(measure.metre)
    const times = grid.map((t) => t - missingHead(measure)).filter((t) => t >= 0 && t < measure.length)
    return times.flatMap((t, k): Unpicked[] => {
      const at = from + t
      // Where the tune comes to rest its chord is struck once.
      if (at >= this.rest) return []
      const chord = this.plan.harmony[segmentAt(this.plan.harmony, at)]?.sounding
      if (!chord) return []
      const used = new Set((onsets.get(at) ?? []).map((n) => n.place.string))
      const tones = chordPitchClasses(chord)
      const { strings } = this.setup.instrument
      const candidates = [strings, strings - 1, strings - 2]
        .filter((s) => s >= 4 && !used.has(s))
        .map((string) => ({ string, pc: mod12(openPitch(this.setup, string)) }))
        .filter((c) => tones.includes(c.pc))
      const root = candidates.find((c) => c.pc === pitchClass(chord.root)) ?? candidates[0]
      const until = Math.min(times[k + 1] ?? measure.length, measure.length)
      return root
        ? [
            {
              ...this.note(at, until - t, { string: root.string, fret: 0 }, `b.${measure.id}.${t}`),
              role: 'bass',
              notationVoice: 2,
            },
          ]
        : []
    })
  }

  /** Plucked by the school's hand; what is reached by sliding takes no stroke. */
  private picked(onsets: readonly (readonly Unpicked[])[]): TabNote[] {
    const struck = onsets.map((notes) => notes.filter((n) => n.attack !== 'slide' || n.graces))
    const some = struck.filter((notes) => notes.length > 0)
    const signs = assignPicking(
      pickedLine(
        some.map((notes) => {
          const at = ticksAt(this.plan.timeline, notes[0]!.pos)
          return { notes, at, measure: measureAt(this.plan.timeline, at) }
        }),
        this.tune.measures,
        this.plan,
      ),
      pickingHand('bottleneck', USUAL_SCHOOL, this.setup),
    )
    const signOf = new Map(some.flatMap((notes, k) => notes.map((n, i) => [n.id, signs[k]![i]!] as const)))
    return onsets.flatMap((notes) => notes.map((n) => ({ ...n, right: signOf.get(n.id) ?? 'none' })))
  }

  /** The bar lies where the melody is; over open strings it is lifted. */
  private gripsAt(times: readonly Ticks[], onsets: ReadonlyMap<Ticks, readonly Unpicked[]>): Grip[] {
    const end = this.plan.timeline.length
    let bar: readonly PressedPlace[] = []
    return times.map((at, i): Grip => {
      const notes = knownIn(onsets, at)
      const melody = notes.some((n) => n.role === 'melody')
      if (melody)
        bar = notes.flatMap(({ place, left }): PressedPlace[] =>
          left === BAR_FINGER ? [{ string: place.string, fret: place.fret, finger: BAR_FINGER }] : [],
        )
      const pos = this.pos(at)
      return {
        id: `g.${pos.measure}.${pos.tick}`,
        pos,
        until: this.pos(Math.min(times[i + 1] ?? end, end - 1)),
        pressed: bar,
        position: Math.max(1, bar[0]?.fret ?? 1),
        costs: [],
      }
    })
  }
}
