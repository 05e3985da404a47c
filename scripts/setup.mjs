// Installs what a command needs, and only when it is missing: npm packages from the lock file, Debian packages by name.
import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = join(dirname(fileURLToPath(import.meta.url)), '..')

/** Runs a command with its output shown; returns its exit code. */
export function run(command, args, env = {}) {
  const done = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
  return done.status ?? 1
}

/** True where every package of the lock file is there in its version, whoever installed it. */
function packagesMatch(lock) {
  const there = readJson(join(root, 'node_modules', '.package-lock.json'))?.packages
  if (!there) return false
  return Object.entries(JSON.parse(lock).packages).every(
    ([path, wanted]) =>
      path === '' ||
      !path.startsWith('node_modules/') ||
      wanted.optional ||
      wanted.link ||
      there[path]?.version === wanted.version,
  )
}

function readJson(path) {
  try {
    return JSON.parse(readFileSync(path, 'utf8'))
  } catch {
    return undefined
  }
}

const sleep = (ms) => Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, ms)

/** True for a process that is still there. */
function lives(pid) {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return error.code === 'EPERM'
  }
}

/** Longest that an install is waited for. */
const PATIENCE_MS = 15 * 60_000

/**
 * Does work that only one command at a time may do: another one waits until it is done. The holder leaves its process id, so
 * that a lock whose holder was killed is taken over.
 */
export function alone(name, work) {
  const lock = join(root, '.cache', `${name}.lock`)
  mkdirSync(join(root, '.cache'), { recursive: true })
  const until = Date.now() + PATIENCE_MS
  for (let told = false; ;) {
    try {
      writeFileSync(lock, String(process.pid), { flag: 'wx' })
      break
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
      const holder = Number(readText(lock))
      if (holder > 0 && !lives(holder)) {
        // Only who moves the old lock away may try again at once: two would take it both.
        try {
          renameSync(lock, `${lock}.${process.pid}`)
          rmSync(`${lock}.${process.pid}`, { force: true })
        } catch {
          // Somebody else was faster.
        }
        continue
      }
      if (Date.now() > until)
        throw new Error(`Another command has held ${lock} too long; remove it and try again.`, {
          cause: error,
        })
      if (!told) process.stderr.write('Another command is setting up; waiting for it…\n')
      told = true
      sleep(300)
    }
  }
  try {
    return work()
  } finally {
    rmSync(lock, { force: true })
  }
}

function readText(path) {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    return ''
  }
}

/** `npm ci` unless node_modules already matches the lock file. */
export function ensurePackages() {
  const lock = readFileSync(join(root, 'package-lock.json'), 'utf8')
  const hash = createHash('sha256').update(lock).digest('hex')
  const stamp = join(root, 'node_modules', '.velvet-porch-lock')
  const ready = () => readText(stamp) === hash
  if (ready()) return
  alone('install', () => {
    // The command that was waited for has done it.
    if (ready()) return
    if (!packagesMatch(lock)) {
      process.stderr.write('Installing packages…\n')
      execFileSync('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error'], {
        cwd: root,
        stdio: ['ignore', 2, 'inherit'],
      })
    }
    writeFileSync(stamp, hash)
  })
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
