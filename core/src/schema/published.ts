import type Joi from 'joi'
import { arrangement } from './arrangementSchema.ts'
import { backupOf, rows, tuneFileOf } from './backupSchema.ts'
import { practiceLogSchema } from './practiceLogSchema.ts'
import { tune } from './tuneSchema.ts'

/** Files that leave the app, as they are written today. `docs/schema` publishes them as JSON Schema. */
export const PUBLISHED_SCHEMAS: Readonly<Record<string, Joi.Schema>> = {
  'tune-file': tuneFileOf(tune, arrangement),
  'practice-log': practiceLogSchema,
  everything: backupOf({ ...rows, tunes: tune, arrangements: arrangement }),
}
