import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { FINGERING_WEIGHTS, GRIP_FEATURES } from '@velvet-porch/core/hand'
import { SHAPE_FEATURES, SHAPE_WEIGHTS } from '@velvet-porch/core/chords'
import { auditChordSet, fingersMakeSense } from './auditSet.ts'
import { fittingHalf, readChordSet } from './chordSet.ts'
import { fingeringChoices, fitFingering } from './fitFingering.ts'
import { firstChoices, fitRanking } from './fitRanking.ts'

/**
 * `npm run fit:fingering` and `npm run fit:ranking`: fits prices on the fitting half of the open chord data set and
 * writes them into the core. Run the first before the second: a fingering's price is a feature of its shape.
 */
const positions = readChordSet()
const inHalf = fittingHalf(positions)
const what = process.argv[2]

if (what === 'fingering') {
  const { choices } = fingeringChoices(positions.filter((p) => inHalf(p) && fingersMakeSense(p)))
  const fitted = fitFingering(choices)
  write('grip/fingeringWeights.ts', GRIP_FEATURES, (feature, i) =>
    // The set has no thumbs: their price stays as it is.
    feature === 'thumb' ? FINGERING_WEIGHTS.thumb : fitted[i]!,
  )
} else if (what === 'ranking') {
  const { sound } = auditChordSet(positions)
  const choices = firstChoices(sound.filter((p) => p.rank === 0 && inHalf(p)))
  const start = Float64Array.from(SHAPE_FEATURES, (f) => SHAPE_WEIGHTS[f])
  const fitted = fitRanking(choices, start)
  write('shapes/shapeWeights.ts', SHAPE_FEATURES, (_, i) => fitted[i]!)
} else throw new Error('Say what to fit: fingering or ranking.')

/** Replaces the numbers in a weights file of the core and keeps its words. */
function write<F extends string>(
  file: string,
  features: readonly F[],
  priceOf: (feature: F, index: number) => number,
): void {
  const path = fileURLToPath(new URL(`../../../core/src/${file}`, import.meta.url))
  const name = file.includes('grip') ? 'FINGERING_WEIGHTS' : 'SHAPE_WEIGHTS'
  const type = file.includes('grip') ? 'GripFeature' : 'ShapeFeature'
  const from = file.includes('grip') ? './gripFeatures.ts' : './shapeFeatures.ts'
  const lines = features.map((f, i) => `  ${f}: ${Number(priceOf(f, i).toFixed(3))},`)
  writeFileSync(
    path,
    `import type { ${type} } from '${from}'\n\n/**\n * Price of each feature. Written by \`npm run fit:${what}\`, fitted on one half of the open chord data set (a seeded\n * split by transposed shape); figures of both halves stand in docs/shapes.md.${what === 'fingering' ? ' The set has no thumbs: the price of\n * the thumb is common practice, no source.' : ''}\n */\nexport const ${name}: Readonly<Record<${type}, number>> = {\n${lines.join('\n')}\n}\n`,
  )
  process.stdout.write(`${lines.join('\n')}\n`)
}
