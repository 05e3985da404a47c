// What a taste learns from simulated teachers; writes docs/taste.md's figures.
import { fitTaste } from '@velvet-porch/core/taste'
import { traditionalTunes } from '../corpus/tunes.ts'
import { agreement, arrangedWith, atRandom, byTaste, corrections, type Condition } from './corrections.ts'
import { BY_HAND, drawnTeachers, seeded } from './teachers.ts'

const tunes = traditionalTunes()
const training = tunes.filter((_, i) => i % 2 === 0)
const heldOut = tunes.filter((_, i) => i % 2 === 1)
const CONDITION: Condition = { style: 'arpeggio', level: 3, thumbOver: false }

for (const teacher of [...BY_HAND, ...drawnTeachers(8, 7)]) {
  const condition = { ...CONDITION, thumbOver: teacher.prices.thumb !== undefined }
  const made = corrections(training, condition, byTaste(teacher.prices), 30)
  const started = performance.now()
  const fit = fitTaste(made)
  const ms = performance.now() - started
  const sums = { house: 0, taste: 0, all: 0 }
  for (const tune of heldOut) {
    const wanted = arrangedWith(tune, condition, teacher.prices)
    const house = arrangedWith(tune, condition, {})
    const own = arrangedWith(tune, condition, fit.prices)
    if (!wanted || !house || !own) continue
    sums.house += agreement(wanted.arranged, house.arranged).same
    const a = agreement(wanted.arranged, own.arranged)
    sums.taste += a.same
    sums.all += a.all
  }
  const [h, o] = [sums.house / sums.all, sums.taste / sums.all]
  const percent = (x: number) => `${(100 * x).toFixed(1)} %`
  console.log(
    `${teacher.name}: ${made.length} corrections, ${percent(h)} → ${percent(o)}, of what was missing ${percent((o - h) / (1 - h))}, ${ms.toFixed(0)} ms`,
    JSON.stringify(teacher.prices, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(1)) : v)),
    JSON.stringify(fit.prices, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(1)) : v)),
  )
}
for (let seed = 1; seed <= 10; seed++) {
  const random = seeded(seed)
  const made = corrections(
    training,
    CONDITION,
    atRandom(() => random.next().value),
    30,
  )
  console.log('at random', seed, JSON.stringify(fitTaste(made).prices))
}
