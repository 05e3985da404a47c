import { LANGUAGES } from '@velvet-porch/core/messages'
import type { Setup } from '@velvet-porch/core/instrument'
import type { Layer, TuneDoc } from '@velvet-porch/core/document'
import { lessonScript, scriptText, wordsFor, type Speech } from '@velvet-porch/core/lesson'
import { replayedTab, writtenTab } from '../../../core/test/support/replayedTab.ts'

const SPEECHES = LANGUAGES.flatMap((language) =>
  (['full', 'short'] as const).flatMap((length) =>
    (['names', 'numbers'] as const).map((fingers): Speech => ({ language, length, fingers })),
  ),
)
let turn = 0

/**
 * True where somebody who has only the words of the lesson does not arrive at the tab: strings, frets, fingers, picking
 * and ways of sounding, moment by moment with its count. Every language and way of speaking takes its turn; the first line
 * that differs goes to standard error.
 */
export function lessonDiffers(tune: TuneDoc, setup: Setup, base: Layer): boolean {
  const words = wordsFor(SPEECHES[turn++ % SPEECHES.length]!)
  const text = scriptText(lessonScript(tune, { base, setup }, words))
  let told: string[]
  try {
    told = replayedTab(text, words, tune)
  } catch (e) {
    told = [String(e)]
  }
  const written = writtenTab(tune, base)
  const at = written.findIndex((line, i) => line !== told[i])
  if (at < 0 && told.length === written.length) return false
  process.stderr.write(
    `lesson of ${tune.title}: ${told[at] ?? 'nothing'}\n  instead of ${written[at] ?? 'nothing'}\n`,
  )
  return true
}
