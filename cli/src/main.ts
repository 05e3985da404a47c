import { arrangeCommand } from './arrangeCommand.ts'
import { auditCommand } from './auditCommand.ts'
import { UsageError } from './usage.ts'

const COMMANDS: Readonly<Record<string, (args: string[]) => void>> = {
  arrange: arrangeCommand,
  audit: auditCommand,
}

const USAGE = `porch arrange FILE.abc [--tune N] [--style melody-bass|alternating-bass] [--level 1..3] [--capo 0..9] [--json|--text]
porch audit FILE.json`

const [name, ...args] = process.argv.slice(2)
try {
  const run = COMMANDS[name ?? '']
  if (!run) throw new UsageError(name ? `There is no command "${name}".\n${USAGE}` : USAGE)
  run(args)
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exitCode = 1
}
