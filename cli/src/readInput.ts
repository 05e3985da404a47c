import { readFileSync } from 'node:fs'
import { decodeSource, type SourceText } from '@velvet-porch/core/input'
import { UsageError } from './usage.ts'
import { say } from './words.ts'

/** The name that stands for what is piped in. */
const PIPED = '-'

/** Reads a text file, or what is piped in; says plainly why it cannot be read. */
export function readText(file: string): Omit<Extract<SourceText, { ok: true }>, 'ok'> {
  let bytes: Uint8Array
  try {
    bytes = readFileSync(file === PIPED ? process.stdin.fd : file)
  } catch (error) {
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message
    throw new UsageError(`${file}: ${reason}.`)
  }
  const source = decodeSource(bytes)
  if (!source.ok) throw new UsageError(`${file}: ${say(source.says)}`)
  return source
}
