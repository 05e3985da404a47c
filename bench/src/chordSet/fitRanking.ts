import { guitarSetup } from '@velvet-porch/core/instrument'
import { cheapestFingering } from '@velvet-porch/core/hand'
import {
  enumerateShapes,
  fingeringFeature,
  SHAPE_AT,
  SHAPE_FEATURES,
  shapeFeatures,
  shapeGoal,
  shapeQuery,
} from '@velvet-porch/core/chords'
import type { SetPosition } from './chordSet.ts'
import { softmaxFit, type Choice } from './softmaxFit.ts'
import { chordOf } from './suffixes.ts'

/** The set's first choice for a chord among every shape that the chord allows. */
export interface FirstChoice extends Choice {
  readonly position: SetPosition
}

/** Every shape of each first choice's chord, measured. Chords whose first choice is not found are left out. */
export function firstChoices(positions: readonly SetPosition[]): FirstChoice[] {
  const setup = guitarSetup()
  const choices: FirstChoice[] = []
  for (const position of positions) {
    const chord = chordOf(position)
    if (!chord) continue
    const goal = shapeGoal(chord, {})
    const alternatives: Float64Array[] = []
    let taken = -1
    enumerateShapes(setup, shapeQuery(chord, {}), setup.player, (frets) => {
      const fingering = cheapestFingering(setup, frets, setup.player)
      if (fingering === undefined) return
      const features = new Float64Array(SHAPE_FEATURES.length)
      shapeFeatures(setup, frets, goal, features)
      features[SHAPE_AT.fingering] = fingeringFeature(fingering)
      if (frets.every((f, i) => f === position.frets[i])) taken = alternatives.length
      alternatives.push(features)
    })
    if (taken >= 0) choices.push({ position, alternatives, taken, weight: 1 })
  }
  return choices
}

/** Fits the prices of shapes so that the first choices come first. */
export function fitRanking(choices: readonly FirstChoice[], start: Float64Array): Float64Array {
  return softmaxFit(choices, SHAPE_FEATURES.length, { start, steps: 250 })
}
