import type { ShapeFeature } from './shapeFeatures.ts'

/**
 * Price of each feature. Written by `npm run fit:ranking`, fitted on one half of the open chord data set (a seeded
 * split by transposed shape); figures of both halves stand in docs/shapes.md.
 */
export const SHAPE_WEIGHTS: Readonly<Record<ShapeFeature, number>> = {
  bassNotRoot: 6.152,
  noRoot: 2.173,
  innerMute: 1.447,
  position: 1.348,
  unison: 1.057,
  trebleMute: 0.29,
  bassMute: -1.181,
  openString: -1.598,
  noOpenString: -1.715,
  openUnderHighFret: 0.636,
  omittedTone: 0.914,
  spanMm: 0.026,
  pressedFinger: -0.457,
  sounding: -0.548,
  doubledThird: -0.135,
  fifthInBass: -2.617,
  farUp: 1.063,
  fourFretted: -1.367,
  doubledRoot: -0.209,
  fingering: 0.376,
}
