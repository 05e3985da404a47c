import type { Lock } from '../../document/locks.ts'
import type { Grip, Span } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { Turns } from '../../turns.ts'
import { proposeBends } from './bends.ts'
import { addGraces, addVibrato } from './graces.ts'
import { OrnamentPage, type LeftOrnament, type OrnamentPlan, type Unpicked } from './ornamentPage.ts'
import { addHammeredThirds } from './hammeredThirds.ts'
import { addSlidesIn } from './slidesIn.ts'
import { addSlurs } from './slurs.ts'

export interface Articulated {
  readonly notes: readonly Unpicked[]
  readonly grips: readonly Grip[]
  readonly spans: readonly Span[]
  readonly left: readonly LeftOrnament[]
}

/**
 * Decides which notes of the melody the fretting hand sounds alone: grace notes, signs and slurs of the source, slurs
 * where line, tempo and hand allow them at the region's density, and what the teacher locked. What would break a
 * precondition (a pull-off without its target down, a hammer-on that lets its lower finger go) is never written.
 */
export function* articulating(
  tune: TuneDoc,
  setup: Setup,
  plan: OrnamentPlan,
  layer: { readonly notes: readonly Unpicked[]; readonly grips: readonly Grip[] },
  locks: readonly Lock[],
): Turns<Articulated> {
  const page = new OrnamentPage(tune, setup, plan, layer, locks)
  yield
  yield* proposeBends(page)
  yield
  yield* addGraces(page)
  yield
  yield* addSlurs(page)
  yield
  yield* addHammeredThirds(page)
  addSlidesIn(page)
  addVibrato(page)
  const { notes, grips, spans, left } = page
  return { notes, grips, spans, left }
}
