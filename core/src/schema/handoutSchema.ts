import Joi from 'joi'
import {
  BLOCK_KINDS,
  HANDOUT_SCHEMA,
  LONGEST_NOTES,
  PAPERS,
  type HandoutDoc,
} from '../output/handout/handout.ts'
import { NOTE_NAMINGS } from '../music/pitch/noteNaming.ts'
import { ALONGSIDE } from '../lesson/steps/alongsideChoice.ts'
import { UNITS } from '../lesson/practice/piece.ts'
import { LANGUAGES } from '../messages/language.ts'
import { id, validated } from './common.ts'

const measure = Joi.number().integer().min(0)
const shown = Joi.boolean().required()

const settings = Joi.object({
  speech: Joi.object({
    language: Joi.string()
      .valid(...LANGUAGES)
      .required(),
    length: Joi.string().valid('full', 'short').required(),
    fingers: Joi.string().valid('names', 'numbers').required(),
  }).required(),
  names: Joi.string()
    .valid('none', ...NOTE_NAMINGS)
    .required(),
  alongside: Joi.string().valid(...ALONGSIDE),
  unit: Joi.string()
    .valid(...UNITS)
    .required(),
  joining: Joi.string().valid('each', 'end').required(),
  way: Joi.object({
    startShare: Joi.number().min(0.3).max(1).required(),
    clean: Joi.number().integer().min(1).max(10).required(),
    tries: Joi.number().min(1).max(10).required(),
  }).required(),
  minutes: Joi.number().integer().min(5).max(120).required(),
})

const handoutSchema = Joi.object({
  schema: Joi.number().valid(HANDOUT_SCHEMA).required(),
  id: id.required(),
  paper: Joi.string()
    .valid(...PAPERS)
    .required(),
  large: Joi.boolean().required(),
  layers: Joi.object({
    chords: Joi.string().valid('shapes', 'sounding', 'none').required(),
    fingers: shown,
    picking: shown,
    counts: shown,
    strings: shown,
    rhythm: shown,
    lyrics: shown,
    // Absent in handouts that were kept before there was a staff.
    staff: Joi.boolean(),
  }).required(),
  settings: settings.required(),
  blocks: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        kind: Joi.string()
          .valid(...BLOCK_KINDS)
          .required(),
        from: measure,
        to: measure,
        counts: Joi.boolean(),
        text: Joi.string().allow('').max(LONGEST_NOTES),
      }),
    )
    .max(60)
    .unique('id')
    .required(),
})

/** A handout to be kept. @throws SchemaError naming the first wrong place */
export const readHandout = (value: unknown): HandoutDoc =>
  validated<HandoutDoc>(handoutSchema, value, 'This is not a handout that can be kept')
