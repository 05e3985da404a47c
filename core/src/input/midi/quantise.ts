import { knownIn } from '../../invariant.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import type { RecordedNote } from './midiVoices.ts'

/** The shortest values that a melody is drawn to: parts of a quarter. */
export const FINEST = [2, 4, 8] as const
export type Finest = (typeof FINEST)[number]

/** How recorded notes are drawn to a grid. */
export interface Quantising {
  /** Parts of a quarter that the shortest plain note takes one of. */
  readonly finest: Finest
  /** True where beats may be parted in three. */
  readonly triplets: boolean
  /** True where beats whose second half comes late are written as straight halves. */
  readonly straighten: boolean
}

export const USUAL_QUANTISING: Quantising = { finest: 4, triplets: true, straighten: true }

/** A note on the grid. */
export interface DrawnNote extends RecordedNote {
  /** Ticks by which its beginning was moved. */
  readonly moved: Ticks
}

/** What was drawn to the grid, and what was found on the way. */
export interface Quantised {
  readonly notes: readonly DrawnNote[]
  /** Beats that are parted in three. */
  readonly tripletBeats: number
  /** Where the second half of swung beats comes, as a share of the beat; absent where nothing swings. */
  readonly swing?: number
  /** Share of the notes that lay far from every place of the grid. */
  readonly loose: number
  /** Notes that were struck one after the other and fall on one place. */
  readonly together: number
}

/** What a part more costs against what it comes nearer to the notes, in shares of a quarter. No source: set on recordings of the kinds in the tests. */
const PART_PRICE = 0.006
/** Notes further apart than this are struck one after the other. */
const APART: Ticks = QUARTER / 12
/** Shares of a beat between which the second half of a swung beat comes, and beats that make a swing. */
const SWING = { from: 0.56, to: 0.72, least: 4, most: 0.7 }
/** A note further from its place than this share of the grid is loose. */
const LOOSE = 0.35
/** A gap to the next note under this share of a note is a way of playing, not a rest; and gaps under half a beat. */
const GAP = 0.34

/** Draws the notes of a voice to a grid, beat by beat: in two, four or eight, or in three, as they lie best. */
export function quantised(
  notes: readonly RecordedNote[],
  { finest, triplets, straighten }: Quantising,
): Quantised {
  const swing = straighten ? swingOf(notes) : undefined
  const straight = (at: Ticks): Ticks => {
    if (swing === undefined) return at
    const beat = Math.floor(at / QUARTER) * QUARTER
    const share = (at - beat) / QUARTER
    const even = share <= swing ? (share / swing) * 0.5 : 0.5 + ((share - swing) / (1 - swing)) * 0.5
    return beat + even * QUARTER
  }
  const even = notes.map((n) => ({ ...n, from: straight(n.from), to: straight(n.to) }))
  const byBeat = new Map<number, number[]>()
  for (const { from } of even) {
    // A note a little before a beat belongs to it.
    const beat = Math.floor((from + QUARTER / 16) / QUARTER)
    byBeat.set(beat, [...(byBeat.get(beat) ?? []), from - beat * QUARTER])
  }
  const choices = [1, 2, 4, 8]
    .filter((p) => p <= finest)
    .concat(triplets ? [3, ...(finest >= 4 ? [6] : [])] : [])
  const partsOf = new Map<number, number>()
  for (const [beat, offsets] of byBeat) partsOf.set(beat, bestParts(offsets, choices))
  const place = (at: Ticks): Ticks => {
    const beat = Math.floor((at + QUARTER / 16) / QUARTER)
    const step = QUARTER / (partsOf.get(beat) ?? finest)
    return beat * QUARTER + Math.round((at - beat * QUARTER) / step) * step
  }
  let loose = 0
  const drawn = even.map((n, i): DrawnNote => {
    const from = place(n.from)
    const beat = Math.floor((n.from + QUARTER / 16) / QUARTER)
    if (Math.abs(from - n.from) > (LOOSE * QUARTER) / (partsOf.get(beat) ?? finest)) loose++
    return { ...n, from, to: place(n.to), moved: from - notes[i]!.from }
  })
  return {
    notes: drawn,
    tripletBeats: [...partsOf.values()].filter((p) => p % 3 === 0).length,
    ...(swing === undefined ? {} : { swing }),
    loose: notes.length === 0 ? 0 : loose / notes.length,
    together: drawn.filter((n, i) => {
      const before = drawn[i - 1]
      return before !== undefined && before.from === n.from && even[i]!.from - even[i - 1]!.from > APART
    }).length,
  }
}

/** The same on the usual grid, or on the finest where only that keeps notes apart that were struck one after the other. */
export function quantisedAsUsual(
  notes: readonly RecordedNote[],
  given: Partial<Quantising>,
): { readonly quantising: Quantising; readonly drawn: Quantised } {
  const as = (finest: Finest) => {
    const quantising = { ...USUAL_QUANTISING, finest, ...given }
    return { quantising, drawn: quantised(notes, quantising) }
  }
  const usual = as(USUAL_QUANTISING.finest)
  if (usual.drawn.together === 0) return usual
  const fine = as(8)
  return fine.drawn.together < usual.drawn.together ? fine : usual
}

/** The fewest parts of a beat on which its notes lie well. */
function bestParts(offsets: readonly Ticks[], choices: readonly number[]): number {
  const costOf = (parts: number) => {
    const step = QUARTER / parts
    const off = offsets.map((o) => Math.abs(o - Math.round(o / step) * step) / QUARTER)
    const places = offsets.map((o) => Math.round(o / step))
    // Two notes that fall on one place are not told apart.
    const lost = offsets.filter((o, i) =>
      offsets.some((p, k) => k < i && places[k] === places[i] && Math.abs(p - o) > APART),
    ).length
    return off.reduce((a, b) => a + b, 0) + lost * 0.5 + PART_PRICE * parts * (parts % 3 === 0 ? 1.5 : 1)
  }
  return choices.reduce((best, parts) => (costOf(parts) < costOf(best) - 1e-9 ? parts : best))
}

/** Where the second half of beats comes, where it comes late in most beats that are halved. */
function swingOf(notes: readonly RecordedNote[]): number | undefined {
  const beats = new Map<number, number[]>()
  for (const { from } of notes) {
    const beat = Math.floor((from + QUARTER / 16) / QUARTER)
    const share = from / QUARTER - beat
    const own = beats.get(beat) ?? []
    if (own.every((s) => Math.abs(s - share) > 0.05)) own.push(share)
    beats.set(beat, own)
  }
  const offbeats = [...beats.values()].flatMap((own) => {
    const inner = own.filter((s) => s > 0.1)
    return inner.length === 1 ? inner : []
  })
  const late = offbeats.filter((s) => s >= SWING.from && s <= SWING.to)
  const even = [...beats.values()].filter((own) => own.some((s) => s > 0.28 && s < 0.4)).length
  if (late.length < SWING.least || late.length < SWING.most * offbeats.length || even > late.length / 4)
    return undefined
  return late.reduce((a, b) => a + b, 0) / late.length
}

/** Notes that sound together, as one; each ends where the next begins at the latest. */
export interface Struck {
  readonly from: Ticks
  readonly to: Ticks
  readonly midis: readonly number[]
}

/** Notes of the grid as a voice: chords joined, overlaps cut, short gaps closed. */
export function asVoice(notes: readonly DrawnNote[], shortest: Ticks): Struck[] {
  const at = new Map<Ticks, DrawnNote[]>()
  for (const n of notes) at.set(n.from, [...(at.get(n.from) ?? []), n])
  const starts = [...at.keys()].sort((a, b) => a - b)
  return starts.map((from, i) => {
    const own = knownIn(at, from)
    const next = starts[i + 1]
    const ends = Math.max(from + shortest, ...own.map((n) => n.to))
    const cut = next === undefined ? ends : Math.min(ends, next)
    const gap = next === undefined ? 0 : next - cut
    const isGap = next !== undefined && gap > 0 && gap <= QUARTER / 2 && gap <= GAP * (cut - from)
    const midis = [...new Set(own.map((n) => n.midi))].sort((a, b) => b - a)
    return { from, to: isGap ? next : cut, midis }
  })
}
