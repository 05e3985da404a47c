import type { Message } from '../messages/message.ts'

/**
 * Something in a source text that the reader could not take as it stands. Lines and columns count from 1; line 0 is the file as a whole.
 */
export interface Problem {
  readonly severity: 'error' | 'warning' | 'note'
  readonly line: number
  readonly column: number
  /** What is odd, and what the reader made of it. */
  readonly says: Message<'reading'>
}

/** Line and column in a text, from 1. */
export interface TextPlace {
  readonly line: number
  readonly column: number
}

/** Finds line and column of offsets in a text; the lines are looked for once. */
export function placesIn(text: string): (offset: number) => TextPlace {
  const starts = [0]
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1)
  return (offset) => {
    const at = Math.min(Math.max(0, offset), text.length)
    let [low, high] = [0, starts.length]
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (starts[middle]! <= at) low = middle
      else high = middle
    }
    return { line: low + 1, column: at - starts[low]! + 1 }
  }
}
