import Joi from 'joi'
import { chordShape } from './chordShapeSchema.ts'
import { LIMITS, METRE_UNITS } from '../document/limits.ts'
import { TUNE_SCHEMA, type TuneDoc } from '../document/tune.ts'
import { MODES } from '../music/pitch/key.ts'
import { tuneAsNow } from '../document/migrate/asNow.ts'
import { checkTuneReferences } from './references.ts'
import { duration, id, noteName, pitch, pos, refuseNewer, ticks, validated } from './common.ts'

const metre = Joi.object({
  num: Joi.number().integer().min(1).max(LIMITS.metreBeats).required(),
  den: Joi.number()
    .integer()
    .valid(...METRE_UNITS)
    .required(),
  display: Joi.string().valid('common', 'cut'),
})

const key = Joi.object({
  tonic: noteName.required(),
  mode: Joi.string()
    .valid(...MODES)
    .required(),
  fifths: Joi.number().integer().min(-14).max(14).required(),
})

const measure = Joi.object({
  id: id.required(),
  nominal: ticks.min(1).required(),
  length: ticks.min(1).required(),
  cut: Joi.valid(true),
  metre: metre.required(),
  key: key.required(),
  repeatStart: Joi.boolean().required(),
  repeatEnd: Joi.number()
    .integer()
    .min(1)
    .max(LIMITS.passes + 1)
    .required(),
  barline: Joi.string().valid('single', 'double', 'final', 'none').required(),
  endings: Joi.array().items(Joi.number().integer().min(1).max(LIMITS.passes)).required(),
  segno: Joi.boolean(),
  coda: Joi.boolean(),
  fine: Joi.boolean(),
  jump: Joi.string().valid(
    'daCapo',
    'daCapoAlFine',
    'daCapoAlCoda',
    'dalSegno',
    'dalSegnoAlFine',
    'dalSegnoAlCoda',
  ),
  provenance: Joi.string().valid('source', 'heard', 'guessed', 'choice').required(),
})

const event = Joi.object({
  id: id.required(),
  voice: Joi.number().integer().min(0).required(),
  pos: pos.required(),
  dur: duration.required(),
  pitch,
  chordTones: Joi.array().items(pitch).required(),
  tieTo: id,
  graces: Joi.array().items(pitch).required(),
  ornaments: Joi.array().items(Joi.string().max(LIMITS.ornament)).required(),
  lyric: Joi.string().max(LIMITS.lyric).allow(''),
  slurred: Joi.valid(true),
  moreLyrics: Joi.array()
    .items(Joi.string().max(LIMITS.lyric).allow(''))
    .max(LIMITS.verses - 1),
})

const chordReading = Joi.object({
  root: noteName.required(),
  quality: Joi.string().allow('').max(20).required(),
  intervals: Joi.array().items(Joi.number().integer().min(0).max(24)).min(1).required(),
  bass: noteName,
})

/** A tune as it is kept, in today's shape. */
export const tune = Joi.object<TuneDoc>({
  schema: Joi.number().valid(TUNE_SCHEMA).required(),
  id: id.required(),
  rev: Joi.number().integer().min(1).required(),
  title: Joi.string().min(1).max(LIMITS.title).required(),
  composer: Joi.string().allow('').max(LIMITS.composer),
  measures: Joi.array().items(measure).min(1).max(LIMITS.measures).required(),
  events: Joi.array().items(event).required(),
  chords: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        pos: pos.required(),
        symbol: Joi.string().allow('').max(LIMITS.chordSymbol).required(),
        parsed: chordReading,
        origin: Joi.string().valid('given', 'suggested', 'typed').required(),
      }),
    )
    .required(),
  tuplets: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        actual: Joi.number().integer().min(2).max(LIMITS.tuplet).required(),
        normal: Joi.number().integer().min(1).max(LIMITS.tuplet).required(),
      }),
    )
    .required(),
  sections: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        name: Joi.string().allow('').max(LIMITS.sectionName).required(),
        measure: id.required(),
      }),
    )
    .required(),
  tempos: Joi.array()
    .items(
      Joi.object({
        pos: pos.required(),
        bpm: Joi.number().min(LIMITS.slowest).max(LIMITS.fastest).required(),
        stated: Joi.boolean().required(),
      }),
    )
    .min(1)
    .required(),
  pins: Joi.array().items(chordShape.keys({ id: id.required() })),
  song: Joi.object({
    lines: Joi.array()
      .items(
        Joi.object({
          id: id.required(),
          kind: Joi.string().valid('sung', 'remark').required(),
          text: Joi.string().allow('').max(LIMITS.songLine).required(),
          changes: Joi.array().items(Joi.number().integer().min(0).max(LIMITS.songLine)),
          measures: Joi.array().items(id).max(LIMITS.measures).required(),
          singer: Joi.string().min(1).max(LIMITS.singer),
        }),
      )
      .max(LIMITS.songLines)
      .required(),
  }),
  source: Joi.string().allow('').max(LIMITS.source),
  rights: Joi.string().allow('').max(LIMITS.source),
  abc: Joi.object({
    text: Joi.string().allow('').max(LIMITS.sourceText).required(),
    spans: Joi.array()
      .items(
        Joi.object({
          target: id.required(),
          from: Joi.number().integer().min(0).required(),
          to: Joi.number().integer().min(0).required(),
        }),
      )
      .required(),
  }),
})

const WHAT = 'This is not a tune that can be read'

/** Reads a tune of this or an earlier schema. @throws SchemaError naming the first wrong place */
export function readTuneDoc(value: unknown): TuneDoc {
  refuseNewer(value, TUNE_SCHEMA, WHAT)
  const doc = validated<TuneDoc>(tune, tuneAsNow(value), WHAT)
  checkTuneReferences(doc, WHAT)
  return doc
}
