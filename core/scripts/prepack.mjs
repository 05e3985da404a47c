// Builds the core as JavaScript with types and puts a package.json in place that leads there. Inside the workspace the sources
// are run as they are; `postpack.mjs` brings that package.json back.
import { spawnSync } from 'node:child_process'
import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const core = join(dirname(fileURLToPath(import.meta.url)), '..')
const [manifest, kept, dist] = ['package.json', 'package.workspace.json', 'dist'].map((n) => join(core, n))

// An earlier run was cut off: its package.json is the workspace's one.
if (existsSync(kept)) renameSync(kept, manifest)

rmSync(dist, { recursive: true, force: true })
const tsc = createRequire(import.meta.url).resolve('typescript/bin/tsc')
const { status, stdout } = spawnSync(process.execPath, [tsc, '-p', join(core, 'tsconfig.package.json')], {
  encoding: 'utf8',
})
if (status !== 0) {
  process.stderr.write(stdout)
  process.exit(1)
}

const text = readFileSync(manifest, 'utf8')
const published = JSON.parse(text)
delete published.devDependencies
delete published.scripts
const built = (source) => source.replace(/^\.\/src\//, './dist/').replace(/\.ts$/, '')
published.exports = Object.fromEntries(
  Object.entries(published.exports).map(([entry, source]) => [
    entry,
    { types: `${built(source)}.d.ts`, default: `${built(source)}.js` },
  ]),
)
writeFileSync(kept, text)
writeFileSync(manifest, `${JSON.stringify(published, undefined, 2)}\n`)
