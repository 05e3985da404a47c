import { present } from '@velvet-porch/core/invariant'
import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import type { School, Score } from '@velvet-porch/core/document'
import { readTextTab, scoreOfTab, TabReadError } from '@velvet-porch/core/input'
import { kindOf } from '@velvet-porch/core/input/any'
import { playerFrom } from './playerFrom.ts'
import { readText } from './readInput.ts'
import { UsageError } from './usage.ts'
import { problemText, problemWords, say } from './words.ts'

/** True for a file that holds text tab and no ABC. */
export const holdsTab = (file: string): boolean => isTab(readText(file).text)

const isTab = (text: string): boolean => kindOf(text) === 'tab'

/** The score of a file of text tab: its places with both hands found, and what was odd about it. */
export function scoreFrom(
  file: string,
  player: string | undefined,
  school: School,
): { score: Required<Score>; warnings: string[] } {
  const { text, note } = readText(file)
  if (!isTab(text))
    throw new UsageError(
      `${file}: this is no text tab. Lines of four or six strings with frets and bars are read; ABC is arranged by porch arrange.`,
    )
  const read = readTextTab(text)
  const warnings = [...(note ? [say(note)] : []), ...read.problems.map(problemText)]
  try {
    const hand = player ? playerFrom(player) : DEFAULT_PLAYER
    const { tune, arrangement, problems } = scoreOfTab(read, 'tune', hand, 'Tab', { school })
    return {
      score: { tune, arrangement: present(arrangement) },
      warnings: [...warnings, ...problems.map(problemText)],
    }
  } catch (error) {
    if (!(error instanceof TabReadError)) throw error
    const { what, taken } = problemWords(error)
    throw new UsageError(`${file}: ${what}; ${taken}.`)
  }
}
