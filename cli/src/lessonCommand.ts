import { LANGUAGES } from '@velvet-porch/core/messages'
import { NOTE_NAMINGS } from '@velvet-porch/core/music'
import { arrangementOf, arranging } from '@velvet-porch/core/arrange'
import { ALONGSIDE, lessonOf, scriptText, USUAL_LESSON, type LessonStep } from '@velvet-porch/core/lesson'
import { finish } from '@velvet-porch/core/turns'
import { askedFrom } from './askedFrom.ts'
import { command, withArrangeOptions, type ArrangeValues } from './options.ts'
import { schoolFrom } from './schoolFrom.ts'
import { holdsTab, scoreFrom } from './scoreFrom.ts'
import { tuneFrom } from './tuneFrom.ts'
import { oneOf } from './usage.ts'

interface Values extends ArrangeValues {
  readonly language: string
  readonly short?: boolean
  readonly numbers?: boolean
  readonly names: string
  readonly alongside: string
  readonly json?: boolean
}

/** `porch lesson`: an arrangement, or a tab as it is given, in words, measure by measure and beat by beat. */
export const lessonCommand = withArrangeOptions(
  command(
    'lesson',
    'file',
    'Says a tune (ABC) or a tab (text tab) in words, measure by measure and beat by beat.',
  ),
  '1',
)
  .option('--language <language>', `one of ${LANGUAGES.join(', ')}`, 'en')
  .option('--short', 'says it in few words')
  .option('--numbers', 'says fingers by number')
  .option('--names <names>', `says notes by name: none, ${NOTE_NAMINGS.join(', ')}`, 'none')
  .option('--alongside <what>', `says with each step: ${ALONGSIDE.join(', ')}`, 'none')
  .option('--json', 'prints one JSON object, with every step')
  .action(run)

function run(file: string, values: Values): void {
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
    alongside: oneOf(values.alongside, ALONGSIDE, 'alongside'),
    names: oneOf(values.names, ['none', ...NOTE_NAMINGS] as const, 'names'),
  })
  process.stdout.write(
    values.json
      ? `${JSON.stringify({ script, steps: steps.map(printedStep) })}\n`
      : `${tune.title}\n\n${scriptText(script)}\n`,
  )
}

/** A step with the field names that `lesson --json` has always printed. */
const printedStep = ({ conflicts, prepared, alternatives, ...step }: LessonStep) => ({
  ...step,
  torn: conflicts,
  ready: prepared,
  either: alternatives,
})

/** The tune of an ABC file with its arrangement. */
function arranged(file: string, values: ArrangeValues) {
  const found = tuneFrom(file, values)
  const { tune } = found
  const { setup, regions: asked } = askedFrom(values, found)
  const regions = asked(tune)
  const { layer, plan } = finish(arranging(tune, setup, regions))
  const { transposed } = plan
  return {
    tune,
    arrangement: arrangementOf(tune.id, tune.title, tune, setup, regions, { layer, transposed }),
  }
}
