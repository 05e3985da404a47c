import { parseArgs } from 'node:util'
import { audit, finishedTabOf, makePlan, tabJson, textTab } from '@velvet-porch/core'
import { schoolFrom } from './schoolFrom.ts'
import { scoreFrom } from './scoreFrom.ts'
import { UsageError } from './usage.ts'
import { auditWords } from './words.ts'

/** `porch hands`: reads text tab, finds both hands for its places, and prints it as tab or as the stable JSON object. */
export function handsCommand(args: string[]): void {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      player: { type: 'string' },
      school: { type: 'string', multiple: true, default: [] as string[] },
      json: { type: 'boolean', default: false },
    },
  })
  const file = positionals[0]
  if (!file) throw new UsageError('Name the file with the text tab.')
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
