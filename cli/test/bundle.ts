import type { TestProject } from 'vitest/node'
import { porchBundle } from '../../scripts/porchBundle.mjs'

declare module 'vitest' {
  interface ProvidedContext {
    /** Path of the command line, put together. */
    porch: string
  }
}

/** Puts the command line together once for all tests, as its users' first call does. */
export default async function bundle(project: TestProject): Promise<void> {
  project.provide('porch', await porchBundle())
}
