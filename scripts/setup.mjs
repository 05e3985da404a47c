// Installs what a command needs, and only when it is missing: npm packages from the lock file, Debian packages by name.
import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')

/** Runs a command with its output shown; returns its exit code. */
export function run(command, args, env = {}) {
  const done = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
  return done.status ?? 1
}

/** `npm ci` unless node_modules already matches the lock file. */
export function ensurePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex')
  const stamp = join(root, 'node_modules', '.velvet-porch-lock')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  process.stderr.write('Installing packages…\n')
  execFileSync('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 2, 'inherit'],
  })
  writeFileSync(stamp, lock)
}

/** Installs Debian packages whose commands are not there. */
export function ensureDebian(commands) {
  const missing = Object.entries(commands)
    .filter(([command]) => spawnSync('which', [command]).status !== 0)
    .map(([, name]) => name)
  if (missing.length === 0) return
  process.stderr.write(`Installing Debian packages: ${missing.join(' ')}…\n`)
  const sudo = process.getuid?.() === 0 ? [] : ['sudo']
  const apt = (...args) =>
    run([...sudo, 'apt-get'][0], [...sudo, 'apt-get', ...args].slice(1), {
      DEBIAN_FRONTEND: 'noninteractive',
    })
  const install = () => apt('install', '-y', '-q', '--no-install-recommends', ...missing)
  if (install() !== 0) {
    apt('update', '-q')
    if (install() !== 0)
      throw new Error(`Could not install ${missing.join(', ')}; install them by hand and try again.`)
  }
}
