// Runs everything: set-up, checks, unit tests, build, tests of the real interface. Writes the counts for .ci/run.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { ensureDebian, ensurePackages, root, run } from './setup.mjs'

ensurePackages()
ensureDebian({
  chromium: 'chromium',
  'chromium-headless-shell': 'chromium-headless-shell',
  abc2midi: 'abcmidi',
  abcm2ps: 'abcm2ps',
  pdftotext: 'poppler-utils',
  xmllint: 'libxml2-utils',
})
mkdirSync(join(root, '.cache'), { recursive: true })
const unit = join(root, '.cache/unit.json')
const e2e = join(root, '.cache/e2e.json')
for (const f of [unit, e2e]) rmSync(f, { force: true })

const steps = [
  ['check', () => run('npm', ['run', '-s', 'check'])],
  [
    'unit tests',
    () => run('npx', ['vitest', 'run', '--reporter=dot', '--reporter=json', `--outputFile=${unit}`]),
  ],
  ['build', () => run('npm', ['run', '-s', 'build'])],
  ['interface tests', () => run('npm', ['run', '-s', 'test:e2e'])],
]
const summary = { passed: 0, failed: 0 }
const failures = []
for (const [name, step] of steps) {
  const code = step()
  if (name === 'check' || name === 'build') summary[code === 0 ? 'passed' : 'failed']++
  if (code !== 0) failures.push(name)
}
const read = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return undefined
  }
}
const unitResult = read(unit)
const e2eResult = read(e2e)
summary.passed += (unitResult?.numPassedTests ?? 0) + (e2eResult?.stats?.expected ?? 0)
summary.failed +=
  (unitResult
    ? unitResult.numFailedTests + (unitResult.success || unitResult.numFailedTests > 0 ? 0 : 1)
    : 1) + (e2eResult ? e2eResult.stats.unexpected + e2eResult.stats.flaky : 1)
for (const file of unitResult?.testResults ?? [])
  for (const test of file.assertionResults ?? [])
    if (test.status === 'failed') failures.push(`${relative(root, file.name)}: ${test.fullName}`)
const collect = (suite) => {
  // A test that passed at its second try failed: on another machine it fails at both.
  for (const spec of suite.specs ?? [])
    if (spec.tests.some((t) => t.status === 'flaky')) failures.push(`needed a second try: ${spec.title}`)
  for (const inner of suite.suites ?? []) collect(inner)
}
for (const suite of e2eResult?.suites ?? []) collect(suite)
// Named last, where a log that is cut short still shows them.
if (failures.length > 0) process.stdout.write(`\nFailed:\n${failures.map((f) => `  ${f}\n`).join('')}`)
writeFileSync(join(root, '.cache/summary.json'), JSON.stringify(summary))
process.stdout.write(`\n${summary.passed} passed, ${summary.failed} failed\n`)
process.exit(summary.failed === 0 ? 0 : 1)
