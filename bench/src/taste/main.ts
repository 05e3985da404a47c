// What a taste learns from simulated teachers; writes docs/taste.md.
import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { audit } from '@velvet-porch/core/audit'
import type { TuneDoc } from '@velvet-porch/core/document'
import { GRIP_FEATURES } from '@velvet-porch/core/hand'
import { finishedTabOf, tabJson } from '@velvet-porch/core/output'
import { fitTaste } from '@velvet-porch/core/taste'
import { fittingHalf, readChordSet } from '../chordSet/chordSet.ts'
import { fingersMakeSense } from '../chordSet/auditSet.ts'
import { fingeringChoices, fingeringFigures, fitFingering } from '../chordSet/fitFingering.ts'
import { traditionalTunes } from '../corpus/tunes.ts'
import { agreement, arrangedWith, atRandom, byTaste, corrections, type Condition } from './corrections.ts'
import { pageText, type Learned } from './page.ts'
import { BY_HAND, drawnTeachers, seeded, type Teacher } from './teachers.ts'

const CONDITION: Condition = { style: 'arpeggio', level: 3, thumbOver: false }
const MOST_CORRECTIONS = 30
const DRAWN = { count: 8, seed: 7 }
const RANDOM_TEACHERS = 20
const MANY = 500

const tunes = traditionalTunes()
const training = tunes.filter((_, i) => i % 2 === 0)
const heldOut = tunes.filter((_, i) => i % 2 === 1)

/** Structural faults of a finished page. */
function faultsOf(tune: TuneDoc, { arranged, setup }: NonNullable<ReturnType<typeof arrangedWith>>): number {
  return audit(finishedTabOf(tabJson(tune, setup, arranged.plan, arranged.layer, [], 0))).structural
}

function learnedFrom(teacher: Teacher): Learned {
  const condition = { ...CONDITION, thumbOver: teacher.prices.thumb !== undefined }
  const made = corrections(training, condition, byTaste(teacher.prices), MOST_CORRECTIONS)
  const started = performance.now()
  const { prices } = fitTaste(made)
  const ms = performance.now() - started
  let [house, own, all, faults] = [0, 0, 0, 0]
  for (const tune of heldOut) {
    const pages = [teacher.prices, {}, prices].map((p) => arrangedWith(tune, condition, p))
    const [wanted, plain, learned] = pages
    if (!wanted || !plain || !learned) continue
    house += agreement(wanted.arranged, plain.arranged).same
    const found = agreement(wanted.arranged, learned.arranged)
    own += found.same
    all += found.all
    faults += faultsOf(tune, wanted) + faultsOf(tune, learned)
  }
  return {
    teacher,
    made,
    corrections: made.length,
    learned: prices,
    ms,
    house: house / all,
    own: own / all,
    faults,
  }
}

const teachers = [...BY_HAND, ...drawnTeachers(DRAWN.count, DRAWN.seed)].map((teacher) => {
  const learned = learnedFrom(teacher)
  process.stderr.write(
    `${teacher.name}: ${(100 * learned.house).toFixed(1)} → ${(100 * learned.own).toFixed(1)}\n`,
  )
  return learned
})
const atRandomPrices = Array.from({ length: RANDOM_TEACHERS }, (_, i) => {
  const random = seeded(i + 1)
  return fitTaste(
    corrections(
      training,
      CONDITION,
      atRandom(() => random.next().value),
      MOST_CORRECTIONS,
    ),
  ).prices
})

/** Five hundred comparisons, of all teachers. */
const all = teachers.flatMap((t) => t.made)
const many = Array.from({ length: MANY }, (_, i) => all[i % all.length]!)
const started = performance.now()
fitTaste(many)
const manyMs = performance.now() - started

/** The chord data set as a teacher of fingers: from no prices to those of one half, on the other half. */
const positions = readChordSet().filter(fingersMakeSense)
const inHalf = fittingHalf(positions)
const { choices } = fingeringChoices(positions)
const [half, other] = [choices.filter((c) => inHalf(c.position)), choices.filter((c) => !inHalf(c.position))]
const fingers = {
  before: fingeringFigures(other, new Float64Array(GRIP_FEATURES.length)).byNote,
  after: fingeringFigures(other, fitFingering(half)).byNote,
}

writeFileSync(
  fileURLToPath(new URL('../../../docs/taste.md', import.meta.url)),
  pageText({
    teachers,
    atRandomPrices,
    many: { count: many.length, ms: manyMs },
    fingers,
    heldOut: heldOut.length,
  }),
)
