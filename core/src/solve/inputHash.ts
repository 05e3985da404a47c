import type { Lock, Region } from '../model/arrangement.ts'
import type { TuneDoc } from '../model/tune.ts'
import type { Setup } from '../neck/setup.ts'

/**
 * A hash (FNV-1a, 53 bits in two halves) of everything that the solver reads. Equal hashes mean that an arrangement
 * is up to date; titles, source texts and revisions do not count.
 */
export function inputHash(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  locks: readonly Lock[] = [],
): string {
  const { measures, events, chords, tempos, pins } = tune
  const text = JSON.stringify([
    measures,
    events.map(({ lyric: _, moreLyrics: __, ...e }) => e),
    chords,
    tempos,
    setup,
    regions,
    ...(pins?.length ? [pins] : []),
    ...(locks.length ? ['locks', locks] : []),
  ])
  let a = 0x811c9dc5
  let b = 0xcbf29ce4
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, 0x01000193)
    b = Math.imul(b ^ (c + i), 0x01000193)
  }
  return (a >>> 0).toString(16).padStart(8, '0') + (b >>> 0).toString(16).padStart(8, '0')
}
