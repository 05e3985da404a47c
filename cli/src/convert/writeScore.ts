import { renameSync, rmSync, writeFileSync } from 'node:fs'
import type { Score } from '@velvet-porch/core/document'
import { canWrite } from '@velvet-porch/core/formats'
import { finish } from '@velvet-porch/core/turns'
import type { TuneUnderstood } from '@velvet-porch/core/input/any'
import type { ArrangeValues } from '../options.ts'
import { UsageError } from '../usage.ts'
import { drawn } from './drawn.ts'
import { withTab } from './scoresFrom.ts'
import { leftText, needsTab, type Target } from './targets.ts'

/**
 * Writes a score into a file; arranged first where the format is one of tabs and there is none. The file is whole or not there.
 * @returns what was not carried, in a line; and the score as it was written
 */
export async function writeScore(
  score: Score,
  song: TuneUnderstood['song'],
  target: Target,
  file: string,
  values: ArrangeValues,
): Promise<{ readonly left: string; readonly score: Score }> {
  // A drawing or a sound has a tab; a file of the app has one too, as that is what it is for.
  const isArranged = needsTab(target) || values.style !== undefined || target.ending === 'json'
  const written = isArranged ? withTab(score, song, values) : score
  whole(file, await contentOf(written, target))
  return { left: leftText(target, written), score: written }
}

async function contentOf(score: Score, target: Target): Promise<string | Uint8Array> {
  if ('drawn' in target) return drawn(target.drawn, score as Required<Score>)
  const { format } = target
  if (!format.writes || !canWrite(format, score))
    throw new UsageError(
      format.writes?.of === 'song'
        ? 'This tune has no words; ChordPro is for songs.'
        : `There is nothing in it that ${format.name} could hold.`,
    )
  return finish(format.writes.writing(score))
}

/** Writes beside the file first: what stands there is replaced by a whole one, or not at all. */
export function whole(file: string, content: string | Uint8Array): void {
  const part = `${file}.${process.pid}.part`
  try {
    writeFileSync(part, content)
    renameSync(part, file)
  } catch (error) {
    rmSync(part, { force: true })
    throw new UsageError(`${file}: cannot be written (${(error as Error).message}).`)
  }
}
