import type { Layer, Region } from '../../document/arrangement.ts'
import { LEVELS } from '../../document/style.ts'
import { opening } from '../../document/opening.ts'
import { tidyRegions } from '../../document/regions.ts'
import { lastFret, type Setup } from '../../instrument/setup.ts'
import { retuning, type Turn } from '../../instrument/tunings.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import { playedMelody } from '../plan/playedMelody.ts'
import { octavesOn } from '../plan/register.ts'
import { refusalOf } from '../plan/styleRules.ts'
import { ArrangeError, arranging } from '../whole/arrange.ts'
import { newMemory, type SolveMemory } from '../search/prepare.ts'
import { fitFigures, type FitFigures } from './fitFigures.ts'
import { choiceId, setupWith, type FitChoice, type FitFamily, type FitQuestion } from './fitQuestion.ts'
import { sungFit, type SungFit } from './voice.ts'

/** One way to fit a tune, with what it costs. */
export interface FitOption {
  readonly id: string
  readonly choice: FitChoice
  /** Semitones by which the melody is moved in all, octaves included. */
  readonly transposed: number
  readonly figures: FitFigures
  /** Semitones by which the melody lies beyond its comfortable range on average; 0 where it is sung. */
  readonly beyond: number
  /** True where only a simple version of the tune's opening was arranged so far. */
  readonly estimated: boolean
  /** Semitones from the wanted key. */
  readonly distance: number
  /** The turns of the pegs from the tuning at hand. */
  readonly retuned: readonly Turn[]
  readonly sung: SungFit | undefined
}

/** Measures of the estimate. */
const ESTIMATE_MEASURES = 8

/**
 * Estimates every choice of a family: its tune's opening is arranged once, simply, and measured with each capo's own
 * millimetres. Nothing for a family in which it cannot be played.
 */
export function* estimateFamily(
  question: FitQuestion,
  family: FitFamily,
  memory: SolveMemory = newMemory(),
): Generator<number, FitOption[]> {
  const tune = opening(question.tune, ESTIMATE_MEASURES)
  const regions = tidyRegions(tune, question.regions).map((r) => simpler(r, question))
  const first = lowestOf(family)
  try {
    const { layer, plan } = yield* arranging(tune, setupWith(question.setup, first), regions, { memory })
    const beyond = beyondOf(question, setupWith(question.setup, first), plan.transposed)
    const high = Math.max(0, ...layer.notes.map((n) => n.place.fret))
    return family.choices.flatMap((choice) => {
      const setup = setupWith(question.setup, choice)
      if (high > lastFret(setup, 1)) return []
      const transposed = plan.transposed + choice.capo - first.capo
      const figures = fitFigures(tune, setup, layer, transposed)
      return [optionOf(question, choice, { transposed, figures, beyond, estimated: true })]
    })
  } catch (error) {
    if (error instanceof ArrangeError) return []
    throw error
  }
}

/**
 * The estimates of families, one after the other; undefined on the way to them. Grips of a tuning behind a capo serve all
 * its keys; those behind another capo are other pitches.
 */
export function* estimating(
  question: FitQuestion,
  families: readonly FitFamily[],
): Generator<readonly FitOption[] | undefined, void> {
  const memories = new Map<string, SolveMemory>()
  for (const family of families) {
    const { tuning, capo } = lowestOf(family)
    const key = `${tuning.join()} ${capo}`
    // The last search was of another key.
    const memory = { ...(memories.get(key) ?? newMemory()), traces: [] }
    memories.set(key, memory)
    const run = estimateFamily(question, family, memory)
    let item = run.next()
    for (; !item.done; item = run.next()) yield undefined
    yield item.value
  }
}

/** The choice of a family that is arranged for all: the one with the lowest capo. */
const lowestOf = ({ choices }: FitFamily): FitChoice => choices.reduce((a, b) => (b.capo < a.capo ? b : a))

/** The simplest version of the style that the instrument has. */
function simpler(region: Region, { setup }: FitQuestion): Region {
  const level = LEVELS.find((l) => !refusalOf(region.style, l, setup.instrument)) ?? region.level
  return { ...region, level, ornament: 0 }
}

/** A choice with its arrangement. */
export interface WorkedOut {
  readonly option: FitOption
  readonly layer: Layer
}

/** Arranges a choice in full; undefined where the tune cannot be played so. */
export function* workOut(
  question: FitQuestion,
  choice: FitChoice,
  memory: SolveMemory = newMemory(),
): Generator<number, WorkedOut | undefined> {
  const { tune, regions } = question
  const setup = setupWith(question.setup, choice)
  try {
    const { layer, plan } = yield* arranging(tune, setup, regions, { memory })
    const { transposed } = plan
    const figures = fitFigures(tune, setup, layer, transposed)
    const beyond = beyondOf(question, setup, transposed)
    return { option: optionOf(question, choice, { transposed, figures, beyond, estimated: false }), layer }
  } catch (error) {
    if (error instanceof ArrangeError) return undefined
    throw error
  }
}

/**
 * Estimates as comparable as can be with what is worked out: a simple version is easier, by about the same share
 * everywhere, so that their effort is raised by the median share.
 */
export function comparableEstimates(
  estimates: readonly FitOption[],
  worked: readonly FitOption[],
): FitOption[] {
  const known = new Map(estimates.map((e) => [e.id, e]))
  const shares = worked
    .flatMap((w) => {
      const guess = known.get(w.id)?.figures.effort
      return guess ? [w.figures.effort / guess] : []
    })
    .sort((a, b) => a - b)
  const share = shares[shares.length >> 1] ?? 1
  const raised = (effort: number) => Math.round(effort * share * 10) / 10
  const full = new Set(worked.map((w) => w.id))
  return estimates
    .filter((e) => !full.has(e.id))
    .map((e) => ({
      ...e,
      figures: {
        ...e.figures,
        effort: raised(e.figures.effort),
        hardest: { ...e.figures.hardest, effort: raised(e.figures.hardest.effort) },
      },
    }))
}

/** The same options for another wanted key or singer: the arrangements stay. */
export function forKeyAndSinger(
  options: readonly FitOption[],
  { tune, wanted, voice }: Pick<FitQuestion, 'tune' | 'wanted' | 'voice'>,
): FitOption[] {
  const sung = new Map<number, SungFit | undefined>()
  return options.map((o) => {
    const { shift } = o.choice
    if (!sung.has(shift)) sung.set(shift, voice && sungFit(tune, shift, voice))
    const [distance, fit] = [Math.abs(shift - wanted), sung.get(shift)]
    return o.distance === distance && o.sung === fit ? o : { ...o, distance, sung: fit }
  })
}

/** How far a melody lies beyond its comfortable range where it is moved so. */
function beyondOf({ tune, regions }: FitQuestion, setup: Setup, transposed: number): number {
  const { notes, solo } = playedMelody(tune, timelineOf(tune.measures), regions)
  return octavesOn(notes, setup, solo).find((o) => o.transposed === transposed)?.beyond ?? 0
}

function optionOf(
  { tune, setup, voice, wanted }: FitQuestion,
  choice: FitChoice,
  found: Pick<FitOption, 'transposed' | 'figures' | 'beyond' | 'estimated'>,
): FitOption {
  return {
    id: choiceId(choice),
    choice,
    ...found,
    distance: Math.abs(choice.shift - wanted),
    retuned: retuning(setup.instrument.kind, setup.tuning, choice.tuning),
    sung: voice && sungFit(tune, choice.shift, voice),
  }
}
