import { cpus } from 'node:os'
import { readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { backupFigures } from './backupPage.ts'
import { engineFigures } from './engine.ts'
import type { Figure } from './figure.ts'
import { fitFigures } from './fitPage.ts'
import { handoutFigures, lessonFigures } from './lessonPage.ts'
import { liveFigures } from './livePage.ts'
import { longFigures } from './longTune.ts'
import { pageFigures, startBench, type Bench } from './page.ts'
import { regressionLines, regressionsOf } from './regressions.ts'
import { shelfFigures } from './shelfPage.ts'

/** Measured in the core alone. */
const CORE = { engine: engineFigures, lesson: lessonFigures, long: longFigures }

/** Measured in the built app. */
const APP: Readonly<Record<string, (bench: Bench) => Promise<Figure[]>>> = {
  page: pageFigures,
  fit: fitFigures,
  handout: handoutFigures,
  shelf: shelfFigures,
  live: liveFigures,
  backup: backupFigures,
}

/** What is wanted, such as `npm run bench -- engine live`: everything where nothing is named. */
const named = process.argv.slice(2)
const isWanted = (group: string) => named.length === 0 || named.includes(group)
const groups = [...Object.keys(CORE), ...Object.keys(APP)]
const unknown = named.filter((name) => !groups.includes(name))
if (unknown.length > 0) throw new Error(`No group ${unknown.join(', ')}: there are ${groups.join(', ')}.`)

/** Figures of one group; what cannot be measured is a line of the table too, and the rest goes on. */
async function measured(group: string, measure: () => Figure[] | Promise<Figure[]>): Promise<Figure[]> {
  if (!isWanted(group)) return []
  process.stderr.write(`${group} …\n`)
  try {
    return await measure()
  } catch (error) {
    process.stderr.write(`${String(error)}\n`)
    return [{ name: `figures of ${group}`, value: 'not measured', aim: '—', met: false }]
  }
}

const figures: Figure[] = []
for (const [group, measure] of Object.entries(CORE)) figures.push(...(await measured(group, measure)))
if (Object.keys(APP).some(isWanted)) {
  const bench = await startBench()
  try {
    for (const [group, measure] of Object.entries(APP))
      figures.push(...(await measured(group, () => measure(bench))))
  } finally {
    await bench.close()
  }
}
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
// A part of the table is only shown.
if (named.length === 0) {
  const text = `# Benchmarks\n\nWritten by \`npm run bench\` on ${date}: ${machine}.\nOne thread, warm, every run with cold candidate caches. The times of arranging and of the sweep are the least of several runs, which is nearest to the program's own where others share the machine; medians stand beside. The machine is shared: its calibration loop takes 17 ms in a quiet hour and twice that in a busy one, and the rest with it. Long tasks are those that Chromium reports (50 ms and more; 0 means none).\n\n${table}\n`
  writeFileSync(path, text)
}
if (figures.some((f) => !f.met)) process.exitCode = 1
