import Joi from 'joi'
import { UNITS } from '../lesson/practice/piece.ts'
import {
  LOG_FORMAT,
  LONGEST_LOG_NOTE,
  MOST_ENTRIES,
  type PracticeLog,
} from '../lesson/practice/practiceLog.ts'
import { id, validated } from './common.ts'

export const practiceLogSchema = Joi.object({
  format: Joi.string().valid(LOG_FORMAT).required(),
  version: Joi.number().valid(1).required(),
  tune: id.required(),
  title: Joi.string().allow('').max(300).required(),
  unit: Joi.string().valid(...UNITS),
  student: id,
  entries: Joi.array()
    .items(
      Joi.object({
        day: Joi.string()
          .pattern(/^\d{4}-\d{2}-\d{2}$/)
          .required(),
        piece: Joi.number().integer().min(0).max(2000).required(),
        bpm: Joi.number().min(1).max(500).required(),
        clean: Joi.number().integer().min(0).max(1000).required(),
        minutes: Joi.number().min(0).max(1440).required(),
        note: Joi.string().allow('').max(LONGEST_LOG_NOTE).required(),
      }),
    )
    .max(MOST_ENTRIES)
    .required(),
})

/** A practice log that a student sent. @throws SchemaError naming the first wrong place */
export const readPracticeLog = (value: unknown): PracticeLog =>
  validated<PracticeLog>(practiceLogSchema, value, 'This is not a practice log')
