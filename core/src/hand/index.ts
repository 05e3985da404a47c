/** What a hand can hold and how hard that is: fingerings, their rules and prices, ringing, effort. */
export {
  type CeilingReason,
  effortOf,
  type EffortPart,
  type MeasureEffort,
  type TempoCeiling,
  tuneEffort,
  type TuneEffort,
} from './effort/effort.ts'
export {
  cheapestFingering,
  eachFingering,
  type Fingering,
  type FingeringReason,
  fingeringReasons,
  fingeringsOf,
  type FingeringVisit,
  fingersByString,
} from './grip/fingering.ts'
export { FINGERING_WEIGHTS } from './grip/fingeringWeights.ts'
export { type FingerPlace, GRIP_FEATURES, type GripFeature, gripFeatures } from './grip/gripFeatures.ts'
export { handFault, type HandFault, widestReach } from './grip/handRules.ts'
export { leftFinger, type Pressed, pressedOf, THUMB } from './grip/pressed.ts'
export { ringOf } from './ring/ring.ts'
export { fingerMoves, type FingerMove, type MoveKind } from './moves/fingerMoves.ts'
export {
  type Finger,
  type FingerSpan,
  heldOn,
  type PlacedFinger,
  placedFingers,
} from './moves/placedFinger.ts'
