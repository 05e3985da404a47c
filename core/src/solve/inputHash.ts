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
  const { pins } = tune
  const rest = JSON.stringify([
    setup,
    regions,
    ...(pins?.length ? [pins] : []),
    ...(locks.length ? ['locks', locks] : []),
  ])
  const { a, b } = taken(headOf(tune), `,${rest.slice(1)}`)
  return (a >>> 0).toString(16).padStart(8, '0') + (b >>> 0).toString(16).padStart(8, '0')
}

/** Both halves of a hash so far, and how many letters went in. */
interface Hashed {
  readonly a: number
  readonly b: number
  readonly length: number
}

const EMPTY: Hashed = { a: 0x811c9dc5, b: 0xcbf29ce4, length: 0 }

function taken(before: Hashed, text: string): Hashed {
  let { a, b } = before
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, 0x01000193)
    b = Math.imul(b ^ (c + before.length + i), 0x01000193)
  }
  return { a, b, length: before.length + text.length }
}

type Head = Pick<TuneDoc, 'measures' | 'chords' | 'tempos'> & { readonly hashed: Hashed }

/** What the music of a tune hashes to, by its events: an edit of the tab asks again and again about the same tune. */
const heads = new WeakMap<TuneDoc['events'], Head>()

function headOf({ measures, events, chords, tempos }: TuneDoc): Hashed {
  const known = heads.get(events)
  if (known?.measures === measures && known.chords === chords && known.tempos === tempos) return known.hashed
  const text = JSON.stringify([
    measures,
    events.map(({ lyric: _, moreLyrics: __, ...e }) => e),
    chords,
    tempos,
  ])
  const hashed = taken(EMPTY, text.slice(0, -1))
  heads.set(events, { measures, chords, tempos, hashed })
  return hashed
}
