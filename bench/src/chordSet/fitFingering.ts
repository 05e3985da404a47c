import { guitarSetup, type LeftFinger } from '@velvet-porch/core/instrument'
import { eachFingering, fingersByString, GRIP_FEATURES, gripFeatures } from '@velvet-porch/core/hand'
import { transposedShape, type SetPosition } from './chordSet.ts'
import { dot, softmaxFit, type Choice } from './softmaxFit.ts'

/** A position with all its possible fingerings measured. */
interface FingeringChoice extends Choice {
  readonly position: SetPosition
  readonly fingerings: readonly (readonly LeftFinger[])[]
}

export function fingeringChoices(positions: readonly SetPosition[]): {
  choices: FingeringChoice[]
  impossible: SetPosition[]
} {
  const setup = guitarSetup()
  const choices: FingeringChoice[] = []
  const impossible: SetPosition[] = []
  for (const position of positions) {
    if (!position.frets.some((f) => f)) continue
    const alternatives: Float64Array[] = []
    const fingerings: LeftFinger[][] = []
    eachFingering(setup, position.frets, setup.player, (hand) => {
      const features = new Float64Array(GRIP_FEATURES.length)
      gripFeatures(hand, position.frets, 0, features)
      alternatives.push(features)
      fingerings.push(fingersByString(hand, position.frets))
    })
    const taken = fingerings.findIndex((f) => f.every((finger, i) => finger === position.fingers[i]))
    if (taken < 0) impossible.push(position)
    else choices.push({ position, alternatives, fingerings, taken, weight: 1 })
  }
  return { choices, impossible }
}

/** Fits the prices on these choices; a shape that occurs often counts little more than a rare one. */
export function fitFingering(choices: readonly FingeringChoice[]): Float64Array {
  const alike = new Map<string, { choice: FingeringChoice; count: number }>()
  for (const choice of choices) {
    const { frets, fingers } = choice.position
    const key = `${transposedShape(frets)} ${fingers.join('')} ${choice.alternatives.length}`
    const known = alike.get(key)
    if (known) known.count++
    else alike.set(key, { choice, count: 1 })
  }
  const weighed = [...alike.values()].map(({ choice, count }) => ({ ...choice, weight: count ** 0.2 }))
  return softmaxFit(weighed, GRIP_FEATURES.length, {
    start: new Float64Array(GRIP_FEATURES.length),
    ridge: 0.001,
  })
}

/** Share of positions fingered exactly, of those in the first two, and of notes with the set's finger. */
export function fingeringFigures(choices: readonly FingeringChoice[], w: Float64Array) {
  let exact = 0
  let firstTwo = 0
  let notes = 0
  let right = 0
  const wrong: { position: SetPosition; ours: readonly LeftFinger[] }[] = []
  for (const { alternatives, taken, fingerings, position } of choices) {
    const order = alternatives.map((x, i) => [dot(x, w), i] as const).sort((a, b) => a[0] - b[0])
    const first = order[0]![1]
    if (first === taken) exact++
    else wrong.push({ position, ours: fingerings[first]! })
    if (first === taken || order[1]?.[1] === taken) firstTwo++
    position.frets.forEach((fret, i) => {
      if (!fret) return
      notes++
      if (fingerings[first]![i] === position.fingers[i]) right++
    })
  }
  const n = choices.length
  return { positions: n, exact: exact / n, firstTwo: firstTwo / n, byNote: right / notes, wrong }
}
