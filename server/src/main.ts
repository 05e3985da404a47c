import { fileURLToPath } from 'node:url'
import { createApp } from './app.ts'

const port = Number(process.env['PORT'] ?? 4173)
const built = fileURLToPath(new URL('../../web/dist', import.meta.url))

const server = createApp(built).listen(port, () => {
  process.stdout.write(`Velvet Porch is open at http://localhost:${port}\n`)
})
server.on('error', (error: NodeJS.ErrnoException) => {
  const reason =
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken; choose another with PORT=4174 npm start.`
      : error.message
  process.stderr.write(`${reason}\n`)
  process.exitCode = 1
})
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => server.close(() => process.exit(0)))
