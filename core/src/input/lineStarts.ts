/**
 * Where each line of a text begins, in characters from the text's beginning.
 *
 * @example lineStarts(['X:1', 'K:C', 'CDEF']) // [0, 4, 8]
 */
export function lineStarts(lines: readonly string[]): number[] {
  const starts: number[] = []
  let at = 0
  for (const line of lines) {
    starts.push(at)
    at += line.length + 1
  }
  return starts
}
