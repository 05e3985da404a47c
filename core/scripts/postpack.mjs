// Brings back the package.json of the workspace after packing.
import { existsSync, renameSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const core = join(dirname(fileURLToPath(import.meta.url)), '..')
const kept = join(core, 'package.workspace.json')
if (existsSync(kept)) renameSync(kept, join(core, 'package.json'))
