import type { Style } from '../../document/style.ts'
import type { School } from '../../document/school.ts'
import type { PickingSchool } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'

/**
 * How a style is picked under a school: as the school says, else as the player picks. A flatpicked lead takes a pick,
 * and so do doubled courses: nobody plucks a pair of strings with one finger.
 */
export function pickingOf(
  style: Style,
  school: School,
  setup: Pick<Setup, 'instrument' | 'player'>,
): PickingSchool {
  if (!school.picking && setup.instrument.doubling > 1) return 'flatPick'
  const own = school.picking ?? setup.player.school
  return style === 'flatpicked-lead' && own !== 'pickAndFingers' ? 'flatPick' : own
}
