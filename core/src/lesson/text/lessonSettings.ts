import { NOTE_NAMINGS, type NoteNaming } from '../../music/pitch/noteNaming.ts'
import { ALONGSIDE, type Alongside } from '../steps/alongsideChoice.ts'
import type { Joining } from '../practice/learningOrder.ts'
import { UNITS, type Unit } from '../practice/piece.ts'
import { USUAL_WAY, type PracticeMethod } from '../practice/practiceMethod.ts'
import { USUAL_SPEECH, type Speech } from './words/speech.ts'
import { LANGUAGES } from '../../messages/language.ts'

/** How a teacher teaches and how the lesson speaks. */
export interface LessonSettings {
  readonly speech: Speech
  /** How notes are called beside their places; none: not at all. */
  readonly names: NoteNaming | 'none'
  /** What is said with each step beside what the hands do; absent: nothing. */
  readonly alongside?: Alongside
  readonly unit: Unit
  readonly joining: Joining
  readonly way: PracticeMethod
  /** Minutes of a lesson. */
  readonly minutes: number
}

export const USUAL_LESSON: LessonSettings = {
  speech: USUAL_SPEECH,
  names: 'none',
  unit: 'phrase',
  joining: 'each',
  way: USUAL_WAY,
  minutes: 30,
}

/** How notes and chords are called where they must be called something. */
export const namingOf = ({ names }: LessonSettings): NoteNaming => (names === 'none' ? 'letters' : names)

/** Settings as they were kept, with the usual ones where something is missing or no longer known. */
export function lessonSettingsFrom(kept: unknown): LessonSettings {
  const own = record(kept)
  const speech = record(own['speech'])
  const way = record(own['way'])
  const usual = USUAL_LESSON
  const alongside = oneOf(ALONGSIDE, own['alongside'], 'none')
  return {
    speech: {
      language: oneOf(LANGUAGES, speech['language'], usual.speech.language),
      length: oneOf(['full', 'short'] as const, speech['length'], usual.speech.length),
      fingers: oneOf(['names', 'numbers'] as const, speech['fingers'], usual.speech.fingers),
    },
    names: oneOf(['none', ...NOTE_NAMINGS] as const, own['names'], usual.names),
    ...(alongside === 'none' ? {} : { alongside }),
    unit: oneOf(UNITS, own['unit'], usual.unit),
    joining: oneOf(['each', 'end'] as const, own['joining'], usual.joining),
    way: {
      startShare: within(way['startShare'], 0.3, 1, usual.way.startShare),
      clean: Math.round(within(way['clean'], 1, 10, usual.way.clean)),
      tries: within(way['tries'], 1, 10, usual.way.tries),
    },
    minutes: Math.round(within(own['minutes'], 5, 120, usual.minutes)),
  }
}

const record = (x: unknown): Readonly<Record<string, unknown>> =>
  typeof x === 'object' && x !== null ? (x as Record<string, unknown>) : {}

const oneOf = <T>(list: readonly T[], x: unknown, usual: T): T => list.find((v) => v === x) ?? usual

const within = (x: unknown, least: number, most: number, usual: number): number =>
  typeof x === 'number' && x >= least && x <= most ? x : usual
