import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterEach, describe, expect, it } from 'vitest'

const setup = fileURLToPath(new URL('../../scripts/setup.mjs', import.meta.url))
const lock = fileURLToPath(new URL('../../.cache/setup-test.lock', import.meta.url))
const log = join(mkdtempSync(join(tmpdir(), 'velvet-')), 'log')

afterEach(() => rmSync(lock, { force: true }))

/** A command of its own that sets something up, as `npm start` and `porch` do. */
const command = (name: string) => {
  const work = `appendFileSync(${JSON.stringify(log)}, '${name} begins\\n'); Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 250); appendFileSync(${JSON.stringify(log)}, '${name} ends\\n')`
  const child = spawn(process.execPath, [
    '--input-type=module',
    '-e',
    `import { appendFileSync } from 'node:fs'; import { alone } from ${JSON.stringify(setup)}; alone('setup-test', () => { ${work} })`,
  ])
  return new Promise<number | null>((resolve) => child.on('exit', resolve))
}

describe('setting up', () => {
  it('is done by one command at a time; the others wait', async () => {
    writeFileSync(log, '')
    expect(await Promise.all(['a', 'b', 'c'].map(command))).toEqual([0, 0, 0])
    const lines = readFileSync(log, 'utf8').trim().split('\n')
    expect(lines).toHaveLength(6)
    for (let i = 0; i < lines.length; i += 2) expect(lines[i + 1]).toBe(lines[i]!.replace('begins', 'ends'))
  })

  it('goes on where the command that held the lock was killed', async () => {
    writeFileSync(log, '')
    const gone = spawn(process.execPath, ['-e', ''])
    await new Promise((resolve) => gone.on('exit', resolve))
    writeFileSync(lock, String(gone.pid))
    expect(await command('a')).toBe(0)
    expect(readFileSync(log, 'utf8')).toBe('a begins\na ends\n')
  })
})
