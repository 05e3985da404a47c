import { spawnSync } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { inject } from 'vitest'

export const root = fileURLToPath(new URL('../..', import.meta.url))

/** Runs the command line. */
export const porch = (...args: string[]) =>
  spawnSync(process.execPath, [inject('porch'), ...args], { cwd: root, encoding: 'utf8' })

/** Runs it as users do. */
export const porchAsCalled = (...args: string[]) =>
  spawnSync('npm', ['run', '-s', 'porch', '--', ...args], { cwd: root, encoding: 'utf8' })
