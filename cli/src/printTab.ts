import type { Layer, TuneDoc } from '@velvet-porch/core/document'
import type { Plan } from '@velvet-porch/core/arrange'
import { audit, type AuditReport } from '@velvet-porch/core/audit'
import type { Setup } from '@velvet-porch/core/instrument'
import { finishedTabOf, tabJson, textTab } from '@velvet-porch/core/output'
import { auditWords } from './words.ts'

/** A finished tab, and what is to be said of it. */
interface Made {
  readonly tune: TuneDoc
  readonly setup: Setup
  readonly plan: Plan
  readonly layer: Layer
  readonly warnings: readonly string[]
  readonly elapsedMs: number
}

/** Prints a tab, what is said of it beside: as text, or with its audit as the stable JSON object. */
export function printTab(made: Made, asJson = false): AuditReport {
  const { tune, setup, plan, layer, warnings, elapsedMs } = made
  const json = tabJson(tune, setup, plan, layer, warnings, elapsedMs)
  const report = audit(finishedTabOf(json))
  if (asJson) process.stdout.write(`${JSON.stringify({ ...json, audit: auditWords(report) })}\n`)
  else {
    process.stdout.write(textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony }))
    for (const w of warnings) process.stderr.write(`${w}\n`)
  }
  return report
}
