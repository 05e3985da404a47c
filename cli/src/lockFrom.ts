import { inFullMeasure, beatLength } from '@velvet-porch/core/music'
import type { LeftFinger, Place } from '@velvet-porch/core/instrument'
import {
  bassNoteId,
  innerNoteId,
  lockOf,
  measureNumbers,
  melodyNoteId,
  type Lock,
  type Pos,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { UsageError } from './usage.ts'

const VOICES = ['melody', 'bass', 'fill', 'harmony'] as const

const WAYS = ['pluck', 'hammer', 'pull', 'slide', 'bend'] as const

const HELP =
  'write it as "measure 3 beat 2 melody string 2 fret 3 finger 1": a measure, a beat, a voice ' +
  `(${VOICES.join(', ')}), and a place (string and fret), a finger (0 to 4, T for the thumb), or both; ` +
  `a melody note may be "sounded" in one way (${WAYS.join(', ')})`

/** One lock of the command line, in words, as locks of a note's place and finger. */
export function lockFrom(text: string, tune: TuneDoc, id: string): Lock[] {
  const words = text.trim().split(/\s+/)
  const after = (name: string) => {
    const at = words.indexOf(name)
    return at < 0 ? undefined : words[at + 1]
  }
  const number = (name: string) => {
    const value = after(name)
    if (value === undefined) return undefined
    const n = Number(value)
    if (!Number.isFinite(n)) throw new UsageError(`--lock "${text}": "${value}" is no ${name}; ${HELP}.`)
    return n
  }
  const [measure, beat, string, fret] = [number('measure'), number('beat'), number('string'), number('fret')]
  const voice = VOICES.find((v) => words.includes(v))
  const finger = after('finger')
  const sounded = after('sounded')
  const hasPlace = string !== undefined && fret !== undefined
  if (
    measure === undefined ||
    beat === undefined ||
    !voice ||
    (!hasPlace && finger === undefined && sounded === undefined)
  )
    throw new UsageError(`--lock "${text}" is not understood; ${HELP}.`)
  if (finger !== undefined && !/^([0-4]|T)$/.test(finger))
    throw new UsageError(`--lock "${text}": there is no finger "${finger}"; ${HELP}.`)
  const way = WAYS.find((w) => w === sounded)
  if (sounded !== undefined && !way)
    throw new UsageError(`--lock "${text}": a note is not sounded by "${sounded}"; ${HELP}.`)
  const target = noteAt(text, tune, measure, beat, voice)
  const place: Place | undefined = hasPlace ? { string, fret } : undefined
  const left = finger === 'T' ? 'T' : (Number(finger) as LeftFinger)
  return [
    ...(place ? [lockOf('place', `${id} place`, target, place)] : []),
    ...(way ? [lockOf('attack', `${id} sounded`, target, way)] : []),
    ...(finger === undefined ? [] : [lockOf('left', `${id} finger`, target, left)]),
  ]
}

function noteAt(
  text: string,
  tune: TuneDoc,
  number: number,
  beat: number,
  voice: (typeof VOICES)[number],
): string {
  const index = measureNumbers(tune.measures).indexOf(number)
  const measure = tune.measures[index]
  if (!measure) throw new UsageError(`--lock "${text}": the tune has no measure ${number}.`)
  // A pickup is counted from the end of its full measure.
  const missing = inFullMeasure(measure, 0)
  const pos: Pos = { measure: measure.id, tick: Math.round((beat - 1) * beatLength(measure.metre)) - missing }
  if (voice === 'bass') return bassNoteId(pos)
  if (voice !== 'melody') return innerNoteId(pos)
  const source = tune.events.find(
    (e) => e.voice === 0 && e.pitch && e.pos.measure === pos.measure && e.pos.tick === pos.tick,
  )
  if (!source)
    throw new UsageError(`--lock "${text}": no melody note starts on beat ${beat} of measure ${number}.`)
  return melodyNoteId(source.id)
}
