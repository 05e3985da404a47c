import { arrangementOf, arranging } from '@velvet-porch/core/arrange'
import type { Score } from '@velvet-porch/core/document'
import type { TuneUnderstood } from '@velvet-porch/core/input/any'
import { finish } from '@velvet-porch/core/turns'
import { askedFrom } from '../askedFrom.ts'
import type { ArrangeValues } from '../options.ts'
import { UsageError } from '../usage.ts'
import { problemText } from '../words.ts'

/** A tune that was understood, as a score; why it cannot be one, as a usage error. */
export function scoreOf({ tune, arrangement, problems }: TuneUnderstood): Score {
  if (!tune) throw new UsageError(problems.map(problemText).join('\n') || 'no tune could be read.')
  return arrangement ? { tune, arrangement } : { tune }
}

/** A score with a tab: its own, or one that is arranged as the options ask. */
export function withTab(score: Score, song: TuneUnderstood['song'], values: ArrangeValues): Required<Score> {
  const { tune, arrangement } = score
  if (arrangement) return { tune, arrangement }
  const { setup, regions: asked } = askedFrom(values, { tune, ...(song ? { song } : {}) })
  const regions = asked(tune)
  const { layer, plan } = finish(arranging(tune, setup, regions))
  const made = { layer, transposed: plan.transposed }
  return { tune, arrangement: arrangementOf(`${tune.id}.a`, tune.title, tune, setup, regions, made) }
}
