import { message, type Message } from '../messages/message.ts'

/** The largest text source that is read; a book of two thousand tunes stays below it. */
export const LARGEST_SOURCE_BYTES = 2_000_000

export type SourceText =
  | { readonly ok: true; readonly text: string; readonly note?: Message<'files'> }
  | { readonly ok: false; readonly says: Message<'files'> }

/**
 * Turns a file's bytes into text: UTF-16 where a byte-order mark says so, UTF-8, else Latin-1 (said in `note`), with line ends made alike.
 * Refuses what is empty, too large or not text, and says the way out.
 */
export function decodeSource(bytes: Uint8Array): SourceText {
  if (bytes.length === 0) return { ok: false, says: message('files.empty') }
  if (bytes.length > LARGEST_SOURCE_BYTES) {
    const size = (bytes.length / 1_000_000).toFixed(1)
    return {
      ok: false,
      says: message('files.tooLarge', { size, most: LARGEST_SOURCE_BYTES / 1_000_000 }),
    }
  }
  const wide = wideEncoding(bytes)
  if (wide) return { ok: true, text: plainLines(new TextDecoder(wide).decode(bytes)) }
  if (looksBinary(bytes)) {
    return { ok: false, says: message('files.notText') }
  }
  try {
    return { ok: true, text: plainLines(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) }
  } catch {
    const text = plainLines(new TextDecoder('latin1').decode(bytes))
    return { ok: true, text, note: message('files.otherEncoding') }
  }
}

/**
 * An XML text from its bytes: by its byte-order mark, else by the encoding that its first line says, else UTF-8 (XML 1.0, appendix F).
 */
export function decodedXml(bytes: Uint8Array): string {
  const wide = wideEncoding(bytes) ?? (bytes[0] === 0 ? 'utf-16be' : bytes[1] === 0 ? 'utf-16le' : undefined)
  if (wide) return plainLines(new TextDecoder(wide).decode(bytes))
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200))
  const stated = /encoding\s*=\s*["']([\w.-]+)["']/.exec(head)?.[1]
  try {
    return plainLines(new TextDecoder(stated ?? 'utf-8').decode(bytes))
  } catch {
    return plainLines(new TextDecoder('utf-8').decode(bytes))
  }
}

/** One kind of line end, no byte-order mark. */
export function plainLines(text: string): string {
  return text.replace(/^\uFEFF/, '').replace(/\r\n?|\u2028|\u2029/g, '\n')
}

/** Tabulators as spaces, to every eighth column. */
export function untabbed(line: string): string {
  if (!line.includes('\t')) return line
  let out = ''
  for (const c of line) out += c === '\t' ? ' '.repeat(8 - (out.length % 8)) : c
  return out
}

/**
 * True for a text that is JSON, and no song whose first line is a directive.
 * @example isJson('{title: Willow Ferry}') // false
 */
export const isJson = (text: string): boolean => /^\s*\{\s*(?:"|\})/.test(text)

/** The encoding in words of two bytes that a byte-order mark names. */
function wideEncoding([a, b]: Uint8Array): 'utf-16be' | 'utf-16le' | undefined {
  if (a === 0xfe && b === 0xff) return 'utf-16be'
  return a === 0xff && b === 0xfe ? 'utf-16le' : undefined
}

function looksBinary(bytes: Uint8Array): boolean {
  const sample = bytes.subarray(0, 8192)
  let control = 0
  for (const b of sample) {
    if (b === 0) return true
    if (b < 32 && b !== 9 && b !== 10 && b !== 13 && b !== 12) control++
  }
  return control > sample.length / 50
}
