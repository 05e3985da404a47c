import { TASTE_FEATURES, type TasteFeature } from '../document/taste.ts'
import type { HabitKey } from '../document/habit.ts'
import type { Case, Comparison, HabitComparison, ShapeComparison } from './comparison.ts'
import { fitTaste, onePerPlace } from './fitTaste.ts'
import { chordKey, isAboutSame, keyOf, type TasteDoc, type TasteEntry, type TasteSays } from './tasteDoc.ts'

/** Something that somebody does again and again. */
export interface TasteNotice {
  readonly key: string
  readonly says: TasteSays
  readonly cases: readonly Case[]
  /** An entry that says otherwise; the newer corrections speak against it. */
  readonly against?: TasteEntry
}

/** Places at which a shape must have been taken, and a way, before it is said. No source. */
const SHAPE_CASES = 2
const WAY_CASES = 3
/** Tunes for which a setting was chosen. No source. */
const HABIT_TUNES = 3

/** What the corrections of a taste say that no entry says yet, and that was not turned down. */
export function noticesOf(doc: TasteDoc): TasteNotice[] {
  const found = [...shapeNotices(doc), ...habitNotices(doc), ...priceNotices(doc)]
  return found.flatMap((notice) => {
    if (doc.declined.includes(notice.key)) return []
    const entries = doc.entries.filter((e) => isAboutSame(e.says, notice.says))
    if (entries.some((e) => keyOf(e.says) === notice.key)) return []
    const against = entries.at(-1)
    return [against ? { ...notice, against } : notice]
  })
}

/** The shape that was taken last for each chord, where it was taken at some places since another was. */
function shapeNotices({ comparisons }: TasteDoc): TasteNotice[] {
  const byChord = new Map<string, ShapeComparison[]>()
  for (const c of comparisons)
    if (c.kind === 'shape') byChord.set(chordKey(c.shape), [...(byChord.get(chordKey(c.shape)) ?? []), c])
  return [...byChord.values()].flatMap((own) => {
    const says = { kind: 'shape', shape: own.at(-1)!.shape } as const
    const key = keyOf(says)
    const since = own.findLastIndex((c) => keyOf({ kind: 'shape', shape: c.shape }) !== key)
    const cases = onePerPlace(own.slice(since + 1).map((c) => c.at))
    return cases.length >= SHAPE_CASES ? [{ key, says, cases }] : []
  })
}

/** Settings that were chosen for the last tunes for which any was chosen. */
function habitNotices({ comparisons }: TasteDoc): TasteNotice[] {
  const byKey = new Map<HabitKey, HabitComparison[]>()
  for (const c of comparisons)
    if (c.kind === 'habit') {
      const others = (byKey.get(c.habit.key) ?? []).filter((o) => o.at.tune !== c.at.tune)
      byKey.set(c.habit.key, [...others, c])
    }
  return [...byKey.values()].flatMap((own) => {
    const last = own.slice(-HABIT_TUNES)
    const { habit } = last.at(-1)!
    const says = { kind: 'habit', habit } as const
    const isHabit = last.length === HABIT_TUNES && last.every((c) => c.habit.value === habit.value)
    return isHabit ? [{ key: keyOf(says), says, cases: last.map((c) => c.at) }] : []
  })
}

/** Features that explain what was chosen. */
function priceNotices({ comparisons }: TasteDoc): TasteNotice[] {
  const { prices } = fitTaste(comparisons)
  return TASTE_FEATURES.flatMap((feature) => {
    const price = prices[feature]
    if (price === undefined) return []
    const says = { kind: 'price', feature, price: Number(price.toFixed(1)) } as const
    const cases = onePerPlace(comparisons.filter((c) => leansTo(c, feature, price)).map((c) => c.at))
    return cases.length >= WAY_CASES ? [{ key: keyOf(says), says, cases }] : []
  })
}

/** True where what was taken has more of a wanted feature than what stood there, or less of one that is avoided. */
function leansTo(comparison: Comparison, feature: TasteFeature, price: number): boolean {
  if (comparison.kind !== 'way') return comparison.kind === 'leftOut' && feature === 'fill' && price > 0
  const { ways, taken } = comparison
  const at = TASTE_FEATURES.indexOf(feature)
  return (ways[taken]!.counts[at]! - ways[0]!.counts[at]!) * price < 0
}
