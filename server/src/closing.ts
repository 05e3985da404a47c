import type { Server } from 'node:http'

/** What is under way may end for so long when the server is asked to stop. */
const PATIENCE_MS = 3000

/** Ends a server: nothing new is taken, what is under way may end for a moment, then its connections are cut. */
export function closing(server: Server, patienceMs = PATIENCE_MS): () => Promise<void> {
  let over: Promise<void> | undefined
  return () =>
    (over ??= new Promise((resolve) => {
      const cut = setTimeout(() => server.closeAllConnections(), patienceMs)
      server.close(() => {
        clearTimeout(cut)
        resolve()
      })
      server.closeIdleConnections()
    }))
}
