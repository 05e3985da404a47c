import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { fileURLToPath } from 'node:url'

/** A server of a test's own, that it may stop. */
export interface OwnServer {
  readonly origin: string
  readonly stop: () => Promise<void>
}

const root = fileURLToPath(new URL('..', import.meta.url))

/**
 * Starts the app's server.
 * @param built the folder of the built app; absent: the usual one
 */
export async function ownServer(port: number, built?: string): Promise<OwnServer> {
  const child: ChildProcess = spawn('node', ['--import', 'tsx', 'server/src/main.ts'], {
    cwd: root,
    env: { ...process.env, PORT: String(port), ...(built === undefined ? {} : { BUILT: built }) },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  // It says so when it is open.
  await Promise.race([
    once(child.stdout!, 'data'),
    once(child, 'exit').then(() => {
      throw new Error(`The server on port ${port} did not start.`)
    }),
  ])
  return {
    origin: `http://localhost:${port}`,
    async stop() {
      const gone = once(child, 'exit')
      child.kill('SIGTERM')
      await gone
    },
  }
}
