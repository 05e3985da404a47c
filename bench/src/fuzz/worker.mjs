// Lets a worker thread read TypeScript.
import { register } from 'tsx/esm/api'

register()
await import('./worker.ts')
