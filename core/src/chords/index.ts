/** Chord shapes: found, ranked, named, described; changes between them and paths through a progression. */
export { bestPair, chordChange, type ChordChange, type FingeredGrip, type ChordMove } from './chordChange.ts'
export { checkClaim, type Claim, type ClaimVerdict, readClaim, readNote } from './claim.ts'
export {
  type AtRisk,
  type Barre,
  barresOf,
  heardIfAllRing,
  openStringsAtRisk,
  type SilentString,
  silentStrings,
} from './describeShape.ts'
export { enumerateShapes, type ShapeQuery } from './enumerateShapes.ts'
export { type Family, familyId } from './family.ts'
export {
  findShapes,
  fingeredShape,
  type FoundShapes,
  freeFingersOf,
  type Shape,
  shownOrder,
  stretchOf,
  withAskedBass,
  type ZoneRows,
} from './findShapes.ts'
export { type Folded, foldShapes } from './foldShapes.ts'
export { fretsText } from './fretsText.ts'
export { fullCapo, nameShape, type ShapeName, soundingPitches } from './nameShape.ts'
export { type ProgressionFilters, progressionPath, type ProgressionStep } from './progression.ts'
export { filtersToRelax, type ShapeFilterName } from './relax.ts'
export { sameNotes, type SameNotes } from './sameNotes.ts'
export {
  fingeringFeature,
  SHAPE_AT,
  SHAPE_FEATURES,
  type ShapeFeature,
  shapeFeatures,
  type ShapeGoal,
} from './shapeFeatures.ts'
export { type ShapeFilters, shapeGoal, shapeQuery, USUAL_HIGHEST_FRET } from './shapeQuery.ts'
export { SHAPE_WEIGHTS } from './shapeWeights.ts'
export { type HeldShape, heldShapesFor, openShapeFor } from './textbook.ts'
export { type Zone, zoneOf } from './zone.ts'
