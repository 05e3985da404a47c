import { bpmAt, tempoMap } from '../../document/form/tempoMap.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { CostTerm, Grip, TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Setup } from '../../instrument/setup.ts'
import { firstAtOrAfter } from '../../music/time/firstAtOrAfter.ts'
import { QUARTER, secondsOf, type Ticks } from '../../music/time/ticks.ts'
import { gripTerms, SHAPE_SHARE } from '../search/staticCost.ts'
import { fingerMoveTerms, positionChangeTerms } from '../search/transition.ts'
import { handSetOf } from './handPath.ts'
import { inTime } from './reaching.ts'

/**
 * Grips with their reasons as the finished page gives them: what each asks of the hand by itself and after the one before it, at the
 * prices of the search. For places that were given: whatever the search thought of a grip there holds no more.
 * @param isInside which grips are told anew, by their time
 */
export function withReasons(
  grips: readonly Grip[],
  notes: readonly TabNote[],
  tune: TuneDoc,
  setup: Setup,
  timeline: Timeline,
  isInside: (at: Ticks) => boolean,
): readonly Grip[] {
  const sorted = inTime(grips, timeline)
  const times = sorted.map((g) => ticksAt(timeline, g.pos))
  const struck = inTime(notes, timeline).map(({ pos, left }) => ({ start: ticksAt(timeline, pos), left }))
  const tempos = tempoMap(tune, timeline)
  const handOf = (i: number) => {
    const { pressed, position } = sorted[i]!
    const [from, to] = [times[i]!, times[i + 1] ?? Infinity].map((at) => firstAtOrAfter(struck, at))
    const fingers = struck.slice(from, to).map((n) => n.left)
    return handSetOf(setup, [{ pressed: pressedOf(pressed), fingers, position }])
  }
  return sorted.map((grip, i) => {
    const at = times[i]!
    if (!isInside(at)) return grip
    const beats = ((times[i + 1] ?? at + QUARTER) - at) / QUARTER
    const costs: CostTerm[] = []
    const share = grip.shape === undefined ? 1 : SHAPE_SHARE
    gripTerms(setup, pressedOf(grip.pressed), share, 1, (term, cost, perBeat, quantity, unit) =>
      costs.push({
        term,
        cost: perBeat ? cost * beats : cost,
        ...(quantity === undefined ? {} : { quantity }),
        ...(unit ? { unit } : {}),
      }),
    )
    if (i > 0) {
      const [from, to] = [handOf(i - 1), handOf(i)]
      const seconds = secondsOf(at - times[i - 1]!, bpmAt(tempos, at))
      const mm = Math.abs(from.positionMm[0]! - to.positionMm[0]!)
      costs.push(
        ...fingerMoveTerms(from, 0, to, 0, { seconds }),
        ...positionChangeTerms(mm, from.openOnly[0] === 1, false, { seconds, shiftShare: 1 }),
      )
    }
    return { ...grip, costs: costs.filter((c) => c.cost !== 0).sort((a, b) => b.cost - a.cost) }
  })
}
