import Joi from 'joi'
import { LIMITS } from '../document/limits.ts'
import { midi } from './common.ts'

/** A shape that somebody wants for a chord: pinned to a tune, or part of a taste. */
export const chordShape = Joi.object({
  chord: Joi.string().min(1).max(40).required(),
  tuning: Joi.array().items(midi).min(1).max(12).required(),
  frets: Joi.array()
    .items(Joi.number().integer().min(0).max(LIMITS.frets).allow(null))
    .min(1)
    .max(12)
    .required(),
  fingers: Joi.array()
    .items(Joi.valid(0, 1, 2, 3, 4, 'T'))
    .min(1)
    .max(12)
    .required(),
})
