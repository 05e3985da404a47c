import { parseMidi, type MidiData } from 'midi-file'
import { message, type Message } from '../../messages/message.ts'

/** A MIDI file that cannot be read. */
export class MidiError extends Error {
  override readonly name = 'MidiError'
  constructor(readonly says: Message<'reading'>) {
    super(`${says.code} ${JSON.stringify(says.values)}`)
  }
}

/** The largest MIDI file that is read: an hour of an orchestra stays below it. */
export const LARGEST_MIDI_BYTES = 5_000_000

/** True for bytes that begin as a MIDI file does. */
export const isMidi = (bytes: Uint8Array): boolean =>
  bytes.length >= 4 && String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd'

/** A file as its events, and its ticks of a quarter. */
export interface ParsedMidi {
  readonly quarter: number
  readonly tracks: MidiData['tracks']
}

/**
 * The events of a MIDI file of format 0 or 1, after its chunks are found whole.
 * @throws MidiError where it is none, is cut short, counts in seconds, or holds songs one after the other
 */
export function parsedMidi(bytes: Uint8Array): ParsedMidi {
  if (!isMidi(bytes)) throw new MidiError(message('reading.notMidi'))
  if (bytes.length > LARGEST_MIDI_BYTES)
    throw new MidiError(message('reading.midiTooLarge', { most: LARGEST_MIDI_BYTES / 1_000_000 }))
  checkChunks(bytes)
  let read: MidiData
  try {
    read = parseMidi(bytes)
  } catch (error) {
    throw new MidiError(
      message('reading.badMidi', { reason: error instanceof Error ? error.message : String(error) }),
    )
  }
  const { format, ticksPerBeat } = read.header
  if (format === 2) throw new MidiError(message('reading.midiOfSongs'))
  if (!ticksPerBeat) throw new MidiError(message('reading.midiInSeconds'))
  return { quarter: ticksPerBeat, tracks: read.tracks }
}

/** The parser trusts lengths: they are checked before it is asked. */
function checkChunks(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const cut = () => new MidiError(message('reading.midiCut'))
  if (bytes.length < 14 || view.getUint32(4) < 6) throw cut()
  let tracks = view.getUint16(10)
  let at = 8 + view.getUint32(4)
  while (tracks > 0) {
    if (at + 8 > bytes.length) throw cut()
    at += 8 + view.getUint32(at + 4)
    if (at > bytes.length) throw cut()
    tracks--
  }
}
