import { ticksAt, type Timeline } from '../form/timeline.ts'
import {
  isArrival,
  USUAL_ORNAMENT,
  type Arrival,
  type Grip,
  type Lock,
  type Ornament,
  type Region,
  type Span,
  type TabNote,
} from '../model/arrangement.ts'
import type { Id } from '../model/ids.ts'
import type { TuneDoc, TuneEvent } from '../model/tune.ts'
import { openPitch, pitchAt, type Setup } from '../neck/setup.ts'
import type { LeftFinger } from '../neck/hand.ts'
import { scaleOf, type Key } from '../pitch/key.ts'
import { mod12 } from '../pitch/pitch.ts'
import { beatStarts, missingHead, strongBeats } from '../time/metre.ts'
import type { Ticks } from '../time/ticks.ts'
import { isTouched, mayLead, reachedBy } from './arrival.ts'
import { bendableBy, bentGrip } from './bendRoom.ts'
import { graceChain } from './graceChain.ts'
import { GRACE_S } from './graceTime.ts'
import { allPressed } from './handRoom.ts'
import { heldByOther, otherFingers } from './otherFinger.ts'
import { sourceGraces } from './sourceOrnaments.ts'

/** A note before it is known how the picking hand sounds it. */
export type Unpicked = Omit<TabNote, 'right'>

/** What of a plan the pass looks at. */
export interface OrnamentPlan {
  readonly timeline: Timeline
  readonly keys: readonly Key[]
  readonly transposed: number
  readonly regions: readonly (Region | undefined)[]
  readonly junctions: readonly { readonly to: number }[]
  readonly follows: readonly boolean[]
  readonly secondsBetween: (from: Ticks, to: Ticks) => number
}

/** An ornament of the source, or a way to sound a note that was asked for, that is not played. `measure` is an index. */
export interface LeftOrnament {
  readonly measure: number
  readonly tick: Ticks
  readonly reason: 'noRoom' | 'tooFast' | 'none' | 'notPossible' | 'noBend'
}

export interface Articulated {
  readonly notes: readonly Unpicked[]
  readonly grips: readonly Grip[]
  readonly spans: readonly Span[]
  readonly left: readonly LeftOrnament[]
}

/** Seconds that a note keeps at least behind its short notes. Common practice, no source. */
const LEAST_LEFT_S = 0.09

/** Seconds between two notes that a slur may join unasked: slower ones ring better plucked. No source. */
const SLUR_S = { least: 0.09, most: 0.42 }

/** A note of this many seconds may get a short one before it at the fullest density. No source. */
const GRACED_S = 0.5

/** A stopped note of this many seconds and more trembles at the fullest density. No source. */
const VIBRATO_S = 0.9

/** Semitones that an unasked slur spans at most, by density. */
const SPANS: Readonly<Record<Ornament, number>> = { 0: 0, 1: 0, 2: 2, 3: 4 }

/**
 * Decides which notes of the melody the fretting hand sounds alone: grace notes, signs and slurs of the source, slurs
 * where line, tempo and hand allow them at the region's density, and what the teacher locked. What would break a
 * precondition (a pull-off without its target down, a hammer-on that lets its lower finger go) is never written.
 */
export function articulate(
  tune: TuneDoc,
  setup: Setup,
  plan: OrnamentPlan,
  layer: { readonly notes: readonly Unpicked[]; readonly grips: readonly Grip[] },
  locks: readonly Lock[],
): Articulated {
  const run = new Articulation(tune, setup, plan, layer, locks)
  run.bends()
  run.graces()
  run.slurs()
  run.vibrato()
  return run.result()
}

class Articulation {
  private readonly notes: Unpicked[]
  private readonly grips: Grip[]
  private readonly gripStarts: readonly Ticks[]
  private readonly spans: Span[] = []
  private readonly left: LeftOrnament[] = []
  private readonly melody: readonly number[]
  private readonly starts: readonly Ticks[]
  private readonly events: ReadonlyMap<Id, TuneEvent>
  private readonly wishes: ReadonlyMap<Id, unknown>
  private readonly entered: ReadonlySet<number>

  constructor(
    private readonly tune: TuneDoc,
    private readonly setup: Setup,
    private readonly plan: OrnamentPlan,
    layer: { readonly notes: readonly Unpicked[]; readonly grips: readonly Grip[] },
    locks: readonly Lock[],
  ) {
    this.notes = [...layer.notes]
    this.grips = [...layer.grips]
    this.starts = this.notes.map((n) => ticksAt(plan.timeline, n.pos))
    this.gripStarts = this.grips.map((g) => ticksAt(plan.timeline, g.pos))
    this.melody = this.notes.flatMap((n, i) => (n.role === 'melody' ? [i] : []))
    this.events = new Map(tune.events.map((e) => [e.id, e]))
    this.wishes = new Map(locks.filter((l) => l.field === 'attack').map((l) => [l.target, l.value]))
    this.entered = new Set(plan.junctions.map((j) => j.to))
  }

  result(): Articulated {
    return { notes: this.notes, grips: this.grips, spans: this.spans, left: this.left }
  }

  /** Bends that nobody asked for. */
  bends(): void {
    this.melody.forEach((i, k) => {
      const from = this.melody[k - 1]
      const note = this.notes[i]!
      if (from === undefined || this.wishes.has(note.id) || note.bend || isArrival(note.attack)) return
      const event = this.events.get(note.sourceId ?? '')
      if (event && (event.graces.length > 0 || event.ornaments.length > 0)) return
      if (this.invitesBend(from, i)) this.bend(from, i, k)
    })
  }

  /** Short notes before those that have them in the source, or get them at the fullest density. */
  graces(): void {
    for (const i of this.melody) {
      const note = this.notes[i]!
      const event = note.sourceId === undefined ? undefined : this.events.get(note.sourceId)
      if (!event || note.bend) continue
      const density = this.densityAt(i)
      const key = this.plan.keys[this.measureOf(i)]!
      const wanted = sourceGraces(event, key, this.plan.transposed)
      const pitches = wanted.length > 0 || density < 3 ? wanted : this.unaskedGrace(i, key)
      if (pitches.length === 0) continue
      if (wanted.length > 0 && density === 0) {
        this.leave(i, 'none')
        continue
      }
      const seconds = this.secondsOf(i)
      if (seconds - pitches.length * GRACE_S < LEAST_LEFT_S) {
        if (wanted.length > 0) this.leave(i, 'tooFast')
        continue
      }
      const at = this.gripAt(this.starts[i]!)
      const chain = at < 0 ? undefined : graceChain(this.setup, note, this.grips[at]!, pitches)
      if (!chain) {
        if (wanted.length > 0) this.leave(i, 'noRoom')
        continue
      }
      this.grips[at] = chain.grip
      // What the source has not may be left out.
      const graces =
        wanted.length > 0 ? chain.graces : chain.graces.map((g) => ({ ...g, optional: true as const }))
      this.notes[i] = { ...note, graces, attack: chain.attack }
    }
  }

  /** At the fullest density long stopped notes tremble. */
  vibrato(): void {
    for (const i of this.melody) {
      const note = this.notes[i]!
      if (
        this.densityAt(i) < 3 ||
        note.place.fret === 0 ||
        isTouched(note.place) ||
        note.attack === 'tremolo'
      )
        continue
      if (this.secondsOf(i) >= VIBRATO_S) this.notes[i] = { ...note, vibrato: true }
    }
  }

  /** At the fullest density a long note on a strong beat is hammered on from the step below it. */
  private unaskedGrace(i: number, key: Key): number[] {
    const note = this.notes[i]!
    const measure = this.tune.measures[this.measureOf(i)]!
    const strong = strongBeats(measure.metre).includes(note.pos.tick + missingHead(measure))
    if (!strong || note.place.fret === 0 || isTouched(note.place) || this.secondsOf(i) < GRACED_S) return []
    const scale = scaleOf(key)
    const open = openPitch(this.setup, note.place.string)
    for (let fret = note.place.fret - 1; fret >= Math.max(0, note.place.fret - 2); fret--)
      if (scale.includes(mod12(open + fret))) return [open + fret]
    return []
  }

  /** Notes that the fretting hand reaches alone from the melody note before. */
  slurs(): void {
    let last = -2
    this.melody.forEach((i, k) => {
      const from = this.melody[k - 1]
      const wish = this.wishes.get(this.notes[i]!.id)
      if (wish === 'preBend') {
        if (!this.preBend(i, k)) this.leave(i, 'noBend')
        return
      }
      if (from === undefined || wish === 'pluck' || this.notes[i]!.graces) return
      const asked = typeof wish === 'string' && isArrival(wish) ? wish : undefined
      // A string that was pushed up is still up, or let back to the note that it came from.
      if (isArrival(this.notes[i]!.attack) || this.notes[i]!.bend) return
      if (asked === 'bend') {
        if (this.bend(from, i, k)) last = k
        else this.leave(i, 'noBend')
        return
      }
      if (!asked && !this.isWanted(from, i, last === k - 1)) return
      if (this.join(from, i, asked)) last = k
      else if (asked) this.leave(i, 'notPossible')
    })
  }

  /** True where the source slurs the note, or the density lets it be. */
  private isWanted(from: number, to: number, afterSlur: boolean): boolean {
    const density = this.densityAt(to)
    const note = this.notes[to]!
    if (density === 0) return false
    if (note.sourceId !== undefined && this.events.get(note.sourceId)?.slurred) return true
    if (density === 1) return false
    const measure = this.tune.measures[this.measureOf(to)]!
    if (beatStarts(measure.metre).includes(note.pos.tick + missingHead(measure))) return false
    if (density === 2 && afterSlur) return false
    const seconds = this.plan.secondsBetween(this.starts[from]!, this.starts[to]!)
    if (seconds < SLUR_S.least || seconds > SLUR_S.most) return false
    return Math.abs(note.place.fret - this.notes[from]!.place.fret) <= SPANS[density]
  }

  /** The finger of the note before stays and pushes its string up. */
  private bend(from: number, to: number, k: number): boolean {
    const [a, b] = [this.notes[from]!, this.notes[to]!]
    if (!mayLead(a) || a.bend || !this.isHeldInto(from, to) || !this.push(to, k, a)) return false
    this.notes[to] = {
      ...b,
      place: a.place,
      left: a.left,
      attack: 'bend',
      bend: b.place.fret - a.place.fret,
    }
    this.span('bend', a, b)
    this.afterBend(to, k, b)
    return true
  }

  /** The string is pushed up before it is struck: from the pitch that the line falls to, else as far as it gives. */
  private preBend(to: number, k: number): boolean {
    const b = this.notes[to]!
    if (b.attack !== 'pluck' || isTouched(b.place)) return false
    const { string, fret } = b.place
    const next = this.notes[this.melody[k + 1] ?? -1]
    const falls = next ? pitchAt(this.setup, b.place) - pitchAt(this.setup, next.place) : 0
    const most = bendableBy(this.setup, string)
    const semitones = falls >= 1 && falls <= most ? falls : most
    const place = { string, fret: fret - semitones }
    if (semitones === 0 || !this.push(to, k, { place, left: b.left })) return false
    this.notes[to] = { ...b, place, bend: semitones }
    this.afterBend(to, k, b)
    return true
  }

  /** Up to the next melody note the grips hold the finger where it pushes; false where one of them cannot. */
  private push(to: number, k: number, stop: Pick<TabNote, 'place' | 'left'>): boolean {
    const at = this.gripAt(this.starts[to]!)
    const until = this.starts[this.melody[k + 1] ?? -1] ?? Infinity
    const moved: Grip[] = []
    for (let g = at; g >= 0 && g < this.grips.length && (g === at || this.gripStarts[g]! < until); g++) {
      const held = bentGrip(this.setup, stop, this.notes[to]!, this.grips[g]!)
      if (!held) return false
      moved.push(held)
    }
    moved.forEach((held, i) => (this.grips[at + i] = held))
    return moved.length > 0
  }

  /** After a bend the same note again is struck with the string still up; the note that it came from lets it back. */
  private afterBend(bent: number, k: number, unbent: Unpicked): void {
    const { place, left, bend } = this.notes[bent]!
    let last = bent
    for (let j = k + 1; j < this.melody.length; j++) {
      const i = this.melody[j]!
      const note = this.notes[i]!
      const wish = this.wishes.get(note.id)
      const goesOn =
        note.attack === 'pluck' &&
        !note.graces &&
        note.place.string === place.string &&
        this.starts[last]! + this.notes[last]!.dur.ticks === this.starts[i]!
      if (!goesOn) return
      if (note.place.fret === place.fret && note.left === left && wish !== 'pluck') {
        this.notes[i] = { ...note, attack: 'release' }
        this.span('release', this.notes[last]!, note)
        return
      }
      if (note.place.fret !== unbent.place.fret || !this.push(i, j, { place, left })) return
      this.notes[i] = { ...note, place, left, bend: bend! }
      last = i
    }
  }

  /** At the fullest density a short note under a long one, a step below on its string, is pushed up to it. */
  private invitesBend(from: number, to: number): boolean {
    if (this.densityAt(to) < 3 || this.secondsOf(to) < GRACED_S) return false
    const seconds = this.plan.secondsBetween(this.starts[from]!, this.starts[to]!)
    return seconds >= SLUR_S.least && seconds <= SLUR_S.most
  }

  private join(from: number, to: number, asked: Arrival | undefined): boolean {
    const [a, b] = [this.notes[from]!, this.notes[to]!]
    if (!mayLead(a) || b.attack !== 'pluck' || !this.isHeldInto(from, to)) return false
    const at = this.gripAt(this.starts[to]!)
    const before = this.gripAt(this.starts[to]! - 1)
    if (at < 0 || before < 0 || at === before) return false
    const reached = reachedBy(this.setup, a, b, this.grips[before]!, this.grips[at]!, asked)
    if (!reached || this.landsTooFast(before, reached.before)) return false
    if (reached.how === 'slide' && !asked && this.regionOf(to)?.without?.includes('slides'))
      return this.insteadOfSlide(from, to, before, at)
    this.grips[before] = reached.before
    this.grips[at] = reached.at
    this.notes[to] = { ...b, attack: reached.how }
    this.span(reached.how, a, b)
    this.together(from, to, reached.how, before, at)
    return true
  }

  /** Another finger hammers the note on, or is there before it is pulled off to; where none can, it is plucked. */
  private insteadOfSlide(from: number, to: number, before: number, at: number): boolean {
    const [a, b] = [this.notes[from]!, this.notes[to]!]
    for (const finger of otherFingers(this.setup, a.left, b.place.fret - a.place.fret)) {
      const held = heldByOther(this.setup, this.grips, at, b.place, b.left, finger)
      if (!held?.length || this.isElsewhereNear(finger, b.place.string, at, at + held.length)) continue
      const note = { ...b, left: finger }
      const reached = reachedBy(this.setup, a, note, this.grips[before]!, held[0]!)
      if (!reached || this.landsTooFast(before, reached.before)) continue
      ;[reached.at, ...held.slice(1)].forEach((grip, i) => (this.grips[at + i] = grip))
      this.grips[before] = reached.before
      this.notes[to] = { ...note, attack: reached.how }
      this.span(reached.how, a, note)
      return true
    }
    return false
  }

  /** True where a finger is on another string just before or after the grips from `first` to `end`, exclusive. */
  private isElsewhereNear(finger: LeftFinger, string: number, first: number, end: number): boolean {
    const elsewhere = (g: number) =>
      allPressed(this.grips[g]!).some((p) => p.finger === finger && p.string !== string)
    for (let g = first - 1; g >= 0; g--) {
      if (this.plan.secondsBetween(this.gripStarts[g + 1]!, this.gripStarts[first]!) > JUMP_S) break
      if (elsewhere(g)) return true
    }
    for (let g = end; g < this.grips.length; g++) {
      if (this.plan.secondsBetween(this.gripStarts[end]!, this.gripStarts[g]!) > JUMP_S) break
      if (elsewhere(g)) return true
    }
    return false
  }

  /**
   * Notes struck with both that go along with the melody: slid by the same finger as far, or hammered on or pulled off by
   * fingers of their own.
   */
  private together(from: number, to: number, how: Arrival, before: number, at: number): void {
    for (const [p, q] of this.companions(from, to)) {
      const [a, b] = [this.notes[p]!, this.notes[q]!]
      if (!mayLead(a) || b.attack !== 'pluck') continue
      if (how === 'slide') {
        const frets = this.notes[to]!.place.fret - this.notes[from]!.place.fret
        if (a.left !== b.left || a.left === 0 || b.place.fret - a.place.fret !== frets) continue
      } else {
        if (!this.isHeldInto(p, q)) continue
        const reached = reachedBy(this.setup, a, b, this.grips[before]!, this.grips[at]!, how)
        if (!reached || this.landsTooFast(before, reached.before)) continue
        this.grips[before] = reached.before
        this.grips[at] = reached.at
      }
      this.notes[q] = { ...b, attack: how }
      this.span(how, a, b)
    }
  }

  /** Pairs of notes on one string, struck with the first and with the second note of the melody. */
  private companions(from: number, to: number): (readonly [number, number])[] {
    const struckWith = (i: number) =>
      this.starts.flatMap((s, k) => (s === this.starts[i]! && k !== i ? [k] : []))
    const first = struckWith(from)
    return struckWith(to).flatMap((q) => {
      const p = first.find((x) => this.notes[x]!.place.string === this.notes[q]!.place.string)
      return p === undefined ? [] : [[p, q] as const]
    })
  }

  /** The first note sounds into the second in every pass: nothing between, same string, its finger down all the while. */
  private isHeldInto(from: number, to: number): boolean {
    const [a, b] = [this.notes[from]!, this.notes[to]!]
    if (this.starts[from]! + a.dur.ticks !== this.starts[to]!) return false
    const [ma, mb] = [this.measureOf(from), this.measureOf(to)]
    if (mb !== ma && (mb !== ma + 1 || !this.plan.follows[mb] || this.entered.has(mb))) return false
    for (let k = from + 1; k < to; k++) if (this.notes[k]!.place.string === a.place.string) return false
    const [first, last] = [this.gripAt(this.starts[from]!), this.gripAt(this.starts[to]! - 1)]
    for (let g = first; g <= last; g++) {
      const down = this.grips[g]!.pressed.filter((p) => p.string === a.place.string)
      if (a.left === 0 ? down.length > 0 : !down.some((p) => p.finger === a.left && p.fret === a.place.fret))
        return false
    }
    return b.place.string === a.place.string
  }

  /** True where a finger that must be ready would jump there from elsewhere in no time. */
  private landsTooFast(index: number, grip: Grip): boolean {
    const added = (grip.ready ?? []).filter((p) => !this.grips[index]!.ready?.includes(p))
    const start = this.gripStarts[index]!
    return added.some((p) => {
      for (let g = index - 1; g >= 0; g--) {
        if (this.plan.secondsBetween(this.gripStarts[g + 1]!, start) > JUMP_S) return false
        if (allPressed(this.grips[g]!).some((q) => q.finger === p.finger && q.string !== p.string))
          return true
      }
      return false
    })
  }

  private span(kind: Span['kind'], from: Unpicked, to: Unpicked): void {
    this.spans.push({ id: `s.${to.id}`, kind, from: from.id, to: to.id })
  }

  private densityAt(i: number): Ornament {
    return this.regionOf(i)?.ornament ?? USUAL_ORNAMENT
  }

  private regionOf(i: number): Region | undefined {
    return this.plan.regions[this.measureOf(i)]
  }

  private measureOf(i: number): number {
    return this.plan.timeline.indexOf.get(this.notes[i]!.pos.measure)!
  }

  private secondsOf(i: number): number {
    return this.plan.secondsBetween(this.starts[i]!, this.starts[i]! + this.notes[i]!.dur.ticks)
  }

  private leave(i: number, reason: LeftOrnament['reason']): void {
    this.left.push({ measure: this.measureOf(i), tick: this.notes[i]!.pos.tick, reason })
  }

  /** Index of the grip that holds at a time; −1 before the first. */
  private gripAt(at: Ticks): number {
    let low = 0
    let high = this.gripStarts.length
    while (low < high) {
      const mid = (low + high) >> 1
      if (this.gripStarts[mid]! <= at) low = mid + 1
      else high = mid
    }
    return low - 1
  }
}

/** Seconds under which a finger is not asked to be ready on another string. */
const JUMP_S = 0.15
