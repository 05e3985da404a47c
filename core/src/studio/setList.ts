import type { Day } from './day.ts'

/** One tune of a set list, with its minutes where the teacher has said them. */
export interface SetItem {
  readonly tuneId: string
  readonly minutes?: number
}

/** The tunes of a gig or a class in the order in which they are played. */
export interface SetList {
  readonly id: string
  readonly name: string
  readonly day?: Day
  readonly items: readonly SetItem[]
  /** Tunes that are to open and to close, however the rest is ordered. */
  readonly first?: string
  readonly last?: string
}

/** Tunes of one set list at most. */
export const MOST_SET_ITEMS = 100
