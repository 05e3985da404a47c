import Joi from 'joi'
import { ACCOMPANIMENTS } from '../document/style.ts'
import type { PatternStyle } from '../arrange/accompany/patternLibrary.ts'
import type { PatternText } from '../document/arrangement.ts'
import { id, validated } from './common.ts'

const fields = {
  metre: Joi.object({
    num: Joi.number().integer().min(1).max(32).required(),
    den: Joi.number().valid(1, 2, 4, 8, 16, 32).required(),
  }).required(),
  perBeat: Joi.number().integer().min(1).max(8).required(),
  text: Joi.string().min(1).max(2000).required(),
}

export const patternSchema = Joi.object(fields)

/** A pattern that a teacher keeps under a name. */
export interface OwnPattern extends PatternText {
  readonly id: string
  readonly name: string
  readonly style: PatternStyle
}

const ownSchema = Joi.object({
  id: id.required(),
  name: Joi.string().trim().min(1).max(60).required(),
  style: Joi.string()
    .valid(...ACCOMPANIMENTS.filter((s) => s !== 'shuffle'))
    .required(),
  ...fields,
})

/** A pattern to be kept. @throws SchemaError naming the first wrong place */
export const readOwnPattern = (value: unknown): OwnPattern =>
  validated<OwnPattern>(ownSchema, value, 'This is not a pattern that can be kept')
