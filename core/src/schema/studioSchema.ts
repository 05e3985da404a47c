import Joi from 'joi'
import { LEVELS } from '../document/style.ts'
import { INSTRUMENTS } from '../instrument/instruments.ts'
import { isDay } from '../studio/day.ts'
import { RECORD_LIMITS, type Assignment, type LessonRecord, type StudentRecord } from '../studio/records.ts'
import { RIGHTS, TUNE_STATUSES, type RepertoireEntry } from '../studio/repertoire.ts'
import { MOST_SET_ITEMS, type SetList } from '../studio/setList.ts'
import { id, validated } from './common.ts'

const day = Joi.string().custom((value: string, { error }) => (isDay(value) ? value : error('any.invalid')))
const text = Joi.string().allow('').max(RECORD_LIMITS.text)
const minutes = Joi.number().integer().min(0).max(RECORD_LIMITS.minutes)

export const studentRecord = Joi.object({
  id: id.required(),
  since: day.required(),
  instrument: Joi.string()
    .valid(...Object.keys(INSTRUMENTS))
    .required(),
  level: Joi.number()
    .valid(...LEVELS)
    .required(),
  minutesADay: minutes.required(),
  goals: text.required(),
  notes: text.required(),
})

export const assignment = Joi.object({
  id: id.required(),
  studentId: id.required(),
  tuneId: id.required(),
  versionId: id,
  given: day.required(),
  due: day,
  learnt: day,
})

export const lessonRecord = Joi.object({
  id: id.required(),
  studentId: id.required(),
  day: day.required(),
  time: Joi.string()
    .pattern(/^([01]\d|2[0-3]):[0-5]\d$/)
    .required(),
  minutes: minutes.required(),
  state: Joi.string().valid('planned', 'held', 'missed').required(),
  done: text.required(),
  next: text.required(),
  notes: text.required(),
})

export const repertoireEntry = Joi.object({
  id: id.required(),
  status: Joi.string()
    .valid(...TUNE_STATUSES)
    .required(),
  source: text.required(),
  rights: Joi.string()
    .valid(...RIGHTS)
    .required(),
  tags: Joi.array().items(Joi.string().min(1).max(60)).max(40).required(),
  requests: Joi.array()
    .items(Joi.object({ by: Joi.string().min(1).max(120).required(), day: day.required() }))
    .max(500)
    .required(),
  lastPlayed: day,
})

export const setList = Joi.object({
  id: id.required(),
  name: Joi.string().allow('').max(200).required(),
  day,
  items: Joi.array()
    .items(Joi.object({ tuneId: id.required(), minutes: Joi.number().min(0).max(RECORD_LIMITS.minutes) }))
    .max(MOST_SET_ITEMS)
    .required(),
  first: id,
  last: id,
})

/** Checks a record before it is kept. @throws SchemaError naming the first wrong place */
export const readStudentRecord = (value: unknown): StudentRecord =>
  validated<StudentRecord>(studentRecord, value, 'This student cannot be kept')

/** @throws SchemaError naming the first wrong place */
export const readAssignment = (value: unknown): Assignment =>
  validated<Assignment>(assignment, value, 'This assignment cannot be kept')

/** @throws SchemaError naming the first wrong place */
export const readLessonRecord = (value: unknown): LessonRecord =>
  validated<LessonRecord>(lessonRecord, value, 'This lesson cannot be kept')

/** @throws SchemaError naming the first wrong place */
export const readRepertoireEntry = (value: unknown): RepertoireEntry =>
  validated<RepertoireEntry>(repertoireEntry, value, 'This entry cannot be kept')

/** @throws SchemaError naming the first wrong place */
export const readSetList = (value: unknown): SetList =>
  validated<SetList>(setList, value, 'This set list cannot be kept')
