import type { Id } from '../document/ids.ts'
import type { TuneDoc } from '../document/tune.ts'

/** Hands out ids that a tune does not use yet. */
export interface FreshIds {
  readonly measure: () => Id
  readonly event: () => Id
  readonly chord: () => Id
  readonly tuplet: () => Id
  readonly section: () => Id
  readonly line: () => Id
}

/** @example freshIds(tune).measure() // 'm9' where m8 is the highest */
export function freshIds(tune: TuneDoc): FreshIds {
  return {
    measure: counterAfter('m', tune.measures),
    event: counterAfter('e', tune.events),
    chord: counterAfter('c', tune.chords),
    tuplet: counterAfter('t', tune.tuplets),
    section: counterAfter('s', tune.sections),
    line: counterAfter('l', tune.song?.lines ?? []),
  }
}

function counterAfter(prefix: string, used: readonly { readonly id: Id }[]): () => Id {
  let highest = 0
  for (const { id } of used) {
    const number = Number(id.slice(prefix.length))
    if (id.startsWith(prefix) && Number.isInteger(number)) highest = Math.max(highest, number)
  }
  return () => prefix + String(++highest)
}
