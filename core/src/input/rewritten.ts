/** One stretch of a text in whose place another stands. */
export interface TextEdit {
  readonly from: number
  readonly to: number
  readonly text: string
}

/** A text made ready for a parser, which still knows where everything stood. */
export interface Rewritten {
  readonly text: string
  /** The offset in the source of an offset in `text`; inside a replaced stretch, at most that stretch's end. */
  readonly toSource: (offset: number) => number
}

/**
 * Applies edits that do not overlap.
 * @example rewritten('L:/8', [{ from: 2, to: 3, text: '1/' }]).text // 'L:1/8'
 */
export function rewritten(source: string, edits: readonly TextEdit[]): Rewritten {
  const sorted = [...edits].sort((a, b) => a.from - b.from || a.to - b.to)
  /** Where each replaced stretch begins in the new text, with its edit. */
  const marks: { readonly at: number; readonly edit: TextEdit }[] = []
  let text = ''
  let done = 0
  for (const edit of sorted) {
    text += source.slice(done, edit.from)
    marks.push({ at: text.length, edit })
    text += edit.text
    done = edit.to
  }
  text += source.slice(done)
  const toSource = (offset: number): number => {
    let [low, high] = [0, marks.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (marks[middle]!.at <= offset) low = middle + 1
      else high = middle
    }
    const last = marks[low - 1]
    if (!last) return offset
    const { at, edit } = last
    const inside = offset - at
    return inside < edit.text.length
      ? Math.min(edit.from + inside, edit.to)
      : edit.to + inside - edit.text.length
  }
  return { text, toSource }
}

/** One rewriting after another. */
export const rewrittenAgain = (first: Rewritten, edits: readonly TextEdit[]): Rewritten => {
  const second = rewritten(first.text, edits)
  return { text: second.text, toSource: (offset) => first.toSource(second.toSource(offset)) }
}
