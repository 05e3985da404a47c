import { namedTunings, setupOf } from '@velvet-porch/core/instrument'
import type { TuneDoc } from '@velvet-porch/core/document'
import {
  ALL_SHIFTS,
  familiesOf,
  newMemory,
  ranked,
  sweep,
  USUAL_PREFERENCES,
  wholeTune,
  workOut,
  type FitOption,
  type FitQuestion,
  type SolveMemory,
} from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'

/** Tunings and capos of the comparison. */
const TUNINGS = ['standard', 'dropD', 'dadgad']
const CAPOS = [0, 1, 2, 3, 5, 7]
const FIRST = 5

/** Of how many tunes the sweep's first five are those of working out every choice. */
export function fitRanks(tunes: readonly TuneDoc[]): {
  readonly tunes: number
  readonly same: number
  readonly choices: number
} {
  let same = 0
  let choices = 0
  for (const tune of tunes) {
    const named = namedTunings('guitar')
    const question: FitQuestion = {
      tune,
      regions: wholeTune(tune, 'alternating-bass', 3),
      setup: setupOf('guitar'),
      tunings: TUNINGS.map((id) => named.find((n) => n.id === id)!.tuning),
      shifts: ALL_SHIFTS,
      capos: CAPOS,
      wanted: 0,
    }
    const memories = new Map<string, SolveMemory>()
    const all: FitOption[] = []
    for (const { choices: own } of familiesOf(question))
      for (const choice of own) {
        const key = `${choice.tuning.join()} ${choice.capo}`
        const memory = { ...(memories.get(key) ?? newMemory()), traces: [] }
        memories.set(key, memory)
        const found = finish(workOut(question, choice, memory))
        if (found) all.push(found.option)
      }
    choices += all.length
    const five = (list: readonly FitOption[]) =>
      ranked(list, USUAL_PREFERENCES)
        .slice(0, FIRST)
        .map((o) => o.id)
        .join()
    const swept = finish(sweep(question, USUAL_PREFERENCES))
    if (five(swept.worked.map((w) => w.option)) === five(all)) same++
  }
  return { tunes: tunes.length, same, choices }
}
