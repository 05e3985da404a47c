import type { ArrangementDoc } from '../arrangement.ts'
import type { TuneDoc } from '../tune.ts'
import { inputHash, isByContent } from './inputHash.ts'
import { orderedHash } from './orderedHash.ts'

/** True where a tab is still an answer to its tune: nothing that the solver reads has changed since. */
export const isFresh = (tune: TuneDoc, doc: ArrangementDoc): boolean =>
  doc.inputHash === (isByContent(doc.inputHash) ? hashOf(tune, doc) : earlierHashOf(tune, doc))

/** A tab that is declared an answer to its tune as it now stands. */
export const madeFresh = (tune: TuneDoc, doc: ArrangementDoc): ArrangementDoc => ({
  ...doc,
  inputHash: hashOf(tune, doc),
})

/** Kept by the arrangement, which does not change: its events are many, and it is asked again and again. */
const earlier = new WeakMap<ArrangementDoc, { readonly tune: TuneDoc; readonly hash: string }>()

function earlierHashOf(tune: TuneDoc, doc: ArrangementDoc): string {
  const known = earlier.get(doc)
  if (known?.tune === tune) return known.hash
  const hash = orderedHash(tune, doc.setup, doc.regions, doc.base.locks)
  earlier.set(doc, { tune, hash })
  return hash
}

const hashOf = (tune: TuneDoc, { setup, regions, base }: ArrangementDoc): string =>
  inputHash(tune, setup, regions, base.locks)
