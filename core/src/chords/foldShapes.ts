/** What folding needs to know of a shape. */
export interface Foldable {
  readonly frets: readonly (number | null)[]
  readonly cost: number
  readonly family: { readonly kind: string }
}

/** Shapes that a hand sees as one: the row's head first, its variants by cost. */
export interface Folded<S> {
  readonly head: S
  readonly variants: readonly S[]
}

/** Strings on which a variant may differ, by sounding there or not. */
const MOST_DIFFERENT = 2

/** A fuller variant takes the row's head when it costs at most this much more a string. */
const FULLER_MAY_COST = 0.5

/**
 * Folds near-variants into one row: shapes that press the same frets wherever both sound and differ only by outer or
 * doubled strings left out. The head is the fullest that is hardly dearer than the best.
 * @param sorted by cost, cheapest first; rows keep that order
 */
export function foldShapes<S extends Foldable>(sorted: readonly S[]): Folded<S>[] {
  const rows: Folded<S>[] = []
  let left = sorted
  while (left.length > 0) {
    const best = left[0]!
    const head = headOf(
      best,
      left.filter((s) => variants(best, s)),
    )
    const row = left.filter((s) => s !== head && variants(head, s))
    const taken = new Set<S>([head, ...row])
    left = left.filter((s) => !taken.has(s))
    rows.push({ head, variants: row })
  }
  return rows
}

/** The fullest of a row's shapes that is worth its price against the best. */
function headOf<S extends Foldable>(best: S, members: readonly S[]): S {
  const count = sounding(best.frets)
  let head = best
  let gain = 0
  for (const s of members) {
    const worth = (sounding(s.frets) - count) * FULLER_MAY_COST - (s.cost - best.cost)
    if (worth > gain) {
      gain = worth
      head = s
    }
  }
  return head
}

/** The sixth-string form is a shape of its own, though it leaves out strings of a form that few can hold. */
function variants(a: Foldable, b: Foldable): boolean {
  return (a.family.kind === 'sixthString') === (b.family.kind === 'sixthString') && alike(a.frets, b.frets)
}

function alike(a: readonly (number | null)[], b: readonly (number | null)[]): boolean {
  let shared = 0
  let onlyA = 0
  let onlyB = 0
  for (let i = 0; i < a.length; i++) {
    const x = a[i]!
    const y = b[i]!
    if (x !== null && y !== null) {
      if (x !== y) return false
      shared++
    } else if (x !== null) onlyA++
    else if (y !== null) onlyB++
  }
  return shared >= 2 && onlyA + onlyB <= MOST_DIFFERENT && (onlyA === 0 || onlyB === 0)
}

function sounding(frets: readonly (number | null)[]): number {
  let n = 0
  for (const fret of frets) if (fret !== null) n++
  return n
}
