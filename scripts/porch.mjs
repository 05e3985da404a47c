// The command line: sets up packages on first use, then runs the TypeScript sources directly.
import { join } from 'node:path'
import { ensurePackages, root } from './setup.mjs'

ensurePackages()
const { register } = await import('tsx/esm/api')
register()
await import(join(root, 'cli/src/main.ts'))
