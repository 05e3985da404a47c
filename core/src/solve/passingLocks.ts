import type { Lock, TabNote } from '../model/arrangement.ts'

/** Fields of locks that hold what was written by hand: a whole note, that a note is left out, a picking sign. */
const HANDWORK: readonly string[] = ['typed', 'erased', 'right']

export const isHandwork = ({ field }: Pick<Lock, 'field'>): boolean => HANDWORK.includes(field)

const PLACE = '\u0000typed'

/** The places of typed notes as locks, so that the search finds its way around them. */
export const typedPlaces = (locks: readonly Lock[]): Lock[] =>
  locks
    .filter((l) => l.field === 'typed' && !(l.value as TabNote).bend)
    .map((l) => ({ id: l.id + PLACE, target: l.target, field: 'place', value: (l.value as TabNote).place }))

export const isTypedPlace = ({ id }: Pick<Lock, 'id'>): boolean => id.endsWith(PLACE)
