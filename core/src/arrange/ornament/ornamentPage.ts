import { knownIn } from '../../invariant.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { Region } from '../../document/arrangement.ts'
import { isLockOf, type AskedArticulation, type Lock } from '../../document/locks.ts'
import { ornamentOf } from '../../document/regions.ts'
import type { Ornament } from '../../document/style.ts'
import type { Grip, Span, TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import type { TuneDoc, TuneEvent } from '../../document/tune.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { Key } from '../../music/pitch/key.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { ChordReading } from '../../music/harmony/chordSymbol.ts'
import { allPressed } from './handRoom.ts'
import { HOP_LIMIT_S } from '../../instrument/handLimits.ts'

/** A note before it is known how the picking hand sounds it. */
export type Unpicked = Omit<TabNote, 'right'>

/** What of a plan the pass looks at. */
export interface OrnamentPlan {
  readonly timeline: Timeline
  readonly keys: readonly Key[]
  /** Chords as they sound, in order of time. */
  readonly harmony: readonly {
    readonly start: Ticks
    readonly end: Ticks
    readonly sounding?: ChordReading
  }[]
  /** Where the music comes to rest. */
  readonly endings: readonly { readonly at: Ticks; readonly until: Ticks }[]
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

/** A page that is being ornamented: what stands on it, and what the passes over it ask of it. Notes go by index. */
export class OrnamentPage {
  readonly notes: Unpicked[]
  readonly grips: Grip[]
  readonly gripStarts: readonly Ticks[]
  readonly spans: Span[] = []
  readonly left: LeftOrnament[] = []
  /** Indices of the melody's notes. */
  readonly melody: readonly number[]
  readonly starts: readonly Ticks[]
  readonly events: ReadonlyMap<Id, TuneEvent>
  /** How notes were asked to be sounded. */
  readonly asked: ReadonlyMap<Id, AskedArticulation>
  /** Measures that are also entered from elsewhere than the one before. */
  readonly entered: ReadonlySet<number>

  constructor(
    readonly tune: TuneDoc,
    readonly setup: Setup,
    readonly plan: OrnamentPlan,
    layer: { readonly notes: readonly Unpicked[]; readonly grips: readonly Grip[] },
    locks: readonly Lock[],
  ) {
    this.notes = [...layer.notes]
    this.grips = [...layer.grips]
    this.starts = this.notes.map((n) => ticksAt(plan.timeline, n.pos))
    this.gripStarts = this.grips.map((g) => ticksAt(plan.timeline, g.pos))
    this.melody = this.notes.flatMap((n, i) => (n.role === 'melody' ? [i] : []))
    this.events = new Map(tune.events.map((e) => [e.id, e]))
    this.asked = new Map(locks.filter(isLockOf('attack')).map((l) => [l.target, l.value]))
    this.entered = new Set(plan.junctions.map((j) => j.to))
  }

  /** The first note sounds into the second in every pass: nothing between, same string, its finger down all the while. */
  isHeldInto(from: number, to: number): boolean {
    const [a, b] = [this.notes[from]!, this.notes[to]!]
    if (this.starts[from]! + a.dur.ticks !== this.starts[to]!) return false
    const [ma, mb] = [this.measureOf(from), this.measureOf(to)]
    if (mb !== ma && (mb !== ma + 1 || !this.plan.follows[mb] || this.entered.has(mb))) return false
    for (let k = from + 1; k < to; k++) if (this.notes[k]!.place.string === a.place.string) return false
    const [first, last] = [this.gripAt(this.starts[from]!), this.gripAt(this.starts[to] - 1)]
    for (let g = first; g <= last; g++) {
      const down = this.grips[g]!.pressed.filter((p) => p.string === a.place.string)
      if (a.left === 0 ? down.length > 0 : !down.some((p) => p.finger === a.left && p.fret === a.place.fret))
        return false
    }
    return b.place.string === a.place.string
  }

  /** True where a finger that must be ready would jump there from elsewhere in no time. */
  landsTooFast(index: number, grip: Grip): boolean {
    const added = (grip.ready ?? []).filter((p) => !this.grips[index]!.ready?.includes(p))
    const start = this.gripStarts[index]!
    return added.some((p) => {
      for (let g = index - 1; g >= 0; g--) {
        if (this.plan.secondsBetween(this.gripStarts[g + 1]!, start) > HOP_LIMIT_S) return false
        if (allPressed(this.grips[g]!).some((q) => q.finger === p.finger && q.string !== p.string))
          return true
      }
      return false
    })
  }

  /** True where a finger is on another string just before or after the grips from `first` to `end`, exclusive. */
  isElsewhereNear(finger: LeftFinger, string: number, first: number, end: number): boolean {
    const elsewhere = (g: number) =>
      allPressed(this.grips[g]!).some((p) => p.finger === finger && p.string !== string)
    for (let g = first - 1; g >= 0; g--) {
      if (this.plan.secondsBetween(this.gripStarts[g + 1]!, this.gripStarts[first]!) > HOP_LIMIT_S) break
      if (elsewhere(g)) return true
    }
    for (let g = end; g < this.grips.length; g++) {
      if (this.plan.secondsBetween(this.gripStarts[end]!, this.gripStarts[g]!) > HOP_LIMIT_S) break
      if (elsewhere(g)) return true
    }
    return false
  }

  span(kind: Span['kind'], from: Unpicked, to: Unpicked): void {
    this.spans.push({ id: `s.${to.id}`, kind, from: from.id, to: to.id })
  }

  densityAt(i: number): Ornament {
    const region = this.regionOf(i)
    return region ? ornamentOf(region) : 1
  }

  regionOf(i: number): Region | undefined {
    return this.plan.regions[this.measureOf(i)]
  }

  measureOf(i: number): number {
    return knownIn(this.plan.timeline.indexOf, this.notes[i]!.pos.measure)
  }

  secondsOf(i: number): number {
    return this.plan.secondsBetween(this.starts[i]!, this.starts[i]! + this.notes[i]!.dur.ticks)
  }

  leave(i: number, reason: LeftOrnament['reason']): void {
    this.left.push({ measure: this.measureOf(i), tick: this.notes[i]!.pos.tick, reason })
  }

  /** Index of the grip that holds at a time; −1 before the first. */
  gripAt(at: Ticks): number {
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
