import { parseArgs } from 'node:util'
import {
  arrangementOf,
  arranging,
  finish,
  LANGUAGES,
  lessonOf,
  NOTE_NAMINGS,
  scriptText,
  STYLES,
  USUAL_LESSON,
  wholeTune,
  type Level,
} from '@velvet-porch/core'
import { ARRANGE_OPTIONS, playedSetupFrom } from './arrangeOptions.ts'
import { schoolFrom } from './schoolFrom.ts'
import { holdsTab, scoreFrom } from './scoreFrom.ts'
import { tuneFrom } from './tuneFrom.ts'
import { oneOf, UsageError, wholeNumber } from './usage.ts'

/** `porch lesson`: an arrangement, or a tab as it is given, in words, measure by measure and beat by beat. */
export function lessonCommand(args: string[]): void {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      ...ARRANGE_OPTIONS,
      level: { type: 'string', default: '1' },
      language: { type: 'string', default: 'en' },
      short: { type: 'boolean', default: false },
      numbers: { type: 'boolean', default: false },
      names: { type: 'string', default: 'none' },
      json: { type: 'boolean', default: false },
    },
  })
  const file = positionals[0]
  if (!file) throw new UsageError('Name the file to teach: ABC, or text tab.')
  const { tune, arrangement: doc } = holdsTab(file)
    ? scoreFrom(file, values.player, schoolFrom(values.school)).score
    : arranged(file, values)
  const { script, steps } = lessonOf(tune, doc, {
    ...USUAL_LESSON,
    speech: {
      language: oneOf(values.language, LANGUAGES, 'language'),
      length: values.short ? 'short' : 'full',
      fingers: values.numbers ? 'numbers' : 'names',
    },
    names: oneOf(values.names, ['none', ...NOTE_NAMINGS] as const, 'names'),
  })
  process.stdout.write(
    values.json ? `${JSON.stringify({ script, steps })}\n` : `${tune.title}\n\n${scriptText(script)}\n`,
  )
}

/** The tune of an ABC file with its arrangement. */
function arranged(
  file: string,
  values: Parameters<typeof playedSetupFrom>[0] & {
    readonly tune: string
    readonly style: string
    readonly level: string
    readonly school: readonly string[]
  },
) {
  const { tune } = tuneFrom(file, values.tune)
  const style = oneOf(values.style, STYLES, 'style')
  const level = wholeNumber(values.level, 1, 5, 'level') as Level
  const setup = playedSetupFrom(values)
  const regions = wholeTune(tune, style, level, schoolFrom(values.school))
  const { layer, plan } = finish(arranging(tune, setup, regions))
  const { transposed } = plan
  return {
    tune,
    arrangement: arrangementOf(tune.id, tune.title, tune, setup, regions, { layer, transposed }),
  }
}
