import { pitchText, plainPitch, type Midi } from '../music/pitch/pitch.ts'

/** A pitch as it is named without a key around it. */
export const noteName = (midi: Midi) => pitchText(plainPitch(midi, false))
