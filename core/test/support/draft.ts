import type { Draft } from '../../src/arrange/search/draft.ts'

/** A grip that nothing is known of; the search does not look at it. */
export const BARE: Draft = {
  pressed: [],
  position: 1,
  melody: undefined,
  melodyFinger: 0,
  bass: undefined,
  bassFinger: 0,
  inner: undefined,
  innerFinger: 0,
  planted: undefined,
  plantedFinger: 0,
  heldShape: -1,
  strikes: false,
}
