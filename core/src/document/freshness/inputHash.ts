import type { Region } from '../arrangement.ts'
import type { Lock } from '../locks.ts'
import { contentText } from '../content.ts'
import type { TuneDoc, TuneEvent } from '../tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { finish, type Turns } from '../../turns.ts'

/**
 * A hash (FNV-1a, two halves of 32 bits) of everything that the solver reads, by content: the order of an object's keys does
 * not count. Equal hashes mean that an arrangement is up to date; titles, words, source texts and revisions do not count. What was hashed once is known by its object: an
 * edit asks again and again about almost the same tune.
 */
export const inputHash = (
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  locks: readonly Lock[] = [],
): string => finish(hashing(tune, setup, regions, locks))

/** The same in turns: what is new is hashed item by item. */
export function* hashing(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  locks: readonly Lock[] = [],
): Turns<string> {
  const { measures, events, chords, tempos, pins = [] } = tune
  const parts = [measures, events.map(asSolved), chords, tempos, [setup], regions, pins, locks]
  let hash = EMPTY
  let turn = 0
  for (const part of parts) {
    for (const item of part) {
      if (++turn % 1024 === 0) yield
      hash = mixed(hash, hashOf(item))
    }
    hash = mixed(hash, END)
  }
  return BY_CONTENT + hex(hash.a) + hex(hash.b)
}

/** Begins every hash of this kind: arrangements of schema 1 carry another one (see `orderedHash.ts`). */
const BY_CONTENT = 'c'

/** True for a hash of content. */
export const isByContent = (hash: string): boolean => hash.startsWith(BY_CONTENT)

interface Hash {
  readonly a: number
  readonly b: number
}

const PRIME = 0x01000193
const EMPTY: Hash = { a: 0x811c9dc5, b: 0xcbf29ce4 }
/** Stands between the parts, so that nothing can pass from one into the next. */
const END: Hash = { a: 0x2c, b: 0x5d }

const mixed = (before: Hash, { a, b }: Hash): Hash => ({
  a: Math.imul(before.a ^ a, PRIME),
  b: Math.imul(before.b ^ b ^ (before.a >>> 7), PRIME),
})

const hex = (half: number): string => (half >>> 0).toString(16).padStart(8, '0')

const known = new WeakMap<object, Hash>()

function hashOf(item: object): Hash {
  const own = known.get(item)
  if (own) return own
  const text = contentText(item)
  let { a, b } = EMPTY
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, PRIME)
    b = Math.imul(b ^ (c + i), PRIME)
  }
  const hash = { a, b }
  known.set(item, hash)
  return hash
}

const solved = new WeakMap<TuneEvent, object>()

/** A note as the solver reads it: not its words. */
function asSolved(event: TuneEvent): object {
  const own = solved.get(event)
  if (own) return own
  const { lyric: _, moreLyrics: __, ...rest } = event
  solved.set(event, rest)
  return rest
}
