import { arrangeCommand } from './arrangeCommand.ts'
import { auditCommand } from './auditCommand.ts'
import { easierCommand } from './easierCommand.ts'
import { fitCommand } from './fitCommand.ts'
import { handsCommand } from './handsCommand.ts'
import { lessonCommand } from './lessonCommand.ts'
import { nameCommand } from './nameCommand.ts'
import { shapesCommand } from './shapesCommand.ts'
import { ArrangeError, STYLES } from '@velvet-porch/core'
import { UsageError } from './usage.ts'
import { say } from './words.ts'

const COMMANDS: Readonly<Record<string, (args: string[]) => void>> = {
  arrange: arrangeCommand,
  audit: auditCommand,
  easier: easierCommand,
  fit: fitCommand,
  hands: handsCommand,
  lesson: lessonCommand,
  shapes: shapesCommand,
  name: nameCommand,
}

const USAGE = `porch arrange FILE.abc [--tune N] [--style STYLE] [--level 1..5] [--ornament 0..3] [--pattern P] [--instrument guitar|mandolin] [--tuning T] [--capo 0..9] [--shift=SEMITONES] [--octave=-2..2] [--player HAND.json] [--school name=choice] [--lock L] [--harmonise] [--json|--text]
  STYLE: ${STYLES.join(', ')}
porch easier FILE.abc [--tune N] [--style STYLE] [--level 1..5] [--measures 5-8] [--json]
porch fit FILE.abc [--tune N] [--style STYLE] [--level 1..5] [--voice A3-D5] [--tunings standard,dropD,dadgad] [--capos 0-7] [--keys=any|own|-2,0,3] [--wanted=N] [--partners piano,bFlat] [--json]
porch hands FILE.txt [--player HAND.json] [--school name=choice] [--json]
porch lesson FILE [--tune N] [--style STYLE] [--level 1..5] [--capo 0..9] [--language en|fr|es|fil] [--short]
    [--numbers] [--names none|letters|syllables|german] [--json]
porch audit FILE.json
porch shapes CHORD [--tuning T] [--capo N] [--top E4] [--bass F#] [--max-stretch MM] [--no-barre] [--instrument guitar|mandolin|baritone|tenor] [--as-shape] [--all] [--json]
porch name x-3-2-0-1-0 [--tuning T] [--capo N] [--instrument …] [--json]`

const [name, ...args] = process.argv.slice(2)
try {
  const run = COMMANDS[name ?? '']
  if (!run) throw new UsageError(name ? `There is no command "${name}".\n${USAGE}` : USAGE)
  run(args)
} catch (error) {
  process.stderr.write(
    `${error instanceof ArrangeError ? say(error.says) : error instanceof Error ? error.message : String(error)}\n`,
  )
  process.exitCode = 1
}
