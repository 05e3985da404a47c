import { cpus } from 'node:os'
import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { engineFigures } from './engine.ts'
import type { Figure } from './figure.ts'
import { lessonFigures } from './lessonPage.ts'
import { longFigures } from './longTune.ts'
import { pageFigures } from './page.ts'
import { regressionLines, regressionsOf } from './regressions.ts'

/** Measures engine and page, prints the table and writes docs/benchmarks.md. */
const figures: Figure[] = [
  ...engineFigures(),
  ...lessonFigures(),
  ...longFigures(),
  ...(process.argv.includes('--engine') ? [] : await pageFigures()),
]
const path = fileURLToPath(new URL('../../docs/benchmarks.md', import.meta.url))
const regressions = regressionsOf(readFileSync(path, 'utf8'), figures)
const date = new Date().toISOString().slice(0, 10)
const machine = `${cpus().length} cores, ${cpus()[0]?.model ?? 'unknown processor'}, Node ${process.version}`
const table = [
  '| what | measured | aim | |',
  '|---|---|---|---|',
  ...figures.map((f) => `| ${f.name} | ${f.value} | ${f.aim} | ${f.met ? 'met' : 'missed'} |`),
].join('\n')
process.stdout.write(`${table}\n`)
for (const line of regressionLines(regressions)) process.stderr.write(`${line}\n`)
if (!process.argv.includes('--engine')) {
  const text = `# Benchmarks\n\nWritten by \`npm run bench\` on ${date}: ${machine}.\nOne thread, warm, every run with cold candidate caches. The times of arranging and of the sweep are the least of several runs, which is nearest to the program's own where others share the machine; medians stand beside. The machine is shared: its calibration loop takes 17 ms in a quiet hour and twice that in a busy one, and the rest with it. Long tasks are those that Chromium reports (50 ms and more; 0 means none).\n\n${table}\n`
  writeFileSync(path, text)
}
if (figures.some((f) => !f.met)) process.exitCode = 1
