import type { PatternText } from '../../document/arrangement.ts'
import type { Stroke } from '../../instrument/hand.ts'
import { isCompound, type Metre } from '../../music/time/metre.ts'
import { stepsOf, type Pattern, type PatternStep } from './pattern.ts'
import { writePattern } from './patternText.ts'

/** One stroke of a strum as it is said: its direction, and whether it follows in the same beat ("down-up"). */
interface Said {
  readonly direction: Stroke
  readonly joined: boolean
  readonly muted: boolean
  readonly accent: boolean
}

/** Where the strokes of a strum fall: one step index for each stroke. */
export interface Placement {
  readonly steps: readonly number[]
  readonly pattern: PatternText
}

/**
 * A strum placed on the grid. One placement: that is it. Several: the player is asked. None: what was wrong, and the
 * nearest thing that works.
 */
export type StrumReading =
  | { readonly kind: 'placed'; readonly placement: Placement }
  | { readonly kind: 'ambiguous'; readonly choices: readonly Placement[] }
  | {
      readonly kind: 'unplaced'
      readonly reason: 'words' | 'empty' | 'tooMany'
      /** The word that was not understood, or how many strokes there are. */
      readonly what: string
      /** A longer or finer grid on which the strokes do have a place. */
      readonly nearest?: StrumReading & { kind: 'placed' | 'ambiguous' }
      readonly perBeat?: number
    }

/** More choices than this are no help; the likeliest are kept. */
const MOST_CHOICES = 6

/**
 * Reads a strum said in words or strokes and places it on the beats of one measure by the rule of the moving arm: on
 * an eighth-note grid down on the beat and up on the "and"; on sixteenths beat and "and" are down, "e" and "a" up; in
 * threes the first of each beat is down and the arm turns. Strokes joined by a hyphen share a beat. Common practice.
 * @example readStrum('down down down-up down-up', { num: 4, den: 4 }, 2) // on 1, 2, 3 & and 4 &
 */
export function readStrum(text: string, metre: Metre, perBeat: number): StrumReading {
  const said = readWords(text)
  if (typeof said === 'string') return { kind: 'unplaced', reason: 'words', what: said }
  if (said.length === 0) return { kind: 'unplaced', reason: 'empty', what: '' }
  const found = placementsOf(said, metre, perBeat)
  if (found.length === 1) return { kind: 'placed', placement: found[0]! }
  if (found.length > 1) return { kind: 'ambiguous', choices: found.slice(0, MOST_CHOICES) }
  const finer = perBeat * 2
  const nearest = perBeat <= 2 && !isCompound(metre) ? placementsOf(said, metre, finer) : []
  const tried: StrumReading & { kind: 'placed' | 'ambiguous' } =
    nearest.length === 1
      ? { kind: 'placed', placement: nearest[0]! }
      : { kind: 'ambiguous', choices: nearest.slice(0, MOST_CHOICES) }
  return {
    kind: 'unplaced',
    reason: 'tooMany',
    what: String(said.length),
    ...(nearest.length > 0 ? { nearest: tried, perBeat: finer } : {}),
  }
}

const WORDS: Readonly<Record<string, Stroke>> = { down: 'down', d: 'down', up: 'up', u: 'up' }

/** The strokes, or the word that is none. */
function readWords(text: string): Said[] | string {
  const said: Said[] = []
  for (const word of text
    .trim()
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter(Boolean)) {
    const strokes = splitWord(word)
    if (!strokes) return word
    for (const [i, stroke] of strokes.entries()) {
      const [, name = '', signs = ''] = /^([a-z]+)([*!]*)$/.exec(stroke) ?? []
      const direction = WORDS[name]
      if (!direction) return word
      said.push({ direction, joined: i > 0, muted: signs.includes('*'), accent: signs.includes('!') })
    }
  }
  return said
}

/** "down-up" and "du" are two strokes of one beat. */
function splitWord(word: string): string[] | undefined {
  if (word.includes('-')) return word.split('-')
  if (/^([du][*!]*){2,}$/.test(word)) return word.match(/[du][*!]*/g) ?? undefined
  return [word]
}

/** The arm's direction at a step of a beat. */
export function armAt(step: number, perBeat: number): Stroke {
  return step % perBeat === 0 || (step % perBeat) % 2 === 0 ? 'down' : 'up'
}

/** Placements that are weighed: more than these are not told apart by their strokes. */
const MOST_WEIGHED = 400

/** Every way to put the strokes on the grid, likeliest first. */
function placementsOf(said: readonly Said[], metre: Metre, perBeat: number): Placement[] {
  const whole = stepsOf(metre, perBeat)
  if (said.length > whole) return []
  const after = stepsAfter(said, whole, perBeat)
  const ways: number[][] = []
  const go = (chosen: readonly number[]) => {
    if (chosen.length === said.length) ways.push([...chosen])
    else
      for (const step of after(chosen.length, chosen.at(-1)))
        if (ways.length <= MOST_WEIGHED) go([...chosen, step])
  }
  go([])
  return ways
    .map((steps) => ({ steps, price: priceOf(steps, metre, perBeat) }))
    .sort((a, b) => a.price - b.price)
    .map(({ steps }) => ({ steps, pattern: written(steps, said, metre, perBeat) }))
}

/**
 * Where a stroke can stand after the one before it, so that all further ones have a place: found from the last stroke
 * backwards, so that no way is begun that leads nowhere.
 */
function stepsAfter(
  said: readonly Said[],
  whole: number,
  perBeat: number,
): (stroke: number, last: number | undefined) => number[] {
  const follows = (stroke: number, last: number | undefined, step: number) =>
    !said[stroke]!.joined || (last !== undefined && Math.floor(last / perBeat) === Math.floor(step / perBeat))
  /** Steps at which each stroke can stand with all after it placed. */
  const places: number[][] = []
  for (let k = said.length - 1; k >= 0; k--) {
    const next = places[0]
    const own: number[] = []
    for (let step = 0; step < whole; step++) {
      if (armAt(step, perBeat) !== said[k]!.direction) continue
      if (!next || next.some((s) => s > step && follows(k + 1, step, s))) own.push(step)
    }
    places.unshift(own)
  }
  return (stroke, last = -1) =>
    places[stroke]!.filter((s) => s > last && follows(stroke, last < 0 ? undefined : last, s))
}

/** A strum starts on beat 1 and leaves few beats empty. No source. */
function priceOf(steps: readonly number[], metre: Metre, perBeat: number): number {
  const beats = stepsOf(metre, perBeat) / perBeat
  const filled = new Set(steps.map((s) => Math.floor(s / perBeat))).size
  return (steps[0] === 0 ? 0 : 4) + 2 * (beats - filled)
}

function written(
  steps: readonly number[],
  said: readonly Said[],
  metre: Metre,
  perBeat: number,
): PatternText {
  const grid: (PatternStep | undefined)[] = Array.from({ length: stepsOf(metre, perBeat) }, () => undefined)
  steps.forEach((step, i) => {
    const { direction, muted, accent } = said[i]!
    grid[step] = { strings: [], sweep: { direction, over: 'all', muted }, accent, palm: false }
  })
  return writePattern({ metre, perBeat, steps: grid } satisfies Pattern)
}
