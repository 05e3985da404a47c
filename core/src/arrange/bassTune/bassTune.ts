import type { SegmentShape } from '../accompany/progressionShapes.ts'
import { regionShapes } from '../accompany/regionShapes.ts'
import { heldShapesFor } from '../../chords/textbook.ts'
import type { Region } from '../../document/arrangement.ts'
import { durationOf } from '../../document/durationOf.ts'
import type { MelodyNote } from '../../document/form/timeline.ts'
import { posAt } from '../../document/form/timeline.ts'
import { bassNoteId, chordNoteId, melodyNoteId } from '../../document/noteIds.ts'
import { ornamentOf } from '../../document/regions.ts'
import { USUAL_SCHOOL, type School } from '../../document/school.ts'
import type { Level } from '../../document/style.ts'
import { BACKING_VOICE, type Role, type TabNote } from '../../document/tab.ts'
import type { Pos, TuneDoc } from '../../document/tune.ts'
import { assignPicking } from '../../hand/picking/assignPicking.ts'
import type { Stroke } from '../../instrument/hand.ts'
import type { Place, Setup } from '../../instrument/setup.ts'
import { present } from '../../invariant.ts'
import { bassPitchClass } from '../../music/harmony/chordSymbol.ts'
import { midiOf, mod12 } from '../../music/pitch/pitch.ts'
import { beatLength, beatStarts, inFullMeasure, strongBeats } from '../../music/time/metre.ts'
import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { endingAt, endingsOf, type Ending } from '../plan/endings.ts'
import { segmentAt } from '../plan/harmonyLine.ts'
import { pickedLine, pickingHand } from '../plan/pickingOf.ts'
import type { Plan } from '../plan/plan.ts'
import { OWN_DENSITY } from '../ornament/idioms.ts'
import { above, chordAround, LEAST_SWEPT, rootUnder } from './aroundNote.ts'
import { brushTimes } from './brushTimes.ts'
import { hammeredFrom } from './hammered.ts'
import { BASS_TUNE_LEVELS, type BassTuneRules } from './levels.ts'
import { lowPlace } from './lowPlace.ts'

/** Strings of a stroke down and of one up. Common practice, no source. */
const SWEPT: Readonly<Record<Stroke, number>> = { down: 3, up: 2 }

/** A chord with a note takes the hand this time (seconds) to the next one. Common practice, no source. */
const LEAST_STRUCK_S = 0.13

/** From this level on the last note is struck with its chord. */
const CHORD_AT_END: Level = 2

type Unpicked = Omit<TabNote, 'left' | 'right'>

/** What is struck at one moment. */
interface Onset {
  readonly at: Ticks
  readonly measure: number
  readonly notes: readonly Unpicked[]
  readonly stroke?: Stroke
}

/**
 * The measures whose tune lies in the bass: each note of it by the thumb or the pick on a low string, in the shape of its chord where
 * the shape has it, and brushes over the higher strings of the shape between the notes. The fretting hand is found afterwards,
 * as it is for all places that are given.
 * @returns notes without left-hand fingers, in order of time
 */
export function bassTune(tune: TuneDoc, setup: Setup, plan: Plan, regions: readonly Region[]): TabNote[] {
  if (plan.low.length === 0) return []
  const endings = endingsOf(tune, plan.timeline, plan.low, plan.harmony, plan.keys)
  return regions.flatMap((region) =>
    region.style === 'bass-tune' && !region.given
      ? new Section(tune, setup, plan, region, endings).write()
      : [],
  )
}

/** The tune is the thumb's, on whatever string it lies. */
const asBass = (onset: Onset): Onset => ({
  ...onset,
  notes: onset.notes.map((n) => (n.role === 'melody' ? { ...n, role: 'bass' } : n)),
})

class Section {
  private readonly school: School
  private readonly melody: readonly MelodyNote[]
  private readonly shapes: ReadonlyMap<number, SegmentShape>
  private readonly rules: BassTuneRules
  private readonly first: number
  private readonly last: number

  constructor(
    private readonly tune: TuneDoc,
    private readonly setup: Setup,
    private readonly plan: Plan,
    private readonly region: Region,
    private readonly endings: readonly Ending[],
  ) {
    const { timeline } = plan
    this.school = region.school ?? USUAL_SCHOOL
    this.first = timeline.indexOf.get(region.from) ?? 0
    this.last = timeline.indexOf.get(region.to) ?? tune.measures.length - 1
    this.melody = plan.low.filter((n) => plan.regions[n.measure] === region)
    const from = timeline.starts[this.first]!
    const to = timeline.starts[this.last]! + tune.measures[this.last]!.length
    this.shapes = regionShapes(setup, plan, region, this.school, { from, to }, false).shapes
    this.rules = BASS_TUNE_LEVELS[region.level]
  }

  write(): TabNote[] {
    const places = new Map(this.melody.map((n) => [n, this.placeOf(n)] as const))
    const brushes = this.brushes(places)
    const roomy = new Set(brushes.map((b) => b.measure))
    const onsets = [...this.tuneOnsets(places, roomy), ...brushes].sort((a, b) => a.at - b.at)
    const lasting = this.cutWhereStruckAgain(onsets)
    const hand = pickingHand('bass-tune', this.school, this.setup)
    const signs = assignPicking(pickedLine(lasting.map(asBass), this.tune.measures, this.plan), hand)
    return lasting.flatMap((o, i) =>
      o.notes.map((n, k): TabNote => ({
        ...n,
        left: 0,
        right: n.attack === 'brush' ? present(o.stroke) : signs[i]![k]!,
      })),
    )
  }

  private shapeAt(at: Ticks): SegmentShape | undefined {
    return this.shapes.get(segmentAt(this.plan.harmony, at))
  }

  private placeOf(note: MelodyNote): Place | undefined {
    const midi = midiOf(note.pitch) + this.plan.transposed + (note.moved ?? 0)
    return lowPlace(this.setup, midi, this.shapeAt(note.start)?.frets)
  }

  private pos(at: Ticks): Pos {
    return posAt(this.tune.measures, this.plan.timeline, at)
  }

  /** The notes of the tune: hammered on, or struck with their chord, where the level does so; the last one with its chord. */
  private tuneOnsets(
    places: ReadonlyMap<MelodyNote, Place | undefined>,
    roomy: ReadonlySet<number>,
  ): Onset[] {
    return this.melody.flatMap((note, i): Onset[] => {
      const place = places.get(note)
      if (!place) return []
      const under = this.chordWith(note, place, !roomy.has(note.measure))
      const before = this.melody[i - 1]
      const grace =
        under.length === 0 && this.isHammered(note)
          ? hammeredFrom(
              this.setup,
              this.plan.keys[note.measure]!,
              place,
              before && { note: before, place: places.get(before) },
              note,
              this.secondsOf(note),
            )
          : undefined
      const melody: Unpicked = {
        id: melodyNoteId(note.sourceId),
        sourceId: note.sourceId,
        pos: this.pos(note.start),
        dur: durationOf(note.duration),
        role: 'melody',
        notationVoice: 1,
        place,
        attack: grace ? 'hammer' : 'pluck',
        ...(grace ? { graces: [grace] } : {}),
        optional: false,
      }
      return [
        {
          at: note.start,
          measure: note.measure,
          notes: [melody, ...this.sounded(under, note.start, note.duration, 'pluck')],
        },
      ]
    })
  }

  private secondsOf(note: MelodyNote): number {
    return this.plan.secondsBetween(note.start, note.start + note.duration)
  }

  /** True for a note on a beat, a beat long and more, that the level hammers on. */
  private isHammered(note: MelodyNote): boolean {
    const measure = this.tune.measures[note.measure]!
    const within = inFullMeasure(measure, note.start - this.plan.timeline.starts[note.measure]!)
    const { hammers } = this.rules
    return (
      ornamentOf(this.region) >= OWN_DENSITY &&
      note.duration >= beatLength(measure.metre) &&
      (hammers === 'changes'
        ? within === 0 || this.isChange(note)
        : hammers === 'beats' && beatStarts(measure.metre).includes(within))
    )
  }

  private isChange(note: MelodyNote): boolean {
    return this.plan.harmony[segmentAt(this.plan.harmony, note.start)]?.start === note.start
  }

  /**
   * What is struck with a note: the last one has its chord, and so have those that a chord comes with where the level is full, and
   * the stronger ones of a measure that leaves no room for brushes.
   */
  private chordWith(note: MelodyNote, place: Place, crowded: boolean): readonly Place[] {
    const rests = this.endings.some((e) => e.at === note.start)
    if (rests) return this.region.level >= CHORD_AT_END ? this.lastChord(note, place) : []
    const measure = this.tune.measures[note.measure]!
    const isFull = this.rules.full && this.isChange(note) && note.duration >= beatLength(measure.metre)
    const shape = this.shapeAt(note.start)
    const isStruck = isFull || (crowded && this.isStrong(note))
    return isStruck && shape ? above(this.setup, shape, place, SWEPT.down) : []
  }

  /** True for a note that a crowded measure of this level strikes with its chord, where the tempo leaves the hand the time. */
  private isStrong(note: MelodyNote): boolean {
    const measure = this.tune.measures[note.measure]!
    const within = inFullMeasure(measure, note.start - this.plan.timeline.starts[note.measure]!)
    const { crowded } = this.rules
    if (crowded === 'never' || this.secondsOf(note) < LEAST_STRUCK_S) return false
    if (crowded === 'one') return within === 0
    const beats = beatStarts(measure.metre)
    if (crowded === 'beats') return beats.includes(within)
    const strong = strongBeats(measure.metre)
    // Where one beat alone is strong, the last one leads to the next.
    return strong.includes(within) || (strong.length === 1 && within === beats.at(-1))
  }

  /** The chord around the last note. */
  private lastChord(note: MelodyNote, place: Place): readonly Place[] {
    const chord = this.plan.harmony[segmentAt(this.plan.harmony, note.start)]?.shape
    const own = this.shapeAt(note.start)
    if (!chord || !own) return []
    const root = mod12(bassPitchClass(chord) + this.setup.capo[0]!)
    const others = heldShapesFor(chord, this.setup, this.plan.pins)
    return chordAround(this.setup, [own, ...others], place, root, SWEPT.down)
  }

  /** Brushes between the notes, and root basses under long ones. */
  private brushes(places: ReadonlyMap<MelodyNote, Place | undefined>): Onset[] {
    const { timeline, secondsBetween } = this.plan
    const result: Onset[] = []
    for (let m = this.first; m <= this.last; m++) {
      // A locked measure keeps what it was, whatever its section plays.
      if (this.plan.regions[m] !== this.region) continue
      const measure = this.tune.measures[m]!
      const times = brushTimes(
        measure,
        timeline.starts[m]!,
        this.melody,
        this.rules,
        timeline.length,
        secondsBetween,
      )
      for (const { at, until, stroke, bass } of times) {
        if (endingAt(this.endings, at)) continue
        const note = this.melody[firstAtOrAfter(this.melody, at) - 1]
        const shape = this.shapeAt(at)
        if (!note || !shape) continue
        const place = places.get(note)
        const sounds = place && note.start + note.duration > at ? place : undefined
        const low = bass ? rootUnder(this.setup, shape, sounds) : undefined
        if (low) {
          result.push({
            at,
            measure: m,
            notes: [this.noteOf(low, at, until - at, 'bass', 'pluck', bassNoteId(this.pos(at)))],
          })
          continue
        }
        const swept = above(this.setup, shape, sounds, SWEPT[stroke])
        if (swept.length >= LEAST_SWEPT)
          result.push({ at, measure: m, notes: this.sounded(swept, at, until - at, 'brush'), stroke })
      }
    }
    return result
  }

  private sounded(places: readonly Place[], at: Ticks, ticks: Ticks, attack: 'pluck' | 'brush'): Unpicked[] {
    const pos = this.pos(at)
    return places.map((place, nth) => this.noteOf(place, at, ticks, 'harmony', attack, chordNoteId(pos, nth)))
  }

  private noteOf(
    place: Place,
    at: Ticks,
    ticks: Ticks,
    role: Exclude<Role, 'melody'>,
    attack: 'pluck' | 'brush',
    id: string,
  ): Unpicked {
    return {
      id,
      pos: this.pos(at),
      dur: durationOf(ticks),
      role,
      notationVoice: BACKING_VOICE,
      place,
      attack,
      optional: false,
    }
  }

  /** What accompanies ends where its string, or the tune's next note, is struck. */
  private cutWhereStruckAgain(onsets: readonly Onset[]): Onset[] {
    return onsets.map((o, i) => {
      const next = onsets[i + 1]?.at ?? this.plan.timeline.length
      return {
        ...o,
        notes: o.notes.map((n) =>
          n.role === 'melody' ? n : { ...n, dur: durationOf(Math.min(n.dur.ticks, next - o.at)) },
        ),
      }
    })
  }
}
