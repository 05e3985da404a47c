// Sets up what is missing, builds the app when its sources are newer than the build, and serves it.
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { alone, ensurePackages, root, run } from './setup.mjs'

ensurePackages()

function newest(path) {
  const stat = statSync(path)
  if (!stat.isDirectory()) return stat.mtimeMs
  return Math.max(
    0,
    ...readdirSync(path)
      .filter((n) => n !== 'node_modules' && n !== 'dist')
      .map((n) => newest(join(path, n))),
  )
}

const built = join(root, 'web/dist/index.html')
const stale = () => {
  const sources = Math.max(
    ...['web', 'core/src', 'demo', 'package-lock.json'].map((p) => newest(join(root, p))),
  )
  return !existsSync(built) || statSync(built).mtimeMs < sources
}
if (stale()) {
  const code = alone('build', () => {
    if (!stale()) return 0
    process.stderr.write('Building the app…\n')
    return run('npm', ['run', '-s', 'build'])
  })
  if (code !== 0) process.exit(1)
}
const { register } = await import('tsx/esm/api')
register()
await import(join(root, 'server/src/main.ts'))
