import { parentPort, workerData } from 'node:worker_threads'
import type { FuzzReport, FuzzTask } from './run.ts'
import { caseInput, faultsOf } from './target.ts'
import { TARGETS } from './targets/index.ts'

/** Runs the cases of one target one after the other; the clock of the case at work is shared with who ends what hangs. */
const { name, seed, from, count, clock } = workerData as FuzzTask
const target = TARGETS.find((t) => t.name === name)!
const at = new Float64Array(clock)
const tell = (report: FuzzReport) => parentPort!.postMessage(report)

// What is made once (tunes arranged, code compiled) is no part of a case.
faultsOf(target, caseInput(target, seed, 0))

for (let i = from; i < count; i++) {
  const input = caseInput(target, seed, i)
  at[0] = i
  at[1] = Date.now()
  const started = performance.now()
  for (const { kind, what } of faultsOf(target, input)) tell({ case: i, kind, what, input })
  at[2] = Math.max(at[2]!, performance.now() - started)
}
tell('done')
