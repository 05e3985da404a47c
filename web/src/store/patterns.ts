import type { PatternText } from '@velvet-porch/core'
import type { OwnPattern } from '@velvet-porch/core/schema'
import { useLiveQuery } from 'dexie-react-hooks'
import { db } from './db.ts'

const NONE: readonly OwnPattern[] = []

/** Every pattern that the teacher keeps, by name. */
export function useOwnPatterns(): readonly OwnPattern[] {
  return useLiveQuery(() => db.patterns.orderBy('name').toArray()) ?? NONE
}

/** True for the same steps in the same metre. */
export const samePattern = (a: PatternText, b: PatternText): boolean =>
  a.text === b.text && a.perBeat === b.perBeat && a.metre.num === b.metre.num && a.metre.den === b.metre.den

/** Stores a pattern after its check against the schema; one of the same id gives way. @throws SchemaError */
export async function keepPattern(pattern: OwnPattern): Promise<void> {
  const { readOwnPattern } = await import('@velvet-porch/core/schema')
  await db.patterns.put(readOwnPattern(pattern))
}

export const dropPattern = (id: string) => db.patterns.delete(id)
