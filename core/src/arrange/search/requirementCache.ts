import type { HeldShape } from '../../chords/textbook.ts'

/** Remembers what is dear to compute, across the slices of one solve. */
export interface RequirementCache {
  readonly heldShapes: Map<string, readonly HeldShape[]>
  readonly highTriads: Map<string, readonly HeldShape[]>
  readonly voicings: Map<string, readonly HeldShape[]>
}

export const newRequirementCache = (): RequirementCache => ({
  heldShapes: new Map(),
  highTriads: new Map(),
  voicings: new Map(),
})
