// Runs every check, two at a time: each takes one core. What a check says is shown when it has ended.
import { spawn } from 'node:child_process'
import { root } from './setup.mjs'

/** The longest first. */
const CHECKS = ['lint', 'types', 'deps', 'unused', 'format']
const AT_ONCE = 2

const check = (name) =>
  new Promise((resolve) => {
    const child = spawn('npm', ['run', '-s', `check:${name}`], { cwd: root })
    let said = ''
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text))
    child.on('close', (code) => {
      if (code !== 0) process.stdout.write(`${said}\ncheck:${name} failed\n`)
      resolve(code === 0)
    })
  })

const waiting = [...CHECKS]
const lane = async () => {
  let good = true
  for (let name = waiting.shift(); name; name = waiting.shift()) good = (await check(name)) && good
  return good
}
const lanes = await Promise.all(Array.from({ length: AT_ONCE }, lane))
process.exit(lanes.every(Boolean) ? 0 : 1)
