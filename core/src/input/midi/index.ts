/** MIDI files read: melody by track and channel, drawn to a grid. */
export { isMidi, LARGEST_MIDI_BYTES } from './parsedMidi.ts'
export type { MidiChoices } from './midiChoices.ts'
export { type MidiQuantised, type MidiReading, readingMidi } from './readingMidi.ts'
export { FINEST, type Finest, USUAL_QUANTISING } from './quantise.ts'
export { midiAsText, midiInText } from './midiText.ts'
