import type { Midi } from '../../music/pitch/pitch.ts'

/**
 * The note that a MIDI message begins; undefined for every other message. A note-on is a status byte 9x with a velocity
 * over 0: with velocity 0 it ends the note (MIDI 1.0 Detailed Specification, channel voice messages).
 * @param data the bytes of one message
 * @example midiNote([0x90, 60, 100]) // 60
 */
export function midiNote(data: ArrayLike<number>): Midi | undefined {
  const [status = 0, note = 0, velocity = 0] = Array.from(data)
  return data.length >= 3 && status >> 4 === 0x9 && velocity > 0 && note < 128 ? note : undefined
}
