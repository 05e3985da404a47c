import { BAR_FINGER } from '../../document/barNotes.ts'
import type { Finger, PlacedFinger } from '../../hand/moves/placedFinger.ts'
import type { Expression } from '../../document/expression.ts'
import type { StepNote } from '../steps/lessonStep.ts'
import { capital } from '../text/words/capital.ts'
import type { Wording } from '../text/words/wording.ts'

/** A note as somebody plays it who has only the words; its finger is the one that lies there by then. */
export type ReplayedNote = Omit<StepNote, 'artificial'>

export interface ReplayedStep {
  /** The title of the measure, as it is displayed. */
  readonly measure: string
  readonly count: string
  readonly notes: readonly ReplayedNote[]
  /** All fingers that are down. */
  readonly down: readonly PlacedFinger[]
  readonly expression: Expression
  readonly remark?: string
}

/** The words ask for something that cannot be done or understood. */
export class ReplayError extends Error {
  override readonly name = 'ReplayError'
}

/** What is called so; a name may stand at the head of a sentence. @throws ReplayError where nothing is */
export function nameKey(names: Readonly<Record<string, string>>, name: string): string | number {
  const key = Object.entries(names).find(([, n]) => n === name || capital(n) === name)?.[0]
  if (key === undefined) throw new ReplayError(`Nobody is called “${name}”.`)
  return /^\d$/.test(key) ? Number(key) : key
}

/** The finger that a name means; what carries the bottleneck is called by it. */
export function fingerNamed({ fingers, bottleneck }: Wording, name: string): Finger {
  const key = nameKey({ ...fingers, bottleneck }, name)
  return key === 'bottleneck' ? BAR_FINGER : (key as Finger)
}
