import { isMidi } from './parsedMidi.ts'

const HEAD = 'data:audio/midi;base64,'

/** Letters that a step of the encoding takes at once: more would not fit on the call stack. */
const STEP = 0x8000

/** A MIDI file as a text, so that it can be read where texts are. */
export function midiAsText(bytes: Uint8Array): string {
  let letters = ''
  for (let at = 0; at < bytes.length; at += STEP)
    letters += String.fromCharCode(...bytes.subarray(at, at + STEP))
  return HEAD + btoa(letters)
}

/** The MIDI file in such a text; undefined for any other text. */
export function midiInText(text: string): Uint8Array | undefined {
  if (!text.startsWith(HEAD)) return undefined
  try {
    const bytes = Uint8Array.from(atob(text.slice(HEAD.length)), (c) => c.charCodeAt(0))
    return isMidi(bytes) ? bytes : undefined
  } catch {
    return undefined
  }
}
