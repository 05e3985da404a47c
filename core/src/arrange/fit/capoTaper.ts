import { knownIn } from '../../invariant.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import { handFault, widestReach } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { kindSpans } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import { HIGHEST_CAPO } from '../simplify/stretchByCapo.ts'

/** A measure that is wider than this hand likes, with the lowest capo at which it comes inside. */
export interface TaperMeasure {
  readonly measure: number
  readonly mm: number
  /** Absent where no capo up to the seventh fret is enough. */
  readonly capo?: number
  readonly mmThere?: number
}

/** Hard measures, and the capo week by week. */
export interface CapoTaper {
  readonly measures: readonly TaperMeasure[]
  /** The capo of each week, the first the one at which every hard measure is inside the hand, the last the arrangement's. */
  readonly weeks: readonly number[]
}

/**
 * Where a hand is stretched by an arrangement, and how a capo helps until it has grown used to it: same shapes, shorter
 * frets, brought down a fret a week.
 * @param limit `reach`: what the hand cannot do at all; `comfort`: what it does only when stretched (see `kindSpans`)
 */
export function capoTaper(
  tune: TuneDoc,
  setup: Setup,
  layer: Pick<Layer, 'grips'>,
  limit: 'reach' | 'comfort',
): CapoTaper {
  const timeline = timelineOf(tune.measures)
  const spans = limit === 'reach' ? setup.player.spans : kindSpans(setup.player.spans)
  const now = setup.capo[0]!
  const grips = tune.measures.map((): Layer['grips'][number][] => [])
  for (const g of layer.grips) grips[knownIn(timeline.indexOf, g.pos.measure)]!.push(g)
  const at = (capo: number): Setup => ({ ...setup, capo: setup.capo.map(() => capo) })
  const isInside = (measure: number, capo: number) =>
    grips[measure]!.every((g) => !handFault(at(capo), spans, pressedOf(g.pressed)))
  const widest = (measure: number, capo: number) =>
    Math.round(Math.max(0, ...grips[measure]!.map((g) => widestReach(at(capo), pressedOf(g.pressed)))))
  const measures: TaperMeasure[] = []
  tune.measures.forEach((_, measure) => {
    if (isInside(measure, now)) return
    const hard = { measure, mm: widest(measure, now) }
    for (let capo = now + 1; capo <= HIGHEST_CAPO; capo++)
      if (isInside(measure, capo)) {
        measures.push({ ...hard, capo, mmThere: widest(measure, capo) })
        return
      }
    measures.push(hard)
  })
  const from = Math.max(now, ...measures.map((m) => m.capo ?? HIGHEST_CAPO))
  return {
    measures,
    weeks: measures.length === 0 ? [] : Array.from({ length: from - now + 1 }, (_, i) => from - i),
  }
}
