import { fingersOf } from '../../instrument/hand.ts'
import type { Place, Setup } from '../../instrument/setup.ts'
import type { AccompanyOnset } from './onset.ts'

/**
 * One note of a line in the first position, plucked alone: a finger a fret, as far as the hand has fingers. A fill may
 * be left out, a bass may not.
 */
export function lineNote(
  { player }: Setup,
  at: Pick<AccompanyOnset, 'start' | 'measure' | 'segment'>,
  place: Place,
  role: 'bass' | 'fill',
): AccompanyOnset {
  const most = fingersOf(player.techniques).at(-1)!
  const finger = place.fret === 0 ? 0 : (Math.min(place.fret, most) as 1 | 2 | 3 | 4)
  return {
    ...at,
    sounds: [{ place, finger, role, attack: 'pluck', optional: role === 'fill' }],
    accent: false,
    palm: false,
    hand: { pressed: finger === 0 ? [] : [{ ...place, finger }] },
  }
}
