import { Command, CommanderError } from 'commander'
import { ArrangeError } from '@velvet-porch/core/arrange'
import { arrangeCommand } from './arrangeCommand.ts'
import { convertCommand } from './convertCommand.ts'
import { auditCommand } from './auditCommand.ts'
import { easierCommand } from './easierCommand.ts'
import { fitCommand } from './fitCommand.ts'
import { handsCommand } from './handsCommand.ts'
import { lessonCommand } from './lessonCommand.ts'
import { nameCommand } from './nameCommand.ts'
import { shapesCommand } from './shapesCommand.ts'
import { readCommand } from './readCommand.ts'
import { say } from './words.ts'

const porch = new Command('porch')
  .description('Velvet Porch on the command line: arranges, judges and teaches without the app.')
  .helpOption('-h, --help', 'show this help')
  .helpCommand(false)

for (const sub of [
  arrangeCommand,
  readCommand,
  convertCommand,
  easierCommand,
  fitCommand,
  handsCommand,
  lessonCommand,
  auditCommand,
  shapesCommand,
  nameCommand,
])
  porch.addCommand(sub)
for (const each of [porch, ...porch.commands])
  each
    .exitOverride()
    .configureOutput({ outputError: (text, write) => write(text.replace(/^error: /, '')) })
    .showHelpAfterError(`See porch${each === porch ? '' : ` ${each.name()}`} --help.`)

try {
  await porch.parseAsync()
} catch (error) {
  process.exitCode = 1
  if (error instanceof CommanderError) process.exitCode = error.exitCode
  else
    process.stderr.write(
      `${error instanceof ArrangeError ? say(error.says) : error instanceof Error ? error.message : String(error)}\n`,
    )
}
