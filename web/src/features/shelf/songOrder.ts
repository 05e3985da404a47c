import { songRegions } from '@velvet-porch/core/arrange'
import type { TuneDoc } from '@velvet-porch/core/document'
import { highestCapo, readTuning, setupOf, STANDARD_TUNING } from '@velvet-porch/core/instrument'
import type { TuneUnderstood } from '@velvet-porch/core/input/any'
import type { ArrangeOrder } from '../../workers/benchApi.ts'

/** A song as it says that it is played: its tuning, where that is understood, its capo, its strum. */
export function tunedOrder(tune: TuneDoc, song: NonNullable<TuneUnderstood['song']>): ArrangeOrder {
  const read = song.tuning === undefined ? undefined : readTuning('guitar', song.tuning)
  const tuning = read && 'tuning' in read ? read.tuning : STANDARD_TUNING
  const setup = setupOf('guitar', tuning, { fret: Math.min(song.capo, highestCapo('guitar')) })
  return { tune, setup, regions: songRegions(tune, song.strum), locks: [] }
}
