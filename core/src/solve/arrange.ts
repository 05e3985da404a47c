import type { Id } from '../model/ids.ts'
import { ARRANGEMENT_SCHEMA, type ArrangementDoc, type Layer, type Region } from '../model/arrangement.ts'
import type { TuneDoc } from '../model/tune.ts'
import { pitchText } from '../pitch/pitch.ts'
import { rangeOf, type Setup } from '../neck/setup.ts'
import { plainPitch } from '../pitch/pitch.ts'
import { measureNumbers } from '../form/measureNumbers.ts'
import { makePlan, type Plan } from '../plan/plan.ts'
import { inputHash } from './inputHash.ts'
import { layerOf } from './layerOf.ts'
import { solve, type Solution } from './solve.ts'

/** The tune cannot be arranged on this setup. `measure` is the number printed on the page. */
export class ArrangeError extends Error {
  readonly measure: number | undefined
  constructor(message: string, measure?: number) {
    super(message)
    this.name = 'ArrangeError'
    this.measure = measure
  }
}

export interface Arranged {
  readonly layer: Layer
  readonly plan: Plan
  readonly solution: Solution
}

/**
 * Arranges a tune: plan, then both hands. A generator that yields the share done and may be dropped at any yield.
 * @throws ArrangeError where the melody lies outside the instrument in every octave
 */
export function* arranging(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
): Generator<number, Arranged> {
  const planned = makePlan(tune, setup, regions)
  if (!planned.ok) {
    const number = measureNumbers(tune.measures)[planned.register.measure]!
    const range = rangeOf(setup)
    const span = `${pitchText(plainPitch(range.lowest, false))}–${pitchText(plainPitch(range.highest, false))}`
    const wide = planned.register.reason === 'wide'
    throw new ArrangeError(
      `Measure ${number}: the melody leaves the instrument (${span}) in every octave. ` +
        (wide
          ? 'It spans more than the instrument has: shorten its range.'
          : 'Lower the capo, or write the measure nearer to the rest.'),
      number,
    )
  }
  const { plan } = planned
  const solution = yield* solve(plan, setup)
  return { layer: layerOf(plan, solution, tune, setup), plan, solution }
}

/** Runs a generator to its end and returns its result. */
export function finish<T>(run: Generator<unknown, T>): T {
  let item = run.next()
  while (!item.done) item = run.next()
  return item.value
}

/** One region over the whole tune. */
export function wholeTune(tune: TuneDoc, style: Region['style'], level: Region['level']): Region[] {
  return [{ from: tune.measures[0]!.id, to: tune.measures.at(-1)!.id, style, level }]
}

/** A new arrangement document around an arranged layer. */
export function arrangementOf(
  id: Id,
  name: string,
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  arranged: { readonly layer: Layer; readonly transposed: number },
): ArrangementDoc {
  return {
    schema: ARRANGEMENT_SCHEMA,
    id,
    rev: 1,
    name,
    tuneId: tune.id,
    tuneRev: tune.rev,
    inputHash: inputHash(tune, setup, regions),
    setup,
    regions,
    transposed: arranged.transposed,
    base: arranged.layer,
    variants: [],
  }
}
