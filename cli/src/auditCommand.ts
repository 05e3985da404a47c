import { audit } from '@velvet-porch/core/audit'
import { finishedTabOf } from '@velvet-porch/core/output'
import { readTabJson } from '@velvet-porch/core/schema'
import { command } from './options.ts'
import { readText } from './readInput.ts'
import { UsageError } from './usage.ts'
import { auditWords } from './words.ts'

/** `porch audit`: checks a tab file and prints the report as JSON. */
export const auditCommand = command(
  'audit',
  'tab.json',
  'Judges a tab against its tune and prints the report as JSON.',
).action(run)

function run(file: string): void {
  let value: unknown
  try {
    value = JSON.parse(readText(file).text)
  } catch (error) {
    if (error instanceof UsageError) throw error
    throw new UsageError(`${file}: not JSON (${(error as Error).message}).`)
  }
  const tab = readTabJson(value)
  process.stdout.write(`${JSON.stringify(auditWords(audit(finishedTabOf(tab))), undefined, 2)}\n`)
}
