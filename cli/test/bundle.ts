import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'vite'
import type { TestProject } from 'vitest/node'

declare module 'vitest' {
  interface ProvidedContext {
    /** Path of the command line in one file. */
    porch: string
  }
}

/**
 * Puts the command line into one file, once for all tests: what users call takes seconds to start, and starts anew for
 * every test.
 */
export default async function bundle(project: TestProject): Promise<() => void> {
  const root = fileURLToPath(new URL('../..', import.meta.url))
  // Beside the packages that it needs.
  const folder = mkdtempSync(join(root, 'node_modules', '.porch-'))
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
  project.provide('porch', join(folder, 'porch.mjs'))
  return () => rmSync(folder, { recursive: true, force: true })
}
