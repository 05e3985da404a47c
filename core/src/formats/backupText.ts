import type { Backup, BackupRow, BackupTable } from '../schema/backupSchema.ts'
import { BACKUP_TABLES } from '../schema/backupSchema.ts'

/** What ends the line in front of the tables. */
const TABLES_BEGIN = '"rows":{'

/**
 * A backup as JSON, piece by piece: each row on a line of its own, so that neither who writes nor who reads it ever holds the
 * text of a whole shelf, which may be longer than a string can be.
 */
export function* backupText({ rows, ...head }: Backup): Generator<string> {
  yield `${JSON.stringify(head).slice(0, -1)},${TABLES_BEGIN}\n`
  for (const [t, table] of BACKUP_TABLES.entries()) {
    const list = rows[table]
    yield `${JSON.stringify(table)}:[\n`
    for (const [i, row] of list.entries()) yield `${JSON.stringify(row)}${i < list.length - 1 ? ',' : ''}\n`
    yield t < BACKUP_TABLES.length - 1 ? '],\n' : ']\n'
  }
  yield '}}\n'
}

const NEWLINE = 10
const TABLE = /^"(\w+)":\[$/

/**
 * Reads the text of a backup, row by row where it has a line for each, whole where it is older or was written elsewhere. Yields the
 * share that is read.
 * @returns what the JSON says, not yet checked
 * @throws SyntaxError where it is no JSON
 */
export function* readingBackupText(bytes: Uint8Array): Generator<number, unknown> {
  const decoder = new TextDecoder('utf-8', { fatal: true })
  const head = lineAt(bytes, 0)
  if (!endsWith(bytes.subarray(0, head), TABLES_BEGIN)) return JSON.parse(new TextDecoder().decode(bytes))
  const rows: Partial<Record<BackupTable, BackupRow[]>> = {}
  let table: BackupRow[] | undefined
  for (let from = head + 1, n = 0; from < bytes.length; n++) {
    if (n % 16 === 0) yield from / bytes.length
    const to = lineAt(bytes, from)
    const line = decoder.decode(bytes.subarray(from, to))
    from = to + 1
    const begins = TABLE.exec(line)
    if (begins) rows[begins[1] as BackupTable] = table = []
    else if (line.startsWith('{')) {
      if (!table) throw new SyntaxError('A row stands outside its table')
      table.push(JSON.parse(line.endsWith(',') ? line.slice(0, -1) : line) as BackupRow)
    } else if (line === ']' || line === '],') table = undefined
    else if (line === '}}')
      return { ...(JSON.parse(`${decoder.decode(bytes.subarray(0, head))}}}`) as object), rows }
    else throw new SyntaxError('A line is no row')
  }
  // Cut off: half a shelf would pass for a whole one.
  throw new SyntaxError('The end is missing')
}

/** Where the line that begins at a byte ends. */
function lineAt(bytes: Uint8Array, from: number): number {
  const at = bytes.indexOf(NEWLINE, from)
  return at < 0 ? bytes.length : at
}

function endsWith(bytes: Uint8Array, text: string): boolean {
  const from = bytes.length - text.length
  return from >= 0 && [...text].every((c, i) => bytes[from + i] === c.charCodeAt(0))
}
