/** One cell of a table. */
export type Cell = string | number | undefined

/** A spreadsheet takes what begins so for a formula. */
const FORMULA = /^[=+\-@\t\r]/

/**
 * A table as comma-separated values (RFC 4180), with a line of names. Text that a spreadsheet would take for a formula gets an
 * apostrophe before it.
 * @example csvOf(['name'], [['Ann, Bo']]) // 'name\r\n"Ann, Bo"\r\n'
 */
export function csvOf(names: readonly string[], rows: readonly (readonly Cell[])[]): string {
  return [names, ...rows].map((row) => `${row.map(cellText).join(',')}\r\n`).join('')
}

function cellText(cell: Cell): string {
  if (cell === undefined) return ''
  if (typeof cell === 'number') return String(cell)
  const text = FORMULA.test(cell) ? `'${cell}` : cell
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text
}
