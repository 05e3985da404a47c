import type { ReadMeasure, ReadSign } from './readTab.ts'

/** A sign, the number of its onset in the tab, and what was before it on its string. */
interface Reached {
  readonly sign: ReadSign
  readonly onset: number
  readonly from: { readonly sign: ReadSign; readonly onset: number } | undefined
}

/**
 * Settles where slides come from. A slide joins two frets where nothing sounds between them, or where the first has the
 * sign behind it too (`5/--3--/7` on two strings); it begins nowhere where there is no fret to come from, the way is wrong,
 * or the note is plucked.
 */
export function settledSlides(measures: readonly ReadMeasure[]): ReadMeasure[] {
  const changed = new Map<ReadSign, ReadSign>()
  const change = (sign: ReadSign, next: (s: ReadSign) => ReadSign) =>
    changed.set(sign, next(changed.get(sign) ?? sign))
  for (const { sign, onset, from } of reached(measures)) {
    if (sign.lead !== 'slide' || sign.grace) continue
    if (from && joins(sign, onset, from)) {
      change(from.sign, ({ off: _, ...s }) => s)
    } else
      change(sign, ({ lead: _, ...s }) =>
        sign.fret ? { ...s, slidIn: sign.slidUp === false ? 'above' : 'below' } : s,
      )
  }
  if (changed.size === 0) return [...measures]
  return measures.map((m) => ({ ...m, signs: m.signs.map((s) => changed.get(s) ?? s) }))
}

function joins(
  sign: ReadSign,
  onset: number,
  { sign: from, onset: before }: NonNullable<Reached['from']>,
): boolean {
  if (!from.fret || from.muted || from.fret === sign.fret || sign.right !== undefined) return false
  const up = (sign.fret ?? 0) > from.fret
  if (sign.slidUp !== undefined && sign.slidUp !== up) return false
  return from.off === (up ? 'up' : 'down') || onset - before <= 1
}

function* reached(measures: readonly ReadMeasure[]): Generator<Reached> {
  const last = new Map<number, { sign: ReadSign; onset: number }>()
  let onset = 0
  for (const { signs } of measures) {
    let tick: number | undefined
    for (const sign of [...signs].sort((a, b) => a.tick - b.tick || a.column - b.column)) {
      if (sign.held) continue
      if (sign.tick !== tick) onset++
      tick = sign.tick
      yield { sign, onset, from: last.get(sign.string) }
      last.set(sign.string, { sign, onset })
    }
  }
}
