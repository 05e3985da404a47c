import { finish } from '../whole/arrange.ts'
import { familiesOf, type FitQuestion } from './fitQuestion.ts'
import { estimating, workOut, type FitOption, type WorkedOut } from './fitSweep.ts'
import { finalists, type Preferences } from './preferences.ts'

/** All options of a question: those worked out in full first come with their arrangement. */
export interface Swept {
  readonly estimates: readonly FitOption[]
  readonly worked: readonly WorkedOut[]
}

/** Estimates every choice and works out the finalists, in one thread; yields the share done. */
export function* sweep(question: FitQuestion, preferences: Preferences): Generator<number, Swept> {
  const families = familiesOf(question)
  const estimates: FitOption[] = []
  let done = 0
  for (const found of estimating(question, families)) {
    if (!found) continue
    estimates.push(...found)
    yield (0.4 * ++done) / families.length
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
