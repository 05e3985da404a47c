/** Instruments and tunings, the geometry of the neck, harmonics, a setup (instrument, tuning, capo, player). */
export { bendEffort, type BendEffort, bendRange } from './stringBend.ts'
export { fingerFromNut, fretFromNut, reach, stringSpacingAt } from './geometry.ts'
export {
  ADULT_SPANS,
  DEFAULT_PLAYER,
  fingersOf,
  type HandSpans,
  kindSpans,
  type LeftFinger,
  PICKING_SCHOOLS,
  type PickingSchool,
  type PickingSign,
  type Player,
  type RightFinger,
  spanOf,
  type Stroke,
  type Techniques,
} from './hand.ts'
export { type Harmonic, type HarmonicPlace, HARMONICS, harmonicsOf } from './harmonics.ts'
export { GUITAR, type Instrument, STANDARD_TUNING, type Tuning } from './instrument.ts'
export { type InstrumentKind, INSTRUMENTS } from './instruments.ts'
export { type PitchPlaces, samePitchPlaces } from './samePitch.ts'
export { type PositionedTone, safeFrets, type ScaleFret, scaleFrets, tonesInPosition } from './scalePlaces.ts'
export {
  artificialPlacesOf,
  fretOnNeck,
  guitarSetup,
  lastFret,
  OCTAVE,
  openPitch,
  pitchAt,
  type Place,
  placesOf,
  type Setup,
  withKindHand,
  withShift,
} from './setup.ts'
export { type CapoChoice, highestCapo, setupOf } from './setupOf.ts'
export {
  namedTunings,
  readTuning,
  retuning,
  tuningById,
  type TuningFault,
  tuningId,
  type TuningId,
  type Turn,
} from './tunings.ts'
