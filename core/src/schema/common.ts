import Joi from 'joi'
import { schemaOf } from '../document/migrate/asNow.ts'
import { LIMITS } from '../document/limits.ts'
import { WHOLE } from '../music/time/ticks.ts'

export const id = Joi.string().min(1).max(120)
/** A moment in a measure, or a length in one. */
export const ticks = Joi.number()
  .integer()
  .min(0)
  .max(2 * LIMITS.measureWholes * WHOLE)
export const pos = Joi.object({ measure: id.required(), tick: ticks.required() })
export const noteName = Joi.object({
  step: Joi.string().valid('C', 'D', 'E', 'F', 'G', 'A', 'B').required(),
  alter: Joi.number().integer().min(-2).max(2).required(),
})
export const pitch = noteName.keys({
  octave: Joi.number().integer().min(LIMITS.lowestOctave).max(LIMITS.highestOctave).required(),
})
export const duration = Joi.object({
  ticks: ticks.min(1).required(),
  base: Joi.number().integer().valid(1, 2, 4, 8, 16, 32, 64, 128).required(),
  dots: Joi.number().integer().min(0).max(3).required(),
  tupletId: id,
})
export const midi = Joi.number().integer().min(0).max(127)

/** What a document of a newer schema is refused with: nothing is wrong with it. */
const NEWER =
  'it was saved by a newer version of the app and is left as it is; reload the page to get that version'

/** Outside data that does not have the shape it should have; `where` is a path such as `measures[2].length`. */
export class SchemaError extends Error {
  readonly where: string
  constructor(
    what: string,
    where: string,
    reason: string,
    /** True where nothing is wrong but the app's age. */
    readonly newer = false,
  ) {
    super(`${what}: ${reason}${where ? ` (at ${where})` : ''}`)
    this.name = 'SchemaError'
    this.where = where
  }
}

/**
 * Checks outside data against a schema and returns it typed.
 * @throws SchemaError naming the first wrong place
 */
export function validated<T>(schema: Joi.Schema, value: unknown, what: string): T {
  const result = schema.required().validate(value, { convert: false, abortEarly: true })
  if (!result.error) return value as T
  const detail = result.error.details[0]
  const where = (detail?.path ?? [])
    .map((p) => (typeof p === 'number' ? `[${p}]` : `.${p}`))
    .join('')
    .replace(/^\./, '')
  throw new SchemaError(what, where, detail?.message ?? 'not readable')
}

/** @throws SchemaError where a document is of a newer schema than this app knows */
export function refuseNewer(value: unknown, now: number, what: string): void {
  if ((schemaOf(value) ?? 0) > now) throw new SchemaError(what, '', NEWER, true)
}
