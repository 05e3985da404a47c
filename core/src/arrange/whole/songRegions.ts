import type { Region } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { readStrum } from '../accompany/strumText.ts'
import { wholeTune } from './arrange.ts'

/** Grids on which a strum that a song names is looked for, by steps of a beat. */
const GRIDS = [2, 4]

/**
 * A song is strummed until something else is chosen: in the strokes that it names itself, where they have a place in its
 * metre, else in the usual ones.
 * @param strum as the song says it, such as "D DU UDU"
 */
export function songRegions(tune: TuneDoc, strum?: string): Region[] {
  const whole = wholeTune(tune, 'strum', 1)
  if (strum === undefined) return whole
  for (const perBeat of GRIDS) {
    const reading = readStrum(strum, tune.measures[0]!.metre, perBeat)
    if (reading.kind === 'unplaced') continue
    const { pattern } = reading.kind === 'placed' ? reading.placement : reading.choices[0]!
    return whole.map((r) => ({ ...r, pattern }))
  }
  return whole
}
