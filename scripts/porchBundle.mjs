// The command line as a few plain files: read from its TypeScript sources it would take four seconds to start.
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './setup.mjs'

const SOURCES = ['cli/src', 'core/src', 'package-lock.json', 'scripts/porchBundle.mjs']

/** Bundles of other states that were made so long ago (ms) are taken away; a command that runs may still read from a younger one. */
const KEPT_MS = 24 * 3600_000

/** What tells one state of the sources from another: names, sizes and times. */
function stateOfSources() {
  const hash = createHash('sha256')
  for (const source of SOURCES) {
    const path = join(root, source)
    const files = statSync(path).isDirectory()
      ? readdirSync(path, { recursive: true, encoding: 'utf8' }).sort()
      : ['']
    for (const file of files) {
      const { size, mtimeMs } = statSync(join(path, file))
      hash.update(`${source}/${file} ${size} ${mtimeMs}\n`)
    }
  }
  return hash.digest('hex').slice(0, 16)
}

/** Path of the command line, put together anew where its sources have changed. */
export async function porchBundle() {
  const all = join(root, '.cache', 'porch')
  const folder = join(all, stateOfSources())
  const porch = join(folder, 'porch.mjs')
  if (existsSync(porch)) return porch
  mkdirSync(all, { recursive: true })
  for (const old of readdirSync(all))
    if (Date.now() - statSync(join(all, old)).mtimeMs > KEPT_MS)
      rmSync(join(all, old), { recursive: true, force: true })
  const unfinished = `${folder}.${process.pid}`
  const { build } = await import('vite')
  await build({
    configFile: false,
    root,
    logLevel: 'error',
    // A browser and threads of their own are brought when they are asked for.
    ssr: { noExternal: true, external: ['playwright-core', 'tinypool'] },
    build: {
      ssr: true,
      outDir: unfinished,
      rolldownOptions: {
        input: { porch: 'cli/src/main.ts', worker: 'cli/src/batch/worker.ts' },
        output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
      },
    },
  })
  try {
    renameSync(unfinished, folder)
  } catch (error) {
    // Another command may have been faster.
    rmSync(unfinished, { recursive: true, force: true })
    if (!existsSync(porch)) throw error
  }
  return porch
}
