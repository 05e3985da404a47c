import type { Region } from '../arrangement.ts'
import type { Lock } from '../locks.ts'
import type { TuneDoc } from '../tune.ts'
import type { Setup } from '../../instrument/setup.ts'

/**
 * The hash that arrangements of schema 1 carry, as it was: FNV-1a, two halves of 32 bits, of JSON texts, which depend on the
 * order of an object's keys. Kept so that what was up to date stays so; nothing is hashed with it any more.
 */
export function orderedHash(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  locks: readonly Lock[] = [],
): string {
  const { measures, events, chords, tempos, pins = [] } = tune
  // Notes of schema 1 did not say that they were written by hand.
  const unsaid = locks.map((l) => {
    if (l.field !== 'typed') return l
    const { origin: _, ...value } = l.value
    return { ...l, value }
  })
  const withoutWords = events.map(({ lyric: _, moreLyrics: __, ...rest }) => rest)
  let [a, b] = [0x811c9dc5, 0xcbf29ce4]
  const mix = (x: number, y: number) => {
    const before = a
    a = Math.imul(a ^ x, PRIME)
    b = Math.imul(b ^ y ^ (before >>> 7), PRIME)
  }
  for (const part of [measures, withoutWords, chords, tempos, [setup], regions, pins, unsaid]) {
    for (const item of part) mix(...textHash(JSON.stringify(item)))
    mix(0x2c, 0x5d)
  }
  return hex(a) + hex(b)
}

const PRIME = 0x01000193

function textHash(text: string): [number, number] {
  let [a, b] = [0x811c9dc5, 0xcbf29ce4]
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, PRIME)
    b = Math.imul(b ^ (c + i), PRIME)
  }
  return [a, b]
}

const hex = (half: number): string => (half >>> 0).toString(16).padStart(8, '0')
