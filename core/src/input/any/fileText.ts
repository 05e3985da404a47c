import { message, type Message } from '../../messages/message.ts'
import { isMidi, LARGEST_MIDI_BYTES } from '../midi/parsedMidi.ts'
import { midiAsText } from '../midi/midiText.ts'
import { isMusicXml } from '../musicxml/isMusicXml.ts'
import { scoreInMxl } from '../musicxml/scoreInMxl.ts'
import { XmlError } from '../musicxml/xmlTree.ts'
import { decodeSource, decodedXml, type SourceText } from '../sourceText.ts'

/** The largest score that is read, in bytes. */
export const LARGEST_SCORE_BYTES = 40_000_000

/** What a file is as a text; or why it cannot be read. */
export type FileText =
  | Extract<SourceText, { ok: true }>
  | { readonly ok: false; readonly says: Message<'files'> | Message<'reading'> }

/**
 * The text of a file of any kind that is read: texts as they are, packed scores unpacked, MIDI files as texts. Told by what is in it, not by
 * its name.
 */
export function fileText(bytes: Uint8Array): FileText {
  if (isMidi(bytes))
    return bytes.length > LARGEST_MIDI_BYTES
      ? { ok: false, says: message('reading.midiTooLarge', { most: LARGEST_MIDI_BYTES / 1_000_000 }) }
      : { ok: true, text: midiAsText(bytes) }
  if (isZip(bytes)) {
    try {
      return { ok: true, text: decodedXml(scoreInMxl(bytes)) }
    } catch (error) {
      if (error instanceof XmlError) return { ok: false, says: error.says }
      throw error
    }
  }
  const xml = bytes.length <= LARGEST_SCORE_BYTES && looksLikeXml(bytes) ? decodedXml(bytes) : undefined
  return xml !== undefined && isMusicXml(xml) ? { ok: true, text: xml } : decodeSource(bytes)
}

/** The first bytes of a zip file (its local file header). */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04

/** True for a text in UTF-8 or UTF-16 that begins with a sign of an element. */
function looksLikeXml(bytes: Uint8Array): boolean {
  const first = [...bytes.subarray(0, 64)].filter((b) => b > 0x20 && b < 0x80)
  return first[0] === 0x3c
}
