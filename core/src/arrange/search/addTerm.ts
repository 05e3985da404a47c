import type { CostTerm } from '../../document/tab.ts'

/** Receives each term of a cost: once, or a beat. */
export type AddTerm = (
  term: string,
  cost: number,
  perBeat: boolean,
  quantity?: number,
  unit?: CostTerm['unit'],
) => void
