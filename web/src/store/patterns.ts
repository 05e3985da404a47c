import type { OwnPattern } from '@velvet-porch/core/schema'
import { useLiveQuery } from 'dexie-react-hooks'
import { db } from './db.ts'

const NONE: readonly OwnPattern[] = []

/** Every pattern that the teacher keeps, by name. */
export function useOwnPatterns(): readonly OwnPattern[] {
  return useLiveQuery(() => db.patterns.orderBy('name').toArray()) ?? NONE
}

/** Stores a pattern after its check against the schema; one of the same id gives way. @throws SchemaError */
export async function keepPattern(pattern: OwnPattern): Promise<void> {
  const { readOwnPattern } = await import('@velvet-porch/core/schema')
  await db.patterns.put(readOwnPattern(pattern))
}

export const dropPattern = (id: string) => db.patterns.delete(id)
