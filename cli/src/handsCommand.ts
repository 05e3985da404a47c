import { makePlan } from '@velvet-porch/core/arrange'
import { audit } from '@velvet-porch/core/audit'
import { finishedTabOf, tabJson, textTab } from '@velvet-porch/core/output'
import { schoolFrom } from './schoolFrom.ts'
import { scoreFrom } from './scoreFrom.ts'
import { command, withSchoolOptions } from './options.ts'
import { UsageError } from './usage.ts'
import { auditWords } from './words.ts'

interface Values {
  readonly player?: string
  readonly school: readonly string[]
  readonly json?: boolean
}

/** `porch hands`: reads text tab, finds both hands for its places, and prints it as tab or as the stable JSON object. */
export const handsCommand = withSchoolOptions(
  command('hands', 'file.txt', 'Finds both hands for the places of a text tab.'),
)
  .option('--json', 'prints the same JSON object as porch arrange')
  .action(run)

function run(file: string, values: Values): void {
  const started = performance.now()
  const { score, warnings } = scoreFrom(file, values.player, schoolFrom(values.school))
  const { tune, arrangement } = score
  const { setup, regions, base: layer } = arrangement
  const planned = makePlan(tune, setup, regions)
  if (!planned.ok) throw new UsageError(`${file}: the tab holds no notes.`)
  const { plan } = planned
  const elapsedMs = Math.round((performance.now() - started) * 10) / 10
  const json = tabJson(tune, setup, plan, layer, warnings, elapsedMs)
  const report = audit(finishedTabOf(json))
  if (values.json) {
    process.stdout.write(`${JSON.stringify({ ...json, audit: auditWords(report) })}\n`)
    return
  }
  process.stdout.write(textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony }))
  for (const w of warnings) process.stderr.write(`${w}\n`)
}
