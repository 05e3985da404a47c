import { parseArgs } from 'node:util'
import {
  arrangementOf,
  arranging,
  USUAL_SPEECH,
  wordsFor,
  finish,
  lessonScript,
  lessonSteps,
  scriptText,
  STYLES,
  wholeTune,
  type Level,
} from '@velvet-porch/core'
import { ARRANGE_OPTIONS, playedSetupFrom } from './arrangeOptions.ts'
import { schoolFrom } from './schoolFrom.ts'
import { tuneFrom } from './tuneFrom.ts'
import { oneOf, UsageError, wholeNumber } from './usage.ts'

/** `porch lesson`: the arrangement in words, measure by measure and beat by beat. */
export function lessonCommand(args: string[]): void {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      ...ARRANGE_OPTIONS,
      level: { type: 'string', default: '1' },
      json: { type: 'boolean', default: false },
    },
  })
  const file = positionals[0]
  if (!file) throw new UsageError('Name the ABC file to teach.')
  const { tune } = tuneFrom(file, values.tune)
  const style = oneOf(values.style, STYLES, 'style')
  const level = wholeNumber(values.level, 1, 5, 'level') as Level
  const setup = playedSetupFrom(values)
  const regions = wholeTune(tune, style, level, schoolFrom(values.school))
  const { layer, plan } = finish(arranging(tune, setup, regions))
  const doc = arrangementOf(tune.id, tune.title, tune, setup, regions, { layer, transposed: plan.transposed })
  const script = lessonScript(tune, doc, wordsFor(USUAL_SPEECH))
  process.stdout.write(
    values.json
      ? `${JSON.stringify({ script, steps: lessonSteps(tune, doc) })}\n`
      : `${tune.title}\n\n${scriptText(script)}\n`,
  )
}
