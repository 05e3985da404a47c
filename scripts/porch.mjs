// The command line: sets up packages on first use, and puts its sources together where they have changed.
import { pathToFileURL } from 'node:url'
import { ensurePackages } from './setup.mjs'

ensurePackages()
const { porchBundle } = await import('./porchBundle.mjs')
await import(pathToFileURL(await porchBundle()).href)
