import { fileURLToPath } from 'node:url'
import { createApp } from './app.ts'
import { closing } from './closing.ts'
import { pdfBrowser, Printer } from './pdf.ts'

const port = Number(process.env['PORT'] ?? 4173)
// Nobody else in the network sees it unless that is asked for.
const host = process.env['HOST'] ?? '127.0.0.1'
const allowedHosts = (process.env['ALLOWED_HOSTS'] ?? '').split(',').flatMap((name) => name.trim() || [])
// Another folder than the one that the build fills.
const built = process.env['BUILT'] ?? fileURLToPath(new URL('../../web/dist', import.meta.url))

const browser = pdfBrowser()
const printer = browser === undefined ? undefined : new Printer(browser)

const server = createApp(built, { host, allowedHosts, ...(printer ? { printer } : {}) }).listen(
  port,
  host,
  () => {
    const name = host === '127.0.0.1' ? 'localhost' : host
    process.stdout.write(`Velvet Porch is open at http://${name}:${port}\n`)
  },
)
server.on('error', (error: NodeJS.ErrnoException) => {
  const reason =
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken; choose another with PORT=4174 npm start.`
      : error.message
  process.stderr.write(`${reason}\n`)
  process.exitCode = 1
})
const close = closing(server)
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(
    signal,
    () =>
      void close()
        .then(() => printer?.close())
        .then(() => process.exit(0)),
  )
