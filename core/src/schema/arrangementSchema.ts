import { SLIDE_MARKS } from '../document/marks.ts'
import { EXPRESSION_PARTS, EXPRESSIONS } from '../document/expression.ts'
import Joi from 'joi'
import { ARRANGEMENT_SCHEMA, type ArrangementDoc } from '../document/arrangement.ts'
import { LONGEST_BASS_ORDER, MOST_BASS_ORDERS } from '../document/bassOrder.ts'
import { CLOSES, LAST_CHORDS } from '../document/close.ts'
import { FEELS } from '../document/feel.ts'
import { LEVELS, OMISSIONS, ORNAMENTS, STYLES } from '../document/style.ts'
import { LONGEST_REMARK, ARRIVALS, ATTACKS } from '../document/tab.ts'
import { LIMITS } from '../document/limits.ts'
import { ASKED_ARTICULATIONS, type LockField } from '../document/locks.ts'
import { HAND_RULES, LIFT_RULES, ROOT_RULES, RUN_RULES, STROKE_RULES } from '../document/school.ts'
import { PICKING_SCHOOLS, PICKING_SIGNS } from '../instrument/hand.ts'
import type { TuneDoc } from '../document/tune.ts'
import { arrangementAsNow } from '../document/migrate/asNow.ts'
import { checkStrings, checkTabReferences } from './references.ts'
import { patternSchema } from './patternSchema.ts'
import { playerSchema } from './playerSchema.ts'
import { tasteInForce } from './tasteSchema.ts'
import { duration, id, midi, pos, refuseNewer, validated } from './common.ts'

const fret = Joi.number().integer().min(0).max(LIMITS.frets)
const string = Joi.number().integer().min(1).max(12)
const mm = Joi.number().positive().max(2000)
const setup = Joi.object({
  instrument: Joi.object({
    kind: Joi.string().valid('guitar', 'mandolin', 'baritone', 'tenor').required(),
    strings: string.required(),
    doubling: Joi.number().integer().min(1).max(2).required(),
    scaleLength: mm.required(),
    spacing: Joi.object({ nut: mm.required(), bridge: mm.required() }).required(),
    frets: Joi.number().integer().min(1).max(36).required(),
    bodyJoin: Joi.number().integer().min(1).max(36).required(),
  }).required(),
  tuning: Joi.array().items(midi).min(1).max(12).required(),
  capo: Joi.array().items(fret).min(1).max(12).required(),
  shift: Joi.number().integer().min(-11).max(11),
  octave: Joi.number().integer().min(-2).max(2),
  player: playerSchema.required(),
})

const place = Joi.object({
  string: string.required(),
  fret: fret.required(),
  harmonic: Joi.number().integer().min(2).max(6),
  artificial: Joi.valid(true),
  offsetCents: Joi.number().min(-50).max(50),
})
const leftFinger = Joi.valid(0, 1, 2, 3, 4, 'T')

const note = Joi.object({
  id: id.required(),
  origin: Joi.valid('hand'),
  sourceId: id,
  pos: pos.required(),
  dur: duration.required(),
  role: Joi.string().valid('melody', 'harmony', 'bass', 'fill').required(),
  notationVoice: Joi.number().integer().min(1).required(),
  place: place.required(),
  left: leftFinger.required(),
  right: Joi.string()
    .valid(...PICKING_SIGNS)
    .required(),
  attack: Joi.string()
    .valid(...ATTACKS)
    .required(),
  graces: Joi.array()
    .items(
      Joi.object({
        place: place.required(),
        left: leftFinger.required(),
        attack: Joi.string()
          .valid('pluck', ...ARRIVALS)
          .required(),
        optional: Joi.valid(true),
      }),
    )
    .max(12),
  vibrato: Joi.valid(true),
  damp: Joi.valid(true),
  ...Object.fromEntries(SLIDE_MARKS.map((mark) => [mark, Joi.valid(true)])),
  letRing: Joi.valid(true),
  bend: Joi.number().min(0.5).max(4),
  accent: Joi.valid(true),
  palmMute: Joi.valid(true),
  staccato: Joi.valid(true),
  fermata: Joi.valid(true),
  rolled: Joi.valid(true),
  remark: Joi.string().max(LONGEST_REMARK),
  ...Object.fromEntries(EXPRESSION_PARTS.map((part) => [part, Joi.string().valid(...EXPRESSIONS[part])])),
  optional: Joi.boolean().required(),
})
  .oxor('slideFromBelow', 'slideFromAbove')
  .oxor('slideOffUp', 'slideOffDown')

const pressed = Joi.array().items(
  Joi.object({
    string: string.required(),
    fret: fret.required(),
    finger: Joi.valid(1, 2, 3, 4, 'T').required(),
  }),
)

const grip = Joi.object({
  id: id.required(),
  pos: pos.required(),
  until: pos.required(),
  pressed: pressed.required(),
  ready: pressed,
  position: fret.required(),
  shape: Joi.string().max(LIMITS.shapeName),
  costs: Joi.array()
    .items(
      Joi.object({
        term: Joi.string().required(),
        cost: Joi.number().required(),
        quantity: Joi.number(),
        unit: Joi.string().valid('mm', 's', 'beats', 'fingers', 'frets', 'strings'),
      }),
    )
    .required(),
})

const style = Joi.string().valid(...STYLES)
const level = Joi.number().valid(...LEVELS)

const school = Joi.object({
  picking: Joi.string().valid(...PICKING_SCHOOLS),
  strokes: Joi.string()
    .valid(...STROKE_RULES)
    .required(),
  root: Joi.string()
    .valid(...ROOT_RULES)
    .required(),
  repeats: Joi.string().valid('alike', 'varied').required(),
  hand: Joi.string()
    .valid(...HAND_RULES)
    .required(),
  harmony: Joi.string().valid('below', 'above').required(),
  parts: Joi.string().valid('melody', 'both').required(),
  runs: Joi.string().valid(...RUN_RULES),
  liftOff: Joi.string().valid(...LIFT_RULES),
  bassStrings: Joi.array()
    .max(MOST_BASS_ORDERS)
    .items(
      Joi.object({
        chord: Joi.string().min(1).max(40).required(),
        strings: Joi.array()
          .min(1)
          .max(LONGEST_BASS_ORDER)
          .items(Joi.number().integer().min(1).max(6))
          .required(),
      }),
    ),
})

const lockedMeasure = Joi.object({
  style: style.required(),
  level: level.required(),
  ornament: Joi.number().valid(...ORNAMENTS),
  school,
  notes: Joi.array()
    .items(Joi.object({ id: id.required(), place: place.required(), left: leftFinger.required() }))
    .required(),
})

/** What each kind of lock keeps. */
const LOCK_VALUES: Readonly<Record<LockField, Joi.Schema>> = {
  place,
  left: leftFinger,
  attack: Joi.string().valid(...ASKED_ARTICULATIONS),
  grip: pressed,
  measure: lockedMeasure,
  typed: note,
  erased: pos,
  right: Joi.string().valid(...PICKING_SIGNS),
}

const lock = Joi.object({
  id: id.required(),
  target: id.required(),
  field: Joi.string()
    .valid(...Object.keys(LOCK_VALUES))
    .required(),
  value: Joi.when('field', {
    switch: Object.entries(LOCK_VALUES).map(([is, then]) => ({ is, then: then.required() })),
  }),
})

const layer = Joi.object({
  notes: Joi.array().items(note).required(),
  spans: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        kind: Joi.string()
          .valid(...ARRIVALS)
          .required(),
        from: id.required(),
        to: id.required(),
      }),
    )
    .required(),
  grips: Joi.array().items(grip).required(),
  locks: Joi.array().items(lock).required(),
})

/** An arrangement as it is kept, in today's shape. */
export const arrangement = Joi.object<ArrangementDoc>({
  schema: Joi.number().valid(ARRANGEMENT_SCHEMA).required(),
  id: id.required(),
  rev: Joi.number().integer().min(1).required(),
  name: Joi.string().min(1).max(LIMITS.title).required(),
  tuneId: id.required(),
  tuneRev: Joi.number().integer().min(1).required(),
  inputHash: Joi.string().max(64).required(),
  setup: setup.required(),
  regions: Joi.array()
    .items(
      Joi.object({
        from: id.required(),
        to: id.required(),
        style: style.required(),
        level: level.required(),
        school,
        octave: Joi.valid(-1, 1),
        without: Joi.array()
          .items(Joi.string().valid(...OMISSIONS))
          .unique(),
        ornament: Joi.number().valid(...ORNAMENTS),
        pattern: patternSchema,
        given: Joi.valid(true),
        feel: Joi.string().valid(...FEELS),
        close: Joi.string().valid(...CLOSES),
        lastChord: Joi.string().valid(...LAST_CHORDS),
        taste: tasteInForce,
      }),
    )
    .min(1)
    .required(),
  transposed: Joi.number().integer().min(-48).max(48).required(),
  goalBpm: Joi.number().min(20).max(600),
  base: layer.required(),
  variants: Joi.array()
    .items(
      Joi.object({
        id: id.required(),
        name: Joi.string().max(300).allow('').required(),
        measures: Joi.array().items(id).required(),
        when: Joi.object({ student: id, level: Joi.number(), pass: Joi.number() }).required(),
        layer: layer.required(),
      }),
    )
    .required(),
})

const WHAT = 'This is not an arrangement that can be read'

/**
 * Reads an arrangement of this or an earlier schema.
 * @param tune the tune that it arranges, where it is at hand: what the arrangement refers to must be there
 * @throws SchemaError naming the first wrong place
 */
export function readArrangementDoc(value: unknown, tune?: TuneDoc): ArrangementDoc {
  refuseNewer(value, ARRANGEMENT_SCHEMA, WHAT)
  const doc = validated<ArrangementDoc>(arrangement, arrangementAsNow(value), WHAT)
  checkStrings(doc, WHAT)
  if (tune) checkTabReferences(doc, tune, WHAT)
  return doc
}
