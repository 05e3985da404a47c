import { finish } from '../solve/arrange.ts'
import { newMemory, type SolveMemory } from '../solve/prepare.ts'
import { familiesOf, type FitQuestion } from './fitQuestion.ts'
import { estimateFamily, workOut, type FitOption, type WorkedOut } from './fitSweep.ts'
import { finalists, type Preferences } from './preferences.ts'

/** All options of a question: those worked out in full first come with their arrangement. */
export interface Swept {
  readonly estimates: readonly FitOption[]
  readonly worked: readonly WorkedOut[]
}

/** Estimates every choice and works out the finalists, in one thread; yields the share done. */
export function* sweep(question: FitQuestion, preferences: Preferences): Generator<number, Swept> {
  const families = familiesOf(question)
  const memories = new Map<string, SolveMemory>()
  const estimates: FitOption[] = []
  for (const [i, family] of families.entries()) {
    yield (0.4 * i) / families.length
    const key = family.tuning.join()
    // Grips of a tuning serve all its keys; the last search does not.
    const memory = { ...(memories.get(key) ?? newMemory()), traces: [] }
    memories.set(key, memory)
    estimates.push(...finish(estimateFamily(question, family, memory)))
  }
  const chosen = finalists(estimates, preferences)
  const worked: WorkedOut[] = []
  for (const [i, option] of chosen.entries()) {
    yield 0.4 + (0.6 * i) / chosen.length
    const found = finish(workOut(question, option.choice))
    if (found) worked.push(found)
  }
  return { estimates, worked }
}
