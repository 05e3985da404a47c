import type { Id } from './ids.ts'
import type { Pos } from './tune.ts'

/** Ids of what the solver writes follow from what a note plays, so that re-solving keeps them. */
export const melodyNoteId = (source: Id): Id => `n.${source}`
export const bassNoteId = ({ measure, tick }: Pos): Id => `b.${measure}.${tick}`
export const innerNoteId = ({ measure, tick }: Pos): Id => `i.${measure}.${tick}`
export const chordNoteId = ({ measure, tick }: Pos, nth: number): Id => `h.${measure}.${tick}.${nth}`
/** A note that was written by hand where the arranger has none. */
export const handNoteId = ({ measure, tick }: Pos, string: number): Id => `t.${measure}.${tick}.${string}`
export const gripId = ({ measure, tick }: Pos): Id => `g.${measure}.${tick}`
