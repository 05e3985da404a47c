import type { PatternText, Region } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Metre } from '../../music/time/metre.ts'
import { stepsOf } from '../accompany/pattern.ts'
import { readStrum, type Placement } from '../accompany/strumText.ts'
import { wholeTune } from './arrange.ts'

/** Grids on which a strum that a song names is looked for, by steps of a beat. */
const GRIDS = [2, 4]

/**
 * A song is strummed until something else is chosen: in the strokes that it names itself, where they have a place in its
 * metre, else in the usual ones.
 * @param strum as the song says it, such as "D DU UDU"
 */
export function songRegions(tune: TuneDoc, strum?: string): Region[] {
  const pattern = strum === undefined ? undefined : strumPattern(strum, tune.measures[0]!.metre)
  return wholeTune(tune, 'strum', 1).map((r) => (pattern ? { ...r, pattern } : r))
}

/**
 * A strum as people write it over a song: strokes by letter, run together as they like ("D DU UDU"), with a dash or a dot for
 * a step without a stroke. Where it has as many steps as the measure, each letter is one; else the arm says where they fall.
 */
function strumPattern(text: string, metre: Metre): PatternText | undefined {
  const short = text.replace(/\b(down|up)\b/gi, (stroke) => stroke.slice(0, 1))
  const letters = /^[du\-–—._\s|,]+$/i.test(short) ? (short.match(/[du]|[-–—._]/gi) ?? []) : undefined
  const strokes = letters ? letters.filter((l) => /[du]/i.test(l)).join(' ') : text
  for (const perBeat of GRIDS) {
    const reading = readStrum(strokes, metre, perBeat)
    if (reading.kind === 'unplaced') continue
    const choices: readonly Placement[] = reading.kind === 'placed' ? [reading.placement] : reading.choices
    const steps = letters?.flatMap((l, i) => (/[du]/i.test(l) ? [i] : []))
    const written =
      letters?.length === stepsOf(metre, perBeat)
        ? choices.find((c) => c.steps.join() === steps?.join())
        : undefined
    return (written ?? choices[0])?.pattern
  }
  return undefined
}
