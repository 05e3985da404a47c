import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { seededChance } from '../chance.ts'
import { killRun } from './killRun.ts'

/** `npm run kill [-- ends]`: browsers ended in mid-write; what was lost is printed. */
const KILLS = Number(process.argv[2] ?? 50)
const PORT = 4319
const base = `http://localhost:${PORT}`

const server = spawn('node', ['scripts/start.mjs'], {
  cwd: fileURLToPath(new URL('../..', import.meta.url)),
  env: { ...process.env, PORT: String(PORT) },
  stdio: ['ignore', 'inherit', 'inherit'],
})
try {
  for (let tries = 0; ; tries++) {
    if (
      await fetch(`${base}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      break
    if (tries > 300) throw new Error('The server did not start.')
    await new Promise((resolve) => setTimeout(resolve, 500))
  }
  const lost = await killRun(base, KILLS, seededChance(Number(process.env['SEED'] ?? 1)))
  for (const line of lost) process.stdout.write(`${line}\n`)
  process.stdout.write(`${KILLS} browsers ended, ${lost.length} times something was lost\n`)
  process.exitCode = lost.length > 0 ? 1 : 0
} finally {
  server.kill('SIGTERM')
}
