import type { OwnPattern } from '@velvet-porch/core/schema'
import { db } from './db.ts'
import { storing } from './storageTrouble.ts'
import { useStored } from './useStored.ts'

const NONE: readonly OwnPattern[] = []

/** Every pattern that the teacher keeps, by name. */
export function useOwnPatterns(): readonly OwnPattern[] {
  return useStored(() => db.patterns.orderBy('name').toArray()) ?? NONE
}

/** Stores a pattern after its check against the schema; one of the same id gives way. @throws SchemaError */
export async function keepPattern(pattern: OwnPattern): Promise<void> {
  const { readOwnPattern } = await import('@velvet-porch/core/schema')
  const read = readOwnPattern(pattern)
  await storing(() => db.patterns.put(read))
}

export const dropPattern = (id: string) => storing(() => db.patterns.delete(id))
