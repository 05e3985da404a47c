import { knownIn, present } from '../invariant.ts'
import type { Ticks } from '../music/time/ticks.ts'
import type { Id } from './ids.ts'
import { changesInBars, measuresOfLine } from './lineBars.ts'
import type { SongLine } from './song.ts'
import type { Measure, TuneDoc } from './tune.ts'

/** Words from one moment of a measure on. */
export interface WordsAt {
  readonly measure: Id
  readonly tick: Ticks
  readonly text: string
}

/** A place on a line: so many letters, so many ticks from its beginning. */
interface Anchor {
  readonly at: number
  readonly tick: Ticks
}

/** A change of chord on a line: its mark in the tune, and the letters before it. */
export interface ChangeOnLine {
  readonly chord: TuneDoc['chords'][number]
  readonly at: number
}

/** The measures of a line, with the ticks at which each begins on it. */
function placedMeasures(
  tune: TuneDoc,
  line: SongLine,
): { readonly measure: Measure; readonly start: Ticks }[] {
  let start = 0
  return measuresOfLine(tune, line).map((measure) => {
    const placed = { measure, start }
    start += measure.length
    return placed
  })
}

/**
 * The changes of chord over a line's words. Where chords were added to or taken from its measures since, their places in
 * the words follow the time; a line over which none are written has none.
 */
export function changesOn(tune: TuneDoc, line: SongLine): ChangeOnLine[] {
  const chords = changesInBars(tune, line).map((c) => c.chord)
  const { changes } = line
  if (!changes) return []
  if (changes.length === chords.length) return chords.map((chord, i) => ({ chord, at: changes[i]! }))
  const letters = lettersAt(tune, line, chords)
  return chords.map((chord, i) => ({ chord, at: letters[i]! }))
}

/** Letters before each of some chords of a line, by when they come: at the beginnings of words. */
export function lettersAt(tune: TuneDoc, line: SongLine, chords: readonly ChangeOnLine['chord'][]): number[] {
  const placed = placedMeasures(tune, line)
  const starts = new Map(placed.map((p) => [p.measure.id, p.start]))
  const length = placed.reduce((sum, p) => sum + p.measure.length, 0)
  return chords.map(({ pos }) => {
    const tick = knownIn(starts, pos.measure) + pos.tick
    return wordStart(line.text, (tick / length) * line.text.length)
  })
}

/** The beginning of the word that is nearest to a letter. */
function wordStart(text: string, at: number): number {
  const starts = [0, ...[...text.matchAll(/\s+(?=\S)/g)].map((m) => m.index + m[0].length)]
  return starts.reduce((best, s) => (Math.abs(s - at) < Math.abs(best - at) ? s : best), 0)
}

/** The words of a song as they fall into its measures: from each change of chord on, and from each bar line on. */
export function wordsInMeasures(tune: TuneDoc): WordsAt[] {
  return (tune.song?.lines ?? []).flatMap((line) => {
    if (line.kind !== 'sung' || line.text === '') return []
    const placed = placedMeasures(tune, line)
    const length = placed.reduce((sum, p) => sum + p.measure.length, 0)
    if (length === 0) return []
    const starts = new Map(placed.map((p) => [p.measure.id, p.start]))
    const changes = changesOn(tune, line).map(({ chord, at }): Anchor => ({
      at,
      tick: knownIn(starts, chord.pos.measure) + chord.pos.tick,
    }))
    const anchors = [{ at: 0, tick: 0 }, ...changes, { at: line.text.length, tick: length }]
    const cuts = [
      // Words before the first change lead up to it.
      ...changes.map((c, i) => (i === 0 && c.tick === 0 ? { ...c, at: 0 } : c)),
      ...placed
        .filter(({ start }) => !changes.some((c) => c.tick === start))
        .map(({ start }) => ({
          tick: start,
          at: start === 0 ? 0 : wordStart(line.text, letterAt(anchors, start)),
        })),
    ].sort((a, b) => a.tick - b.tick || a.at - b.at)
    return cuts.flatMap(({ tick, at: letter }, i): WordsAt[] => {
      const at = pastSigns(line.text, letter)
      const to = Math.max(at, pastSigns(line.text, cuts[i + 1]?.at ?? line.text.length))
      const goesOn = /\p{L}$/u.test(line.text.slice(at, to)) && /^\p{L}/u.test(line.text.slice(to))
      const text = line.text.slice(at, to).trim() + (goesOn ? '-' : '')
      const here = present(placed.findLast((p) => p.start <= tick))
      return text === '' ? [] : [{ measure: here.measure.id, tick: tick - here.start, text }]
    })
  })
}

/** A comma, a bracket that closes: they belong to the words before them. */
function pastSigns(text: string, at: number): number {
  let to = at
  while (to > 0 && to < text.length && /[,.;:!?)\]’”"]/.test(text[to]!)) to++
  return to
}

/** Letters that are sung by a tick, between the two places around it. */
function letterAt(anchors: readonly Anchor[], tick: Ticks): number {
  const after = anchors.find((a) => a.tick > tick) ?? anchors.at(-1)!
  const before = anchors.findLast((a) => a.tick <= tick) ?? anchors[0]!
  const span = after.tick - before.tick
  return span === 0 ? before.at : before.at + ((tick - before.tick) / span) * (after.at - before.at)
}
