/** Pitches, keys and scales; chord symbols and their tones; ticks, metres, counts and tempo. */
export {
  bassPitchClass,
  chordIn,
  chordPitchClasses,
  type ChordReading,
  chordText,
  nearestChord,
  readChordIn,
  readChordSymbol,
  type SymbolReading,
  transposeChord,
} from './harmony/chordSymbol.ts'
export { chordNames, degreeIn, spellInChord, toneNeeds, type ToneNeeds } from './harmony/chordTones.ts'
export { nameChord } from './harmony/nameChord.ts'
export { type Interval, intervalOf } from './pitch/interval.ts'
export {
  type Key,
  keyIn,
  keyOf,
  keyText,
  type Mode,
  MODES,
  scaleOf,
  signatureAlter,
  spellInKey,
  transposeKey,
  withOctave,
} from './pitch/key.ts'
export { NOTE_NAMINGS, noteIn, type NoteNaming, pitchIn, toLetters } from './pitch/noteNaming.ts'
export {
  hertz,
  type Midi,
  midiOf,
  mod12,
  nameText,
  type NoteName,
  type Pitch,
  pitchClass,
  type PitchClass,
  pitchText,
  plainName,
  plainPitch,
  readPitch,
  type Step,
  STEPS,
} from './pitch/pitch.ts'
export { degreeAbove, type ScaleName, SCALES, scaleTones } from './pitch/scale.ts'
export { countAt } from './time/count.ts'
export {
  beatLength,
  beatStarts,
  inFullMeasure,
  isCompound,
  measureLength,
  type Metre,
  missingHead,
  strongBeats,
} from './time/metre.ts'
export { USUAL_TEMPO } from './time/tempo.ts'
export { QUARTER, secondsOf, type Ticks, WHOLE } from './time/ticks.ts'
