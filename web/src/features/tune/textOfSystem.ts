import { knownIn } from '@velvet-porch/core/invariant'
import type { AbcSpan, TuneDoc } from '@velvet-porch/core/document'

/** Where a text stands in a longer one. */
export interface TextRange {
  readonly from: number
  readonly to: number
}

/**
 * The part of a tune's ABC that writes some of its measures, up to where the next ones begin: bar lines belong to what
 * they close, repeats and line breaks to what they open.
 * @param from index of the first measure
 * @param to index of the last measure
 * @returns undefined where the text does not say where these notes stand, or writes them in several voices
 */
export function textOfSystem(
  tune: TuneDoc,
  text: string,
  spans: readonly AbcSpan[],
  from: number,
  to: number,
): TextRange | undefined {
  if (tune.events.some((e) => e.voice !== 0)) return undefined
  const spanOf = new Map(spans.map((s) => [s.target, s]))
  const place = new Map(tune.measures.map((m, i) => [m.id, i]))
  const before: AbcSpan[] = []
  const own: AbcSpan[] = []
  const after: AbcSpan[] = []
  for (const e of tune.events) {
    const span = spanOf.get(e.id)
    if (!span) continue
    const m = knownIn(place, e.pos.measure)
    if (m < from) before.push(span)
    else if (m > to) after.push(span)
    else own.push(span)
  }
  if (own.length === 0) return undefined
  const first = Math.min(...own.map((s) => s.from))
  const last = Math.max(...own.map((s) => s.to))
  const start =
    before.length > 0 ? seam(text, Math.max(...before.map((s) => s.to)), first) : lineStart(text, first)
  const end = after.length > 0 ? seam(text, last, Math.min(...after.map((s) => s.from))) : text.length
  return start <= first && end >= last ? { from: start, to: end } : undefined
}

/** A part of a text with what stands around it; the break at the end of its last line stays where it is. */
export function partIn(
  text: string,
  { from, to }: TextRange,
): { before: string; own: string; after: string } {
  const end = text[to - 1] === '\n' && to > from ? to - 1 : to
  return { before: text.slice(0, from), own: text.slice(from, end), after: text.slice(end) }
}

const lineStart = (text: string, at: number) => text.lastIndexOf('\n', at - 1) + 1

/** Where the text between two notes is parted: after a line break, before an opening repeat, or after a bar line. */
function seam(text: string, from: number, to: number): number {
  const gap = text.slice(from, to)
  const line = gap.lastIndexOf('\n')
  if (line >= 0) return from + line + 1
  const opening = gap.includes(':|:') || gap.includes('::') ? -1 : gap.indexOf('|:')
  if (opening >= 0) return from + opening
  const bar = /^.*(\|\]|\|+)/.exec(gap)
  return from + (bar ? bar[0].length : gap.length)
}
