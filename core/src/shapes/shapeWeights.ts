import type { ShapeFeature } from './shapeFeatures.ts'

/**
 * Price of each feature of a shape. Fitted by `npm run fit:shapes` on the first choices of one half of the open chord
 * data set (a seeded split by transposed shape); figures of both halves stand in docs/shapes.md.
 */
export const SHAPE_WEIGHTS: Readonly<Record<ShapeFeature, number>> = {
  bassNotRoot: 6.152,
  noRoot: 2.173,
  innerMute: 1.528,
  position: 1.348,
  unison: 1.057,
  trebleMute: 0.37,
  bassMute: -1.1,
  openString: -1.6,
  noOpenString: -1.716,
  openUnderHighFret: 0.636,
  omittedTone: 0.915,
  spanMm: 0.026,
  pressedFinger: -0.458,
  sounding: -0.463,
  doubledThird: -0.135,
  fifthInBass: -2.617,
  farUp: 1.063,
  fourFretted: -1.364,
  doubledRoot: -0.211,
  fingering: 0.377,
}
