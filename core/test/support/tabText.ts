import { DEFAULT_PLAYER } from '../../src/instrument/index.ts'
import { timelineOf, type Score } from '../../src/document/index.ts'
import { harmonyLine } from '../../src/arrange/index.ts'
import { readTextTab, scoreOfTab } from '../../src/input/index.ts'
import { textTab } from '../../src/output/index.ts'

/** The score of a text tab as it is pasted. */
export function scoreOfText(text: string): Required<Score> {
  const { tune, arrangement } = scoreOfTab(readTextTab(text), 'tune', DEFAULT_PLAYER, 'New tune')
  return { tune, arrangement: arrangement! }
}

/** A score as the text tab that is printed. */
export function textOf({ tune, arrangement }: Required<Score>): string {
  const timeline = timelineOf(tune.measures)
  const harmony = harmonyLine(tune, timeline, arrangement.setup.capo[0]!, 0)
  return textTab({ tune, timeline, setup: arrangement.setup, layer: arrangement.base, harmony })
}
