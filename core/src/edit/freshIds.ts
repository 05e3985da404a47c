import type { Id } from '../model/ids.ts'
import type { TuneDoc } from '../model/tune.ts'

/** Hands out ids that a tune does not use yet. */
export interface FreshIds {
  readonly measure: () => Id
  readonly event: () => Id
  readonly chord: () => Id
  readonly tuplet: () => Id
  readonly section: () => Id
}

/** @example freshIds(tune).measure() // 'm9' where m8 is the highest */
export function freshIds(tune: TuneDoc): FreshIds {
  return {
    measure: counterAfter(
      'm',
      tune.measures.map((m) => m.id),
    ),
    event: counterAfter(
      'e',
      tune.events.map((e) => e.id),
    ),
    chord: counterAfter(
      'c',
      tune.chords.map((c) => c.id),
    ),
    tuplet: counterAfter(
      't',
      tune.tuplets.map((t) => t.id),
    ),
    section: counterAfter(
      's',
      tune.sections.map((s) => s.id),
    ),
  }
}

function counterAfter(prefix: string, used: readonly Id[]): () => Id {
  let highest = 0
  for (const id of used) {
    const number = Number(id.slice(prefix.length))
    if (id.startsWith(prefix) && Number.isInteger(number)) highest = Math.max(highest, number)
  }
  return () => prefix + String(++highest)
}
