import { type Problem } from '../problem.ts'

/** The problem of a text in which there is no tune, at its first character. */
export const noTune = (says: Problem['says']): Problem => ({ severity: 'error', line: 1, column: 1, says })
