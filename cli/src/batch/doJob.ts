import { join } from 'node:path'
import type { Score } from '@velvet-porch/core/document'
import { ArrangeError } from '@velvet-porch/core/arrange'
import { scoreOf } from '../convert/scoresFrom.ts'
import { targetOf } from '../convert/targets.ts'
import { writeScore } from '../convert/writeScore.ts'
import { understoodFrom } from '../tuneFrom.ts'
import { say } from '../words.ts'
import type { Job, JobDone } from './job.ts'

/** Converts what a job holds. Never throws: what failed is said. */
export default async function doJob(job: Job): Promise<JobDone> {
  const { label, text, base, out, targets, values } = job
  const failures: string[] = []
  let written = 0
  const tried = async <T>(work: () => T | Promise<T>): Promise<T | undefined> => {
    try {
      return await work()
    } catch (error) {
      failures.push(
        error instanceof ArrangeError
          ? say(error.says)
          : error instanceof Error
            ? error.message
            : String(error),
      )
      return undefined
    }
  }
  if (text === undefined)
    return { label, tunes: 1, written, failures: [job.failed ?? 'it could not be read.'] }
  const read = await tried(() => understoodFrom(label, text, values))
  const tunes = read?.tunes ?? []
  for (const [i, tune] of tunes.entries()) {
    let score: Score | undefined = await tried(() => scoreOf(tune))
    const name = tunes.length > 1 ? `${base}-${i + 1}` : base
    for (const ending of targets) {
      if (!score) break
      const now: Score = score
      const file = join(out, `${name}.${ending}`)
      const done = await tried(() => writeScore(now, tune.song, targetOf(ending), file, values))
      if (!done) break
      // Arranged once, written many times.
      score = done.score
      written++
    }
  }
  return { label, tunes: Math.max(1, tunes.length), written, failures }
}
