// Empties the folder of the built app before anything is built into it.
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './setup.mjs'

rmSync(join(root, 'web/dist'), { recursive: true, force: true })
