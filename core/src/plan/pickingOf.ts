import type { Style } from '../model/arrangement.ts'
import type { School } from '../model/school.ts'
import type { PickingSchool, Player } from '../neck/hand.ts'

/** How a style is picked under a school: as the school says, else as the player picks; a flatpicked lead with a pick. */
export function pickingOf(style: Style, school: School, player: Pick<Player, 'school'>): PickingSchool {
  const own = school.picking ?? player.school
  return style === 'flatpicked-lead' && own !== 'pickAndFingers' ? 'flatPick' : own
}
