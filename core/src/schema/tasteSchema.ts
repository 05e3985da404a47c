import Joi from 'joi'
import { HABITS } from '../document/habit.ts'
import { MOST_TASTE_PRICE, TASTE_FEATURES } from '../document/taste.ts'
import { MOST_COMPARISONS, TASTE_FORMAT, type TasteDoc } from '../taste/tasteDoc.ts'
import { chordShape } from './chordShapeSchema.ts'
import { id, SchemaError, validated } from './common.ts'

const price = Joi.number().min(-MOST_TASTE_PRICE).max(MOST_TASTE_PRICE)

const prices = Joi.object(Object.fromEntries(TASTE_FEATURES.map((f) => [f, price])))

/** A taste as an arrangement was made with it. */
export const tasteInForce = Joi.object({
  name: Joi.string().max(200).allow('').required(),
  prices: prices.required(),
  shapes: Joi.array().max(500).items(chordShape).required(),
})

const at = Joi.object({
  tune: id.required(),
  title: Joi.string().max(300).allow('').required(),
  measure: Joi.number().integer().min(0).max(100_000).required(),
  day: Joi.string()
    .pattern(/^\d{4}-\d\d-\d\d$/)
    .required(),
})

/** A setting, with what it may be. */
const habit = Joi.alternatives(
  ...Object.entries(HABITS).map(([key, values]) =>
    Joi.object({ key: Joi.string().valid(key).required(), value: Joi.valid(...values).required() }),
  ),
)

const way = Joi.object({
  kind: Joi.string().valid('way').required(),
  at: at.required(),
  ways: Joi.array()
    .min(2)
    .max(20)
    .items(
      Joi.object({
        price: Joi.number().required(),
        counts: Joi.array().length(TASTE_FEATURES.length).items(Joi.number().min(0).max(10_000)).required(),
      }),
    )
    .required(),
  taken: Joi.number().integer().min(0).max(19).less(Joi.ref('ways.length')).required(),
})

const comparison = Joi.alternatives().conditional('.kind', {
  switch: [
    { is: 'way', then: way },
    {
      is: 'habit',
      then: Joi.object({
        kind: Joi.string().valid('habit').required(),
        at: at.required(),
        habit: habit.required(),
      }),
    },
    {
      is: 'shape',
      then: Joi.object({
        kind: Joi.string().valid('shape').required(),
        at: at.required(),
        shape: chordShape.required(),
      }),
    },
  ],
  otherwise: Joi.object({ kind: Joi.string().valid('leftOut').required(), at: at.required() }),
})

const entry = Joi.object({
  id: id.required(),
  on: Joi.boolean().required(),
  says: Joi.alternatives()
    .conditional('.kind', {
      switch: [
        {
          is: 'price',
          then: Joi.object({
            kind: Joi.string().valid('price').required(),
            feature: Joi.string()
              .valid(...TASTE_FEATURES)
              .required(),
            price: price.required(),
          }),
        },
        {
          is: 'habit',
          then: Joi.object({ kind: Joi.string().valid('habit').required(), habit: habit.required() }),
        },
      ],
      otherwise: Joi.object({ kind: Joi.string().valid('shape').required(), shape: chordShape.required() }),
    })
    .required(),
  scope: Joi.object({
    kind: Joi.string().valid('always', 'tune', 'student').required(),
    id,
    name: Joi.string().max(300).allow(''),
  }).required(),
  from: Joi.string().valid('noticed', 'hand').required(),
  cases: Joi.array().max(MOST_COMPARISONS).items(at).required(),
})

/** A taste with all that it was learned from. */
export const taste = Joi.object({
  format: Joi.string().valid(TASTE_FORMAT).required(),
  version: Joi.number().valid(1).required(),
  id: id.required(),
  name: Joi.string().max(200).allow('').required(),
  entries: Joi.array().max(1000).items(entry).required(),
  comparisons: Joi.array().max(MOST_COMPARISONS).items(comparison).required(),
  declined: Joi.array().max(1000).items(Joi.string().max(500)).required(),
})

const WHAT = 'This is not a taste that can be read'

/**
 * Reads a taste.
 * @throws SchemaError naming the first wrong place; as newer where a later version of the app wrote it
 */
export function readTaste(value: unknown): TasteDoc {
  const version = (value as { version?: unknown } | null)?.version
  if (typeof version === 'number' && version > 1)
    throw new SchemaError(
      WHAT,
      'version',
      'it was saved by a newer version of the app and is left as it is',
      true,
    )
  return validated<TasteDoc>(taste, value, WHAT)
}
