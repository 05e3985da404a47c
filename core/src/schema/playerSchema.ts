import Joi from 'joi'
import { PICKING_SCHOOLS, type Player } from '../instrument/hand.ts'
import { validated } from './common.ts'

/** A hand narrower or wider than this is a slip of the ruler. */
const span = Joi.number().min(15).max(220)
const PAIRS = ['12', '13', '14', '23', '24', '34'] as const

export const spansSchema = Joi.object(Object.fromEntries(PAIRS.map((k) => [k, span.required()])))

const techniques = Joi.object({
  barre: Joi.boolean().required(),
  littleFinger: Joi.boolean().required(),
  fingers: Joi.number().integer().min(1).max(4),
  thumbOver: Joi.boolean().required(),
})

/** The fields of a player; the later ones may be missing from documents written before they existed. */
export const playerSchema = Joi.object({
  name: Joi.string().allow('').max(200).required(),
  spans: spansSchema.required(),
  techniques,
  school: Joi.string().valid(...PICKING_SCHOOLS),
  handedness: Joi.string().valid('right', 'left').required(),
})

/** A player as typed or stored, all fields there. @throws SchemaError naming the first wrong place */
export function readPlayer(value: unknown): Player {
  const whole = playerSchema.fork(['techniques', 'school'], (s) => s.required())
  return validated<Player>(whole, value, 'This is not a hand that can play')
}
