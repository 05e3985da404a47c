import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'vite'

export const root = fileURLToPath(new URL('../..', import.meta.url))

/** The command line in one file of its own: what users call takes seconds to start, and starts anew for every test. */
async function bundled(): Promise<string> {
  // Beside the packages that it needs.
  const folder = mkdtempSync(join(root, 'node_modules', '.porch-'))
  process.on('exit', () => rmSync(folder, { recursive: true, force: true }))
  await build({
    configFile: false,
    root,
    logLevel: 'silent',
    build: {
      ssr: 'cli/src/main.ts',
      outDir: folder,
      rolldownOptions: { output: { entryFileNames: 'porch.mjs' } },
    },
  })
  return join(folder, 'porch.mjs')
}

const program = await bundled()

/** Runs the command line. */
export const porch = (...args: string[]) =>
  spawnSync(process.execPath, [program, ...args], { cwd: root, encoding: 'utf8' })

/** Runs it as users do. */
export const porchAsCalled = (...args: string[]) =>
  spawnSync('npm', ['run', '-s', 'porch', '--', ...args], { cwd: root, encoding: 'utf8' })
