import { timelineOf, unfold, type ArrangementDoc, type TuneDoc } from '@velvet-porch/core/document'
import { effortOf, tuneEffort } from '@velvet-porch/core/hand'
import { makePlan } from '@velvet-porch/core/arrange'
import { audit } from '@velvet-porch/core/audit'
import { USUAL_LESSON, lessonOf } from '@velvet-porch/core/lesson'
import { finishedTabOf, tabJson, textTab, writeAbc } from '@velvet-porch/core/output'
import { handoutPieces, usualHandout } from '@velvet-porch/core/output/handout'
import {
  readArrangementDoc,
  readHandout,
  readPracticeLog,
  readTabJson,
  readTuneDoc,
  SchemaError,
} from '@velvet-porch/core/schema'
import { LOG_FORMAT, progressOf } from '@velvet-porch/core/lesson'
import { scoreOf } from '@velvet-porch/core/output/sound'
import { mutateData } from '../mutateData.ts'
import { loss, type Complaint, type FuzzTarget } from '../target.ts'
import { arrangedSeeds } from './seeds.ts'

/** What a schema refuses with its own word is refused well. */
function accepted<T>(read: () => T): T | undefined {
  try {
    return read()
  } catch (error) {
    if (error instanceof SchemaError && error.where !== undefined) return undefined
    throw error
  }
}

/** Numbers that JSON cannot write would be stored as nothing. */
function unwritable(value: unknown, where = 'report'): Complaint[] {
  if (typeof value === 'number') return Number.isFinite(value) ? [] : [loss(`${where} is ${value}`)]
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([k, v]) => unwritable(v, `${where}.${k}`))
}

export const tabJsonTarget: FuzzTarget = {
  name: 'tab JSON',
  get seeds() {
    return arrangedSeeds().map((s) => s.json)
  },
  mutate: mutateData,
  read(value) {
    const tab = accepted(() => readTabJson(value))
    return tab ? unwritable(audit(finishedTabOf(tab))) : []
  },
}

/** A tune and its arrangement as storage gives them: refused, or everything can be made of them. */
export const storedTarget: FuzzTarget = {
  name: 'stored documents',
  get seeds() {
    return arrangedSeeds().map(({ tune, arrangement }) => ({ tune, arrangement }))
  },
  mutate: mutateData,
  read(value) {
    const stored = (typeof value === 'object' && value !== null ? value : {}) as Record<string, unknown>
    const tune = accepted(() => readTuneDoc(stored['tune']))
    if (!tune) return []
    const doc = accepted(() => readArrangementDoc(stored['arrangement'], tune))
    return doc ? [...used(tune, doc)] : (writeAbc(tune), [])
  },
}

/** Everything that the app makes of a score. */
function* used(tune: TuneDoc, doc: ArrangementDoc): Generator<Complaint> {
  writeAbc(tune)
  const { setup, regions, base } = doc
  const timeline = timelineOf(tune.measures)
  yield* unwritable(tuneEffort(effortOf(tune, setup, base, timeline)), 'effort')
  lessonOf(tune, doc, USUAL_LESSON)
  scoreOf(tune, setup, base, timeline, unfold(tune.measures), doc.variants)
  const planned = makePlan(tune, setup, regions)
  if (!planned.ok) return
  yield* unwritable(audit(finishedTabOf(tabJson(tune, setup, planned.plan, base, [], 0))))
  textTab({ tune, timeline, setup, layer: base, harmony: planned.plan.harmony })
}

const LOG = {
  format: LOG_FORMAT,
  version: 1,
  tune: 'tune1',
  title: 'A tune',
  unit: 'phrase',
  entries: [
    { day: '2026-11-20', piece: 1, bpm: 60, clean: 2, minutes: 10, note: 'slow' },
    { day: '2026-11-21', piece: 2, bpm: 72.5, clean: 0, minutes: 5, note: '' },
  ],
}

export const logTarget: FuzzTarget = {
  name: 'practice log',
  seeds: [LOG],
  mutate: mutateData,
  read(value) {
    const log = accepted(() => readPracticeLog(value))
    return log ? unwritable(progressOf(log.entries), 'progress') : []
  },
}

export const handoutTarget: FuzzTarget = {
  name: 'handout',
  seeds: [usualHandout('tune1')],
  mutate: mutateData,
  read(value) {
    const handout = accepted(() => readHandout(value))
    if (!handout) return []
    const { tune, arrangement } = arrangedSeeds()[0]!
    handoutPieces(handout, lessonOf(tune, arrangement, handout.settings))
    return []
  },
}
