import { readFileSync } from 'node:fs'
import { fileText, type FileText } from '@velvet-porch/core/input/any'
import { UsageError } from './usage.ts'
import { say } from './words.ts'

/** The name that stands for what is piped in. */
const PIPED = '-'

/** Reads a file as a text, or what is piped in; says plainly why it cannot be read. */
export function readText(file: string): Omit<Extract<FileText, { ok: true }>, 'ok'> {
  let bytes: Uint8Array
  try {
    bytes = readFileSync(file === PIPED ? process.stdin.fd : file)
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message
    throw new UsageError(`${file}: ${reason}.`)
  }
  const source = fileText(bytes)
  if (!source.ok) throw new UsageError(`${file}: ${say(source.says)}`)
  return source
}
