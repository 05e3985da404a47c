import type { ArrangementDoc } from '../model/arrangement.ts'
import type { TuneDoc } from '../model/tune.ts'
import { inputHash } from './inputHash.ts'

/** True where a tab is still an answer to its tune: nothing that the solver reads has changed since. */
export const isFresh = (tune: TuneDoc, doc: ArrangementDoc): boolean => hashOf(tune, doc) === doc.inputHash

/** A tab that is declared an answer to its tune as it now stands. */
export const madeFresh = (tune: TuneDoc, doc: ArrangementDoc): ArrangementDoc => ({
  ...doc,
  inputHash: hashOf(tune, doc),
})

const hashOf = (tune: TuneDoc, { setup, regions, base }: ArrangementDoc): string =>
  inputHash(tune, setup, regions, base.locks)
