import { groupBy } from 'es-toolkit'
import type { LogEntry } from '../lesson/practice/practiceLog.ts'

/** Entries of one piece on one day that are told differently here and in the file. */
export interface LogConflict {
  readonly day: string
  readonly piece: number
  readonly here: readonly LogEntry[]
  readonly there: readonly LogEntry[]
}

/** A practice log that came back, held against what is known of it. */
export interface MergedLog {
  /** What both agree on, or only one has: nothing is lost and nothing counted twice. */
  readonly entries: readonly LogEntry[]
  /** Entries of the file that were not known. */
  readonly added: readonly LogEntry[]
  /** Entries of the file that were known already. */
  readonly known: number
  readonly conflicts: readonly LogConflict[]
}

/** What is kept of a conflict. */
export type Keeping = 'here' | 'there' | 'both'

const textOf = ({ day, piece, bpm, clean, minutes, note }: LogEntry): string =>
  JSON.stringify([day, piece, bpm, clean, minutes, note])

const placeOf = ({ day, piece }: LogEntry): string => `${day} ${piece}`

/** What is left of some entries when each of the others has been struck out once. */
function without(entries: readonly LogEntry[], others: readonly LogEntry[]): LogEntry[] {
  const counts = new Map<string, number>()
  for (const e of others) counts.set(textOf(e), (counts.get(textOf(e)) ?? 0) + 1)
  return entries.filter((e) => {
    const left = counts.get(textOf(e)) ?? 0
    counts.set(textOf(e), left - 1)
    return left <= 0
  })
}

const inOrder = (entries: readonly LogEntry[]): LogEntry[] =>
  [...entries].sort((a, b) => a.day.localeCompare(b.day) || a.piece - b.piece)

/**
 * Joins a log that came back with the one that is kept. The same entry twice is one; what the two tell differently of one
 * piece on one day is a conflict, and stays as it is here until somebody has chosen.
 * @param keeping what is kept of the conflicts
 */
export function mergeLogs(
  here: readonly LogEntry[],
  there: readonly LogEntry[],
  keeping: Keeping = 'here',
): MergedLog {
  const onlyHere = groupBy(without(here, there), placeOf)
  const onlyThere = groupBy(without(there, here), placeOf)
  const conflicts = Object.keys(onlyThere)
    .filter((place) => onlyHere[place])
    .map((place): LogConflict => {
      const { day, piece } = onlyThere[place]![0]!
      return { day, piece, here: onlyHere[place]!, there: onlyThere[place]! }
    })
  const added = Object.entries(onlyThere).flatMap(([place, own]) => (onlyHere[place] ? [] : own))
  const lost = new Set(keeping === 'there' ? conflicts.flatMap((c) => c.here) : [])
  const chosen = keeping === 'here' ? [] : conflicts.flatMap((c) => c.there)
  return {
    entries: inOrder([...here.filter((e) => !lost.has(e)), ...added, ...chosen]),
    added: inOrder(added),
    known: there.length - Object.values(onlyThere).flat().length,
    conflicts,
  }
}
