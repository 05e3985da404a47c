import { readFileSync } from 'node:fs'
import { decodeSource } from '@velvet-porch/core'
import { UsageError } from './usage.ts'

/** Reads a text file; says plainly why it cannot be read. */
export function readText(file: string): { text: string; note?: string } {
  let bytes: Uint8Array
  try {
    bytes = readFileSync(file)
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message
    throw new UsageError(`${file}: ${reason}.`)
  }
  const source = decodeSource(bytes)
  if (!source.ok) throw new UsageError(`${file}: ${source.reason}`)
  return source.note ? { text: source.text, note: source.note } : { text: source.text }
}
