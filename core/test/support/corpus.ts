import { readFileSync } from 'node:fs'

/** A file of the corpus that others wrote. */
export const corpus = (name: string) => readFileSync(new URL(`../corpus/${name}`, import.meta.url))
