import { ARRANGEMENT_SCHEMA } from '../arrangement.ts'
import type { Command } from '../command.ts'
import { TUNE_SCHEMA } from '../tune.ts'
import { withHandOrigin } from './handOrigin.ts'

/** Brings a document from one schema to the next. */
type Step = (doc: object) => object

/**
 * The first leads from schema 1 to 2. A step that was shipped never changes; a new shape gets a new one behind it. Schema 3
 * has sections whose tab is given, schema 4 sections with a feel and a close, schema 5 last chords, rolled notes and bass strings
 * that are said; there were none before.
 */
const ARRANGEMENT_STEPS: readonly Step[] = [
  (doc) => withHandOrigin(doc) as object,
  (doc) => doc,
  (doc) => doc,
  (doc) => doc,
]
const TUNE_STEPS: readonly Step[] = []

/** The schema that a stored document says it has; undefined where it says none. */
export const schemaOf = (value: unknown): number | undefined => {
  const schema = (value as { schema?: unknown } | null | undefined)?.schema
  return typeof schema === 'number' && Number.isInteger(schema) && schema >= 1 ? schema : undefined
}

function broughtUp(value: unknown, steps: readonly Step[], now: number): unknown {
  const schema = schemaOf(value)
  if (schema === undefined || schema >= now) return value
  const doc = steps.slice(schema - 1).reduce((earlier, step) => step(earlier), value as object)
  return { ...doc, schema: now }
}

/** A stored arrangement in today's shape. What is none, or of a newer schema, is left as it is. */
export const arrangementAsNow = (value: unknown): unknown =>
  broughtUp(value, ARRANGEMENT_STEPS, ARRANGEMENT_SCHEMA)

/** A stored tune in today's shape. What is none, or of a newer schema, is left as it is. */
export const tuneAsNow = (value: unknown): unknown => broughtUp(value, TUNE_STEPS, TUNE_SCHEMA)

/** A step of an arrangement's history as it is on a document in today's shape. */
export const commandAsNow = (command: Command): Command => withHandOrigin(command) as Command
