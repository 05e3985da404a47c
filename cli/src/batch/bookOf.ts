import { basename } from 'node:path'
import type { Score } from '@velvet-porch/core/document'
import { ArrangeError } from '@velvet-porch/core/arrange'
import { bookPdf, closeBrowser } from '../convert/drawn.ts'
import { scoreOf, withTab } from '../convert/scoresFrom.ts'
import { whole } from '../convert/writeScore.ts'
import type { ArrangeValues } from '../options.ts'
import { readText } from '../readInput.ts'
import { understoodFrom } from '../tuneFrom.ts'
import { UsageError } from '../usage.ts'
import { say } from '../words.ts'

/** All tunes of some files as one PDF: title, contents, each tune from a page of its own. What cannot be printed is named and left out. */
export async function bookOf(files: readonly string[], out: string, values: ArrangeValues): Promise<void> {
  const scores: Required<Score>[] = []
  let failed = 0
  const fail = (label: string, error: unknown) => {
    failed++
    const reason =
      error instanceof ArrangeError ? say(error.says) : error instanceof Error ? error.message : String(error)
    process.stderr.write(`${label}: ${reason}\n`)
  }
  for (const file of files) {
    try {
      for (const [i, tune] of understoodFrom(file, readText(file).text, values).tunes.entries())
        try {
          scores.push(withTab(scoreOf(tune), tune.song, values))
        } catch (error) {
          fail(`${file}, tune ${i + 1}`, error)
        }
    } catch (error) {
      fail(file, error)
    }
  }
  if (scores.length === 0) throw new UsageError('No tune could be printed.')
  try {
    whole(out, await bookPdf(basename(out).replace(/\.pdf$/i, ''), scores))
  } finally {
    await closeBrowser()
  }
  process.stderr.write(`${scores.length} tunes in ${out}, ${failed} failed.\n`)
  if (failed > 0) process.exitCode = 1
}
