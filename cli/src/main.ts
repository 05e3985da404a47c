import { arrangeCommand } from './arrangeCommand.ts'
import { auditCommand } from './auditCommand.ts'
import { nameCommand } from './nameCommand.ts'
import { shapesCommand } from './shapesCommand.ts'
import { UsageError } from './usage.ts'

const COMMANDS: Readonly<Record<string, (args: string[]) => void>> = {
  arrange: arrangeCommand,
  audit: auditCommand,
  shapes: shapesCommand,
  name: nameCommand,
}

const USAGE = `porch arrange FILE.abc [--tune N] [--style melody-bass|alternating-bass] [--level 1..3] [--capo 0..9] [--tuning T] [--player HAND.json] [--json|--text]
porch audit FILE.json
porch shapes CHORD [--tuning T] [--capo N] [--top E4] [--bass F#] [--max-stretch MM] [--no-barre] [--instrument guitar|mandolin|baritone|tenor] [--as-shape] [--all] [--json]
porch name x-3-2-0-1-0 [--tuning T] [--capo N] [--instrument …] [--json]`

const [name, ...args] = process.argv.slice(2)
try {
  const run = COMMANDS[name ?? '']
  if (!run) throw new UsageError(name ? `There is no command "${name}".\n${USAGE}` : USAGE)
  run(args)
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exitCode = 1
}
