import type { Id } from '../../document/ids.ts'
import { isArrival, type Arrival, type Span, type TabNote } from '../../document/tab.ts'

/** An end of what joins two notes on a string. */
export interface JoinEnd {
  readonly kind: Arrival
  readonly end: 'start' | 'stop'
  /** Tells joins apart that hold at once: the string. */
  readonly number: number
}

/** The joins of notes: by note, and from and to the short notes before one, by its id and their place. */
export interface Joins {
  readonly of: ReadonlyMap<Id, readonly JoinEnd[]>
  readonly ofGraces: ReadonlyMap<Id, readonly (readonly JoinEnd[])[]>
}

/** What joins the notes of a tab. */
export function joinsOf(notes: readonly TabNote[], spans: readonly Span[]): Joins {
  const of = new Map<Id, JoinEnd[]>()
  const ofGraces = new Map<Id, JoinEnd[][]>()
  const byId = new Map(notes.map((n) => [n.id, n]))
  const add = (id: Id, end: JoinEnd) => of.set(id, [...(of.get(id) ?? []), end])
  for (const n of notes) {
    if (!n.graces || n.graces.length === 0) continue
    const number = n.place.string
    const ends: JoinEnd[][] = n.graces.map(() => [])
    const arrivals = [...n.graces.map((g) => g.attack), n.attack]
    arrivals.forEach((attack, i) => {
      if (i === 0 || !isArrival(attack)) return
      ends[i - 1]!.push({ kind: attack, end: 'start', number })
      const stop = { kind: attack, end: 'stop', number } as const
      if (i < ends.length) ends[i]!.push(stop)
      else add(n.id, stop)
    })
    ofGraces.set(n.id, ends)
  }
  for (const { kind, from, to } of spans) {
    const [a, b] = [byId.get(from), byId.get(to)]
    if (!a || !b || (b.graces?.length ?? 0) > 0) continue
    add(from, { kind, end: 'start', number: a.place.string })
    add(to, { kind, end: 'stop', number: b.place.string })
  }
  return { of, ofGraces }
}
