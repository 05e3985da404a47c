import type { Habit } from '../document/habit.ts'
import type { Id } from '../document/ids.ts'
import type { TasteFeature, TasteInForce, TasteShape } from '../document/taste.ts'
import type { Case, Comparison } from './comparison.ts'

export const TASTE_FORMAT = 'velvet-porch-taste'

/** Where an entry holds. */
export type TasteScope =
  | { readonly kind: 'always' }
  | { readonly kind: 'tune'; readonly id: Id; readonly name: string }
  | { readonly kind: 'student'; readonly id: Id; readonly name: string }

/** What an entry says. */
export type TasteSays =
  | { readonly kind: 'price'; readonly feature: TasteFeature; readonly price: number }
  | { readonly kind: 'shape'; readonly shape: TasteShape }
  | { readonly kind: 'habit'; readonly habit: Habit }

/** One thing that somebody likes. */
export interface TasteEntry {
  readonly id: Id
  readonly on: boolean
  readonly says: TasteSays
  readonly scope: TasteScope
  /** Noticed in corrections, or written by hand. */
  readonly from: 'noticed' | 'hand'
  /** The corrections that it comes from. */
  readonly cases: readonly Case[]
}

/** How somebody plays and teaches: entries, and what they were learned from. */
export interface TasteDoc {
  readonly format: typeof TASTE_FORMAT
  readonly version: 1
  readonly id: Id
  readonly name: string
  readonly entries: readonly TasteEntry[]
  readonly comparisons: readonly Comparison[]
  /** What was offered and not wanted (`keyOf`): it is not offered again. */
  readonly declined: readonly string[]
}

/** Most comparisons that are kept: the oldest go first. */
export const MOST_COMPARISONS = 1000

export const newTaste = (id: Id, name: string): TasteDoc => ({
  format: TASTE_FORMAT,
  version: 1,
  id,
  name,
  entries: [],
  comparisons: [],
  declined: [],
})

/** Names what an entry says: a feature and which way, a shape of a chord in a tuning, a habit. */
export function keyOf(says: TasteSays): string {
  if (says.kind === 'price') return `${says.feature} ${says.price < 0 ? 'wanted' : 'avoided'}`
  if (says.kind === 'habit') return `${says.habit.key} ${says.habit.value}`
  return `${chordKey(says.shape)} ${says.shape.frets.join()} ${says.shape.fingers.join()}`
}

export const chordKey = ({ chord, tuning }: Pick<TasteShape, 'chord' | 'tuning'>): string =>
  `${chord} ${tuning.join()}`

/** What an entry is about, whatever it says of it. */
function subjectOf(says: TasteSays): string {
  if (says.kind === 'price') return says.feature
  return says.kind === 'habit' ? says.habit.key : chordKey(says.shape)
}

/** True where two entries cannot both hold: one feature, one chord, one setting. */
export const isAboutSame = (a: TasteSays, b: TasteSays): boolean =>
  a.kind === b.kind && subjectOf(a) === subjectOf(b)

/** For whom something is arranged. */
export interface TasteFor {
  readonly tune: Id
  readonly student?: Id
}

/** What comes first where two entries are about the same. */
const NARROWNESS = { always: 0, student: 1, tune: 2 } as const

/** The entries that hold, the narrower and the later behind the wider and the earlier. */
function holding(doc: TasteDoc, { tune, student }: TasteFor): TasteSays[] {
  const holds = ({ on, scope }: TasteEntry) =>
    on && (scope.kind === 'always' || (scope.kind === 'tune' ? scope.id === tune : scope.id === student))
  return doc.entries
    .filter(holds)
    .map((entry, i) => ({ entry, i }))
    .sort((a, b) => NARROWNESS[a.entry.scope.kind] - NARROWNESS[b.entry.scope.kind] || a.i - b.i)
    .map(({ entry }) => entry.says)
}

/** The settings with which a new arrangement begins. */
export function habitsInForce(doc: TasteDoc, whom: TasteFor): Habit[] {
  const own = holding(doc, whom).flatMap((says) => (says.kind === 'habit' ? [says.habit] : []))
  return [...new Map(own.map((habit) => [habit.key, habit])).values()]
}

/** What of a taste holds for a tune and a student wherever something is arranged; undefined where nothing does. */
export function tasteInForce(doc: TasteDoc, whom: TasteFor): TasteInForce | undefined {
  const prices: Partial<Record<TasteFeature, number>> = {}
  const shapes = new Map<string, TasteShape>()
  for (const says of holding(doc, whom)) {
    if (says.kind === 'price') prices[says.feature] = says.price
    else if (says.kind === 'shape') shapes.set(chordKey(says.shape), says.shape)
  }
  if (Object.keys(prices).length + shapes.size === 0) return undefined
  return { name: doc.name, prices, shapes: [...shapes.values()] }
}

/** A taste with one more entry; one about the same with the same scope gives way. */
export function withEntry(doc: TasteDoc, entry: TasteEntry): TasteDoc {
  const sameScope = (a: TasteScope, b: TasteScope) =>
    a.kind === b.kind && (a.kind === 'always' || (b.kind !== 'always' && a.id === b.id))
  const others = doc.entries.filter(
    (e) => e.id !== entry.id && !(isAboutSame(e.says, entry.says) && sameScope(e.scope, entry.scope)),
  )
  return { ...doc, entries: [...others, entry] }
}

/** A taste with what was chosen noted. */
export const withComparisons = (doc: TasteDoc, more: readonly Comparison[]): TasteDoc => ({
  ...doc,
  comparisons: [...doc.comparisons, ...more].slice(-MOST_COMPARISONS),
})
