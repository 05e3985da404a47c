import { execFileSync, spawnSync } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'

const root = fileURLToPath(new URL('../..', import.meta.url))
const packages = join(root, 'node_modules')
const folder = mkdtempSync(join(tmpdir(), 'velvet-package-'))
const user = join(folder, 'user')

const CONSUMER = `
import { arranging, wholeTune } from '@velvet-porch/core/arrange'
import type { TuneDoc } from '@velvet-porch/core/document'
import { readAbc } from '@velvet-porch/core/input/abc'
import { setupOf, readTuning } from '@velvet-porch/core/instrument'
import { textTab } from '@velvet-porch/core/output'
import { readTuneDoc } from '@velvet-porch/core/schema'
import { finish } from '@velvet-porch/core/turns'

const [read] = readAbc('X:1\\nT:Sill\\nM:4/4\\nL:1/4\\nK:G\\n"G"GBdB|"D"AFD2|]', () => 'sill')
const tune: TuneDoc = readTuneDoc(JSON.parse(JSON.stringify(read!.tune)))
const standard = readTuning('guitar', 'standard')
if ('fault' in standard) throw new Error('no standard tuning')
const setup = setupOf('guitar', standard.tuning)
const { layer, plan } = finish(arranging(tune, setup, wholeTune(tune, 'melody-bass', 2)))
const fret: number = layer.notes[0]!.place.fret
// @ts-expect-error a fret is no text
const text: string = layer.notes[0]!.place.fret
console.log(String(fret) === text, textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony }))
`

/** Runs Node there; what it prints, whether it failed or not. */
const node = (...args: string[]) => spawnSync(process.execPath, args, { cwd: user, encoding: 'utf8' })

beforeAll(() => {
  // Packed from a copy: packing exchanges the manifest for a moment.
  const core = join(folder, 'core')
  for (const part of ['src', 'scripts', 'package.json', 'tsconfig.json', 'tsconfig.package.json'])
    cpSync(join(root, 'core', part), join(core, part), { recursive: true })
  cpSync(join(root, 'tsconfig.base.json'), join(folder, 'tsconfig.base.json'))
  symlinkSync(packages, join(folder, 'node_modules'))
  execFileSync('npm', ['pack', '--pack-destination', folder], { cwd: core, stdio: 'pipe' })
  const own = join(user, 'node_modules', '@velvet-porch')
  mkdirSync(own, { recursive: true })
  execFileSync('tar', ['xzf', join(folder, 'velvet-porch-core-0.1.0.tgz'), '-C', own])
  execFileSync('mv', [join(own, 'package'), join(own, 'core')])
  for (const name of ['abcjs', 'fft.js', 'immer', 'joi', '@types'])
    symlinkSync(join(packages, name), join(user, 'node_modules', name))
  writeFileSync(join(user, 'package.json'), '{"type":"module"}')
  writeFileSync(join(user, 'use.ts'), CONSUMER)
  writeFileSync(
    join(user, 'tsconfig.json'),
    JSON.stringify({
      compilerOptions: {
        ...{ strict: true, noUncheckedIndexedAccess: true, exactOptionalPropertyTypes: true },
        ...{ target: 'es2023', lib: ['es2023'], module: 'nodenext', types: ['node'] },
      },
      files: ['use.ts'],
    }),
  )
}, 300_000)
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('the core as a package', () => {
  it('has types that hold, and arranges in Node', () => {
    const tsc = createRequire(import.meta.url).resolve('typescript/bin/tsc')
    expect(node(tsc).stdout).toBe('')
    const { stdout: printed, stderr } = node('use.js')
    expect(stderr).toBe('')
    expect(printed).toContain('Sill')
    expect(printed).toMatch(/^E \|/m)
  })
})
