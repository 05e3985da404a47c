import { present } from '../../invariant.ts'
import { chordPitchClasses, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import { pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { mod12, pitchClass } from '../../music/pitch/pitch.ts'
import type { PatternStep, PatternString, Sweep } from './pattern.ts'

/** A held shape with the chord that it sounds. Frets by string, string 1 first, counted from the capo. */
export interface StrummedShape {
  readonly frets: readonly (number | null)[]
  readonly chord: ChordReading
}

/** What a step sounds on a shape. */
export interface Struck {
  /** Plucked strings, in the order of the pattern. */
  readonly plucked: readonly { readonly place: Place; readonly bass: boolean }[]
  /** Strings of the stroke in the order in which it meets them; the last ones may be missed. */
  readonly swept: readonly { readonly place: Place; readonly optional: boolean }[]
  /** Strings that the pattern names and the shape mutes, with the string taken instead (0: none). */
  readonly moved: readonly { readonly from: number; readonly to: number }[]
  /** Strings that the stroke should have at least and does not have. */
  readonly lacking: number
}

/** The string of the shape's lowest note. */
export function bassString(shape: Pick<StrummedShape, 'frets'>): number {
  for (let string = shape.frets.length; string >= 1; string--) if (isSounded(shape, string)) return string
  return shape.frets.length
}

const isSounded = ({ frets }: Pick<StrummedShape, 'frets'>, string: number) =>
  frets[string - 1] !== null && frets[string - 1] !== undefined

/**
 * Where an alternating thumb goes from the bass: the string beside the bass or the one after it, the fifth before other
 * tones; an open string with a tone of the chord counts although the shape leaves it out (the open string 6 under A).
 * Common practice, no source.
 */
export function otherBass(setup: Setup, shape: StrummedShape): Place | undefined {
  const { strings } = setup.instrument
  const bass = bassString(shape)
  const fifth = mod12(pitchClass(shape.chord.root) + 7)
  const tones = chordPitchClasses(shape.chord)
  let best: { place: Place; price: number } | undefined
  for (let string = strings; string >= Math.max(3, strings - 2); string--) {
    if (string === bass) continue
    const held = isSounded(shape, string)
    const place = { string, fret: held ? shape.frets[string - 1]! : 0 }
    const tone = mod12(pitchAt(setup, place))
    if (!held && !tones.includes(tone)) continue
    const price = (tone === fifth ? 0 : 1) + (held ? 0 : 0.5) + 0.1 * Math.abs(string - bass)
    if (!best || price < best.price) best = { place, price }
  }
  return best?.place
}

/** The strings that a step of a pattern sounds on a shape. */
export function struckStrings(setup: Setup, shape: StrummedShape, step: PatternStep): Struck {
  const bass = bassString(shape)
  const plucked: { place: Place; bass: boolean }[] = []
  const moved: { from: number; to: number }[] = []
  for (const item of step.strings) {
    const found = placeOf(
      setup,
      shape,
      item,
      bass,
      plucked.map((p) => p.place.string),
    )
    if (found.moved) moved.push(found.moved)
    if (found.place && !plucked.some((p) => p.place.string === present(found.place).string))
      plucked.push({ place: found.place, bass: item.of === 'bass' || item.of === 'other' })
  }
  const taken = plucked.map((p) => p.place.string)
  const { swept, lacking } = step.sweep
    ? sweptStrings(shape, step.sweep, bass, taken)
    : { swept: [], lacking: 0 }
  return { plucked, swept, moved, lacking }
}

function placeOf(
  setup: Setup,
  shape: StrummedShape,
  item: PatternString,
  bass: number,
  taken: readonly number[],
): { place?: Place; moved?: { from: number; to: number } } {
  const at = (string: number): Place => ({ string, fret: shape.frets[string - 1]! })
  if (item.of === 'bass') return { place: at(bass) }
  if (item.of === 'other') return { place: otherBass(setup, shape) ?? at(bass) }
  if (item.of === 'above') {
    const above: number[] = []
    for (let s = bass - 1; s >= 1; s--) if (isSounded(shape, s)) above.push(s)
    const string = above[Math.min(item.steps, above.length) - 1]
    return string === undefined ? {} : { place: at(string) }
  }
  if (isSounded(shape, item.string)) return { place: at(item.string) }
  const free = shape.frets
    .flatMap((_, i) => (isSounded(shape, i + 1) && i + 1 !== bass && !taken.includes(i + 1) ? [i + 1] : []))
    .sort((a, b) => Math.abs(a - item.string) - Math.abs(b - item.string) || a - b)
  const to = free[0]
  return to === undefined
    ? { moved: { from: item.string, to: 0 } }
    : { place: at(to), moved: { from: item.string, to } }
}

/** Strings of a full stroke, and of a stroke over the trebles, where a pattern gives no numbers. Common practice. */
const USUAL_MOST = { down: { all: 6, trebles: 4 }, up: { all: 4, trebles: 3 } } as const

function sweptStrings(
  shape: StrummedShape,
  sweep: Sweep,
  bass: number,
  taken: readonly number[],
): { swept: { place: Place; optional: boolean }[]; lacking: number } {
  const { direction, over, least, most = USUAL_MOST[direction][over] } = sweep
  const sounded: number[] = []
  for (let string = bass; string >= 1; string--) {
    if (over === 'trebles' && string === bass) continue
    if (isSounded(shape, string) && !taken.includes(string)) sounded.push(string)
  }
  // A stroke over everything starts at the bass when it goes down; all others end at string 1.
  const fromBass = over === 'all' && direction === 'down'
  const met = fromBass ? sounded.slice(0, most) : sounded.slice(-most)
  const order = direction === 'down' ? met : [...met].reverse()
  const sure = least ?? order.length
  return {
    swept: order.map((string, i) => ({
      place: { string, fret: shape.frets[string - 1]! },
      // A stroke may end before its last strings.
      optional: i >= sure,
    })),
    lacking: Math.max(0, (least ?? 1) - order.length),
  }
}

/** Strings that a step sounds, by number, the lowest first; `swept` where they are brushed. */
export interface SpokenStep {
  readonly strings: readonly number[]
  readonly swept: boolean
}

/** A pattern as it is said on a shape: string numbers, those sounded together grouped; steps that let ring are left out. */
export function spokenPattern(
  setup: Setup,
  shape: StrummedShape,
  steps: readonly (PatternStep | undefined)[],
): SpokenStep[] {
  return steps.flatMap((step) => {
    if (!step) return []
    const { plucked, swept } = struckStrings(setup, shape, step)
    const strings = [...plucked, ...swept].map((s) => s.place.string).sort((a, b) => b - a)
    return [{ strings, swept: swept.length > 0 }]
  })
}
