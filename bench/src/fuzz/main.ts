import { mkdirSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { fuzz, type FuzzFault } from './run.ts'
import { TARGETS } from './targets/index.ts'

/** `npm run fuzz [-- cases] [target]`: every reader against mutations; inputs that fail are kept in .cache/fuzz. */
const CASES = Number(process.argv[2] ?? 5000)
const only = process.argv[3]
const SEED = Number(process.env['SEED'] ?? 1)
const folder = fileURLToPath(new URL('../../../.cache/fuzz/', import.meta.url))
mkdirSync(folder, { recursive: true })

const KINDS: readonly FuzzFault['kind'][] = ['throw', 'hang', 'memory', 'refusal', 'loss']
process.stdout.write(
  `| reader | cases | ${KINDS.join(' | ')} | slowest, ms |\n|---|---|${KINDS.map(() => '---|').join('')}---|\n`,
)
let faulty = 0
for (const { name } of TARGETS) {
  if (only && name !== only) continue
  const { faults, slowestMs } = await fuzz(name, CASES, SEED)
  faulty += faults.length
  const counts = KINDS.map((kind) => new Set(faults.filter((f) => f.kind === kind).map((f) => f.case)).size)
  process.stdout.write(`| ${name} | ${CASES} | ${counts.join(' | ')} | ${Math.round(slowestMs)} |\n`)
  faults.slice(0, 40).forEach((f, i) => {
    const text = typeof f.input === 'string' ? f.input : JSON.stringify(f.input, undefined, 1)
    writeFileSync(
      `${folder}${name.replace(' ', '-')}-${i}.txt`,
      `case ${f.case}: ${f.kind}: ${f.what}\n\n${text}\n`,
    )
  })
}
process.exitCode = faulty > 0 ? 1 : 0
