import { knownIn } from '../../invariant.ts'
import { cheapestChain } from '../../cheapestChain.ts'
import { finish } from '../../turns.ts'
import { melodyOf, timelineOf, type MelodyNote, type Timeline } from '../../document/form/timeline.ts'
import type { ChordMark, Measure, TuneDoc } from '../../document/tune.ts'
import { midiOf, mod12, pitchClass, type PitchClass } from '../../music/pitch/pitch.ts'
import { beatLength, isCompound, strongBeats } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { chordPitchClasses, chordText } from '../../music/harmony/chordSymbol.ts'
import { MANNERS, paletteOf, type Manner, type PaletteChord } from './harmonyPalette.ts'

/** A proposed harmony for a whole tune. Every mark says that it is a suggestion. */
export interface HarmonyCandidate {
  readonly manner: Manner
  readonly chords: readonly ChordMark[]
  /** Share of the melody's time whose note belongs to its chord. */
  readonly holds: number
}

/** Three harmonies for a bare melody, plainest first, no two alike. */
export function harmonise(tune: TuneDoc): HarmonyCandidate[] {
  const found: HarmonyCandidate[] = []
  for (const manner of MANNERS) {
    const others = found.map((f) => f.chords)
    let candidate = harmoniseIn(tune, manner)
    for (let nudge = 1; nudge <= MOST_NUDGES && others.some((o) => sameChords(o, candidate.chords)); nudge++)
      candidate = harmoniseIn(tune, manner, { others, price: nudge * 0.35 })
    found.push(candidate)
  }
  return found
}

/** How often a candidate that came out like another is asked to differ, a little more firmly each time. */
const MOST_NUDGES = 8

const sameChords = (a: readonly ChordMark[], b: readonly ChordMark[]) =>
  a.length === b.length &&
  a.every(
    (m, i) =>
      m.symbol === b[i]!.symbol && m.pos.measure === b[i]!.pos.measure && m.pos.tick === b[i]!.pos.tick,
  )

/** Other harmonies from which this one is to differ, at a price for each place where it does not. */
interface Unlike {
  readonly others: readonly (readonly ChordMark[])[]
  readonly price: number
}

/**
 * A harmony of the melody in one manner: the cheapest sequence of the palette's chords over the metre's slots, by
 * dynamic programming. It weighs how much of the melody each chord holds (long notes and strong beats most), how chords
 * follow one another, cadences at the ends of phrases, the tonic at the start and at the end.
 */
export function harmoniseIn(tune: TuneDoc, manner: Manner, unlike?: Unlike): HarmonyCandidate {
  const timeline = timelineOf(tune.measures)
  const melody = melodyOf(tune, timeline)
  const slots = slotsOf(tune, timeline, melody, manner)
  const avoided = (unlike?.others ?? []).map((marks) => symbolsBySlot(slots, marks, timeline))
  const palettes = new Map<string, PaletteChord[]>()
  const paletteAt = (slot: Slot) => {
    const { key } = tune.measures[slot.measure]!
    const id = `${key.fifths}${key.mode}`
    const known = palettes.get(id) ?? paletteOf(key, manner)
    palettes.set(id, known)
    return known
  }
  const layers = slots.map((slot, s) =>
    paletteAt(slot).map((c) => {
      const same = avoided.filter((symbols) => symbols[s] === chordText(c.chord)).length
      return fitCost(slot, c) + same * (unlike?.price ?? 0)
    }),
  )
  const { choice: path } = finish(
    cheapestChain(
      layers.map((prices) => ({ prices })),
      (s) => {
        const [before, here, slot] = [paletteAt(slots[s - 1]!), paletteAt(slots[s]!), slots[s]!]
        return (i, j) => followCost(before[i]!, here[j]!, slot, manner)
      },
      PRICES.resolved + PRICES.fifthDown,
    ),
  )
  return { manner, chords: marksOf(tune, slots, path, paletteAt), holds: heldShare(slots, path, paletteAt) }
}

/** A stretch of the tune that gets one chord. */
interface Slot {
  readonly measure: number
  readonly start: Ticks
  readonly tick: Ticks
  readonly weights: ReadonlyMap<PitchClass, number>
  /** Time of the melody in it, by pitch class, in beats. */
  readonly beats: ReadonlyMap<PitchClass, number>
  readonly first: boolean
  readonly last: boolean
  /** Last slot before a phrase's last measure; and that measure's own slots. */
  readonly phrase: 'none' | 'before' | 'half' | 'end'
  /** True in the middle of a measure. */
  readonly weak: boolean
}

function slotsOf(tune: TuneDoc, timeline: Timeline, melody: readonly MelodyNote[], manner: Manner): Slot[] {
  const full = tune.measures.flatMap((m, i) => (isPickup(m, i) ? [] : [i]))
  const slots: Slot[] = []
  // Measures since the part began: phrases of four are counted from there.
  let inPart = 0
  full.forEach((m, nth) => {
    const measure = tune.measures[m]!
    const start = timeline.starts[m]!
    const ticks = slotTicks(measure, manner)
    const next = tune.measures[full[nth + 1] ?? -1]
    const ends = endsPart(measure, next)
    const endIsNext = next !== undefined && endsPart(next, tune.measures[full[nth + 2] ?? -1])
    ticks.forEach((tick, k) => {
      const end = ticks[k + 1] ?? measure.length
      const { weights, beats } = weigh(melody, start, tick, end, measure)
      const beforeEnd = (inPart % 4 === 2 || endIsNext) && k === ticks.length - 1
      slots.push({
        measure: m,
        start: start + tick,
        tick,
        weights,
        beats,
        first: slots.length === 0,
        last: nth === full.length - 1 && k === ticks.length - 1,
        phrase: ends
          ? 'end'
          : inPart % 4 === 3
            ? inPart % 8 === 3
              ? 'half'
              : 'end'
            : beforeEnd
              ? 'before'
              : 'none',
        weak: k > 0,
      })
    })
    inPart = ends ? 0 : inPart + 1
  })
  return slots
}

const isPickup = (measure: Measure, i: number) => i === 0 && measure.length < measure.nominal
const endsPart = (measure: Measure, next: Measure | undefined) =>
  !next ||
  measure.barline === 'final' ||
  measure.barline === 'double' ||
  measure.repeatEnd > 1 ||
  next.repeatStart

/** Harmonic rhythm: a chord a measure, or one on each strong beat where the harmony may move. */
function slotTicks(measure: Measure, manner: Manner): Ticks[] {
  if (manner === 'plain') return [0]
  return strongBeats(measure.metre).filter((t) => t < measure.length)
}

function weigh(melody: readonly MelodyNote[], start: Ticks, from: Ticks, to: Ticks, measure: Measure) {
  const beat = beatLength(measure.metre)
  const weights = new Map<PitchClass, number>()
  const beats = new Map<PitchClass, number>()
  for (const note of melody) {
    const at = Math.max(note.start, start + from)
    const length = Math.min(note.start + note.duration, start + to) - at
    if (length <= 0) continue
    const inMeasure = note.start - start
    const stress = inMeasure <= 0 ? 2 : inMeasure % beat === 0 ? (isCompound(measure.metre) ? 1.5 : 1.3) : 0.7
    const pc = mod12(midiOf(note.pitch))
    weights.set(pc, (weights.get(pc) ?? 0) + stress * (length / beat))
    beats.set(pc, (beats.get(pc) ?? 0) + length / beat)
  }
  return { weights, beats }
}

/** Prices of the harmoniser, in weighted beats of melody outside its chord. No source. */
const PRICES = {
  outside: 1.5,
  rare: 0.25,
  tonicEnds: 4,
  phraseEnd: 0.9,
  halfCadence: 0.5,
  beforeCadence: 0.5,
  changeInMeasure: 0.9,
  stay: { plain: 0, family: 0.1, moving: 0.45 },
  unresolved: 3,
  resolved: -0.8,
  fifthDown: -0.35,
  backwards: 0.5,
} as const

function fitCost(slot: Slot, { chord, degree, price }: PaletteChord): number {
  const tones = chordPitchClasses(chord)
  let cost = PRICES.rare * price
  for (const [pc, weight] of slot.weights) if (!tones.includes(pc)) cost += PRICES.outside * weight
  if ((slot.first || slot.last) && degree !== 0) cost += slot.last ? PRICES.tonicEnds * 2 : PRICES.tonicEnds
  if (slot.phrase === 'end' && degree !== 0) cost += PRICES.phraseEnd
  if (slot.phrase === 'half' && degree !== 7 && degree !== 0 && degree !== 10) cost += PRICES.halfCadence
  if (slot.phrase === 'before' && degree !== 7 && degree !== 10 && degree !== 5) cost += PRICES.beforeCadence
  return cost
}

function followCost(a: PaletteChord, b: PaletteChord, slot: Slot, manner: Manner): number {
  const same = chordText(a.chord) === chordText(b.chord)
  if (same) return PRICES.stay[manner]
  let cost = slot.weak ? PRICES.changeInMeasure * (manner === 'moving' ? 0.3 : 1) : 0
  if (a.wants !== undefined) cost += a.wants === b.degree ? PRICES.resolved : PRICES.unresolved
  if (mod12(pitchClass(a.chord.root) - pitchClass(b.chord.root)) === 7) cost += PRICES.fifthDown
  if (a.degree === 7 && b.degree === 5) cost += PRICES.backwards
  return cost
}

function marksOf(
  tune: TuneDoc,
  slots: readonly Slot[],
  path: readonly number[],
  paletteAt: (slot: Slot) => readonly PaletteChord[],
): ChordMark[] {
  const marks: ChordMark[] = []
  slots.forEach((slot, s) => {
    const { chord } = paletteAt(slot)[path[s]!]!
    const symbol = chordText(chord)
    if (marks.at(-1)?.symbol === symbol) return
    marks.push({
      id: slot.tick === 0 ? `h${slot.measure + 1}` : `h${slot.measure + 1}.${slot.tick}`,
      pos: { measure: tune.measures[slot.measure]!.id, tick: slot.tick },
      symbol,
      parsed: chord,
      origin: 'suggested',
    })
  })
  return marks
}

function heldShare(
  slots: readonly Slot[],
  path: readonly number[],
  paletteAt: (slot: Slot) => readonly PaletteChord[],
): number {
  let inside = 0
  let all = 0
  slots.forEach((slot, s) => {
    const tones = chordPitchClasses(paletteAt(slot)[path[s]!]!.chord)
    for (const [pc, beats] of slot.beats) {
      all += beats
      if (tones.includes(pc)) inside += beats
    }
  })
  return all > 0 ? inside / all : 1
}

function symbolsBySlot(slots: readonly Slot[], marks: readonly ChordMark[], timeline: Timeline): string[] {
  const starts = marks.map((m) => timeline.starts[knownIn(timeline.indexOf, m.pos.measure)]! + m.pos.tick)
  return slots.map((slot) => {
    let symbol = ''
    marks.forEach((m, i) => {
      if (starts[i]! <= slot.start) symbol = m.symbol
    })
    return symbol
  })
}
