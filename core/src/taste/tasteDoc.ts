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

/** Names what an entry is about: a feature, or a shape of a chord in a tuning. */
export const keyOf = (says: TasteSays): string =>
  says.kind === 'price'
    ? `${says.feature} ${says.price < 0 ? 'wanted' : 'avoided'}`
    : `${chordKey(says.shape)} ${says.shape.frets.join()} ${says.shape.fingers.join()}`

export const chordKey = ({ chord, tuning }: Pick<TasteShape, 'chord' | 'tuning'>): string =>
  `${chord} ${tuning.join()}`

/** True where two entries cannot both hold: one feature, or one chord. */
export const isAboutSame = (a: TasteSays, b: TasteSays): boolean =>
  a.kind === 'price'
    ? b.kind === 'price' && a.feature === b.feature
    : b.kind === 'shape' && chordKey(a.shape) === chordKey(b.shape)

/** For whom something is arranged. */
export interface TasteFor {
  readonly tune: Id
  readonly student?: Id
}

/** What comes first where two entries are about the same. */
const NARROWNESS = { always: 0, student: 1, tune: 2 } as const

/** What of a taste holds for a tune and a student; undefined where nothing does. */
export function tasteInForce(doc: TasteDoc, { tune, student }: TasteFor): TasteInForce | undefined {
  const holds = ({ on, scope }: TasteEntry) =>
    on && (scope.kind === 'always' || (scope.kind === 'tune' ? scope.id === tune : scope.id === student))
  const prices: Partial<Record<TasteFeature, number>> = {}
  const shapes = new Map<string, TasteShape>()
  // The narrower and the later come over the wider and the earlier.
  const entries = doc.entries
    .filter(holds)
    .map((entry, i) => ({ entry, i }))
    .sort((a, b) => NARROWNESS[a.entry.scope.kind] - NARROWNESS[b.entry.scope.kind] || a.i - b.i)
  for (const { entry } of entries) {
    if (entry.says.kind === 'price') prices[entry.says.feature] = entry.says.price
    else shapes.set(chordKey(entry.says.shape), entry.says.shape)
  }
  if (entries.length === 0) return undefined
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
