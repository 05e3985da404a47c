import { present } from '../../invariant.ts'
import type { WrittenChord, WrittenLine } from './readSong.ts'

/** Bars that a line may have. */
export const MOST_BARS = 32

/** Vowels in a row: near enough a syllable in the languages of the app. */
const syllables = (text: string): number => (text.match(/[aeiouyáéíóúàèùâêîôûäëïöü]+/gi) ?? []).length

/** Syllables that are sung in two bars at most. Common practice, no source. */
const IN_TWO_BARS = 6

/** The bars that a line of this song most likely takes: four, or two where its lines are short and change once. A guess. */
export function usualBars(lines: readonly WrittenLine[]): number {
  const sung = lines.filter((l) => l.kind === 'sung' && l.bars === undefined && l.text !== '')
  if (sung.length === 0) return 4
  const middle = (of: readonly number[]) => present([...of].sort((a, b) => a - b)[Math.floor(of.length / 2)])
  const chords = middle(sung.map((l) => Math.max(1, l.chords.length)))
  const short = middle(sung.map((l) => syllables(l.text))) <= IN_TWO_BARS
  return short && chords <= 2 ? 2 : 4
}

/** A change of chord with its time: bar of the line, and the part of the bar before it. */
export interface TimedChord {
  readonly chord: WrittenChord
  readonly bar: number
  readonly share: number
}

/**
 * Lays the chords of a line on its bars: one a bar where they are as many, on the bars that their words come nearest to
 * where they are fewer, on half bars, beats or parts of beats where they are more. Bar lines of the text come first.
 * @param beats beats of a bar
 */
export function laidOnBars(
  chords: readonly WrittenChord[],
  letters: number,
  bars: number,
  beats: number,
): readonly TimedChord[] {
  if (chords.every((c) => c.bar !== undefined))
    return chords.map((chord) => ({ chord, bar: chord.bar ?? 0, share: chord.share ?? 0 }))
  const n = chords.length
  let parts = n <= bars ? 1 : n <= 2 * bars && beats % 2 === 0 ? 2 : beats
  // No two at one moment, however many there are.
  while (bars * parts < n) parts *= 2
  const slots = bars * parts
  const first = chords[0]?.at ?? 0
  const room = Math.max(1, letters - first)
  let last = -1
  return chords.map((chord, k): TimedChord => {
    const worded = letters > 0 && chords.some((c) => c.at > first)
    const wanted = worded ? Math.round(((chord.at - first) / room) * slots) : Math.floor((k * slots) / n)
    // Each after the one before it, with a place left for all that follow.
    const slot = n >= slots ? Math.min(k, slots - 1) : Math.min(Math.max(wanted, last + 1), slots - (n - k))
    last = slot
    return { chord, bar: Math.floor(slot / parts), share: (slot % parts) / parts }
  })
}

/** Bars that a line needs at least, for a beat to each chord. */
export const barsFor = (chords: number, usual: number, beats: number): number => {
  let bars = usual
  while (bars * beats < chords && bars < MOST_BARS) bars *= 2
  return bars
}
