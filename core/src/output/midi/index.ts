/** An arrangement as a standard MIDI file. */
export { writeMidi } from './writeMidi.ts'
