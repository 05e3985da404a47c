import Joi from 'joi'
import type { TabJson } from '../output/json/tabJson.ts'
import { LIMITS } from '../document/limits.ts'
import { PICKING_SIGNS } from '../instrument/hand.ts'
import { INSTRUMENTS } from '../instrument/instruments.ts'
import { playerSchema } from './playerSchema.ts'
import { midi, SchemaError, validated } from './common.ts'

/** Time from the start of the tune. */
const ticks = Joi.number().integer().min(0)

const tab = Joi.object({
  schemaVersion: Joi.number().valid(1).required(),
  tune: Joi.object({
    title: Joi.string().allow('').required(),
    measures: Joi.array()
      .min(1)
      .items(
        Joi.object({
          index: Joi.number().integer().min(0).required(),
          number: Joi.number().integer().min(0).required(),
          start: ticks.required(),
          length: ticks.min(1).required(),
          metre: Joi.string().required(),
          key: Joi.string().required(),
        }).unknown(),
      )
      .required(),
    order: Joi.array().items(Joi.number().integer().min(0)).required(),
    tempos: Joi.array()
      .items(Joi.object({ start: ticks.required(), bpm: Joi.number().positive().required() }))
      .required(),
  })
    .required()
    .unknown(),
  setup: Joi.object({
    tuning: Joi.array().items(midi).min(4).max(6).required(),
    capo: Joi.number().integer().min(0).max(12).required(),
    instrument: Joi.string().valid(...Object.keys(INSTRUMENTS)),
    player: playerSchema,
  })
    .required()
    .unknown(),
  transposed: Joi.number().integer().required(),
  source: Joi.array()
    .items(
      Joi.object({ start: ticks.required(), duration: ticks.required(), midi: midi.required() }).unknown(),
    )
    .required(),
  notes: Joi.array()
    .items(
      Joi.object({
        measure: Joi.number().integer().min(0).required(),
        start: ticks.required(),
        duration: ticks.required(),
        ring: ticks.required(),
        string: Joi.number().integer().required(),
        fret: Joi.number().integer().required(),
        harmonic: Joi.number().integer().min(2).max(6),
        artificial: Joi.valid(true),
        midi: Joi.number().integer().required(),
        role: Joi.string().valid('melody', 'harmony', 'bass', 'fill').required(),
        leftFinger: Joi.valid(0, 1, 2, 3, 4, 'T').required(),
        rightFinger: Joi.string()
          .valid(...PICKING_SIGNS)
          .required(),
        technique: Joi.string().required(),
        graces: Joi.array().items(
          Joi.object({
            string: Joi.number().integer().required(),
            fret: Joi.number().integer().required(),
            midi: Joi.number().integer().required(),
            leftFinger: Joi.valid(0, 1, 2, 3, 4, 'T').required(),
            technique: Joi.string().required(),
          }).unknown(),
        ),
        bend: Joi.number().positive(),
      }).unknown(),
    )
    .required(),
  grips: Joi.array().items(
    Joi.object({
      start: ticks.required(),
      pressed: Joi.array()
        .items(
          Joi.object({
            string: Joi.number().integer().required(),
            fret: Joi.number().integer().required(),
            finger: Joi.valid(0, 1, 2, 3, 4, 'T').required(),
          }).unknown(),
        )
        .required(),
    }).unknown(),
  ),
  chords: Joi.array()
    .items(
      Joi.object({
        start: ticks.required(),
        symbol: Joi.string().allow('').required(),
        sounding: Joi.string().allow('').required(),
      }).unknown(),
    )
    .required(),
  warnings: Joi.array().items(Joi.string()).required(),
  elapsedMs: Joi.number().min(0).required(),
}).unknown()

const WHAT = 'This is not a tab file of `porch arrange --json`'

/** @throws SchemaError naming the first wrong place */
export function readTabJson(value: unknown): TabJson {
  const json = validated<TabJson>(tab, value, WHAT)
  const strings = json.setup.tuning.length
  const check = (where: string, places: readonly { readonly string: number; readonly fret: number }[]) => {
    for (const { string, fret } of places)
      if (string < 1 || string > strings || fret < 0 || fret > LIMITS.frets)
        throw new SchemaError(WHAT, where, `there is no place on string ${string} at fret ${fret}`)
  }
  json.notes.forEach((n, i) => check(`notes[${i}]`, [n, ...(n.graces ?? [])]))
  json.grips?.forEach((g, i) => check(`grips[${i}]`, g.pressed))
  return json
}
