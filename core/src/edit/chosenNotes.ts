import { knownIn } from '../invariant.ts'
import type { Layer } from '../document/arrangement.ts'
import type { Role, TabNote } from '../document/tab.ts'
import type { TuneDoc } from '../document/tune.ts'

/** What of some measures is meant: every note, those of one voice, or those on one string. */
export type Choosing =
  | { readonly by: 'all' }
  | { readonly by: 'voice'; readonly role: Role }
  | { readonly by: 'string'; readonly string: number }

/**
 * The notes that are meant, in the order of the page. Measures are indices, both ends included.
 * @example chosenNotes(tune, doc.base, 4, 7, { by: 'voice', role: 'bass' })
 */
export function chosenNotes(
  tune: Pick<TuneDoc, 'measures'>,
  { notes }: Pick<Layer, 'notes'>,
  from: number,
  to: number,
  choosing: Choosing,
): TabNote[] {
  const within = new Map(tune.measures.slice(from, to + 1).map((m, i) => [m.id, i]))
  const isChosen = (n: TabNote): boolean => {
    if (!within.has(n.pos.measure)) return false
    if (choosing.by === 'voice') return n.role === choosing.role
    return choosing.by === 'all' || n.place.string === choosing.string
  }
  const measure = (n: TabNote) => knownIn(within, n.pos.measure)
  return notes
    .filter(isChosen)
    .sort((a, b) => measure(a) - measure(b) || a.pos.tick - b.pos.tick || a.place.string - b.place.string)
}
