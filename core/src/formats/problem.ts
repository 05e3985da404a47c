/** Something in a source text that the reader could not take as it stands. Lines and columns count from 1. */
export interface Problem {
  readonly severity: 'error' | 'warning' | 'note'
  readonly line: number
  readonly column: number
  /** What is wrong. */
  readonly message: string
  /** What the reader made of it. */
  readonly understood: string
}

/** @example problemText(p) // 'line 5, column 12: … — …' */
export function problemText(p: Problem): string {
  return `line ${p.line}, column ${p.column}: ${p.message} — ${p.understood}`
}

/** Line and column of an offset in a text. */
export function lineColumn(text: string, offset: number): { line: number; column: number } {
  const before = text.slice(0, Math.max(0, offset))
  const line = before.split('\n').length
  return { line, column: before.length - before.lastIndexOf('\n') }
}
