import { present } from '../../invariant.ts'
import { message, type Message } from '../../messages/message.ts'
import type { PatternText } from '../../document/arrangement.ts'
import { contentText } from '../../document/content.ts'
import type { Metre } from '../../music/time/metre.ts'
import { stepsOf, type Pattern, type PatternStep, type PatternString, type Sweep } from './pattern.ts'

/**
 * Patterns in writing. Steps are set apart by spaces, measures by a bar line; what is written together sounds together:
 *
 * | sign | what sounds |
 * |---|---|
 * | `b` | the shape's bass string |
 * | `a` | its other bass |
 * | `1` … `6` | that string |
 * | `^1` … | the first, second … sounding string above the bass |
 * | `D` `U` | a stroke down, up, over all strings of the shape |
 * | `d` `u` | the same over the strings above the bass only |
 * | `d(2-3)` | over at least two, at most three strings |
 * | `*` `!` `_` | after a step: muted, accented, palm on the bridge |
 * | `.` | let ring |
 *
 * @example readPattern({ metre: { num: 4, den: 4 }, perBeat: 2, text: 'b1 3 2 3 a 3 2 3' })
 */
export function readPattern(source: PatternText): PatternReading {
  const { metre, perBeat } = source
  const steps: (PatternStep | undefined)[] = []
  const whole = stepsOf(metre, perBeat)
  const measures = source.text
    .trim()
    .replace(/^\||\|$/g, '')
    .split('|')
  for (const [m, measure] of measures.entries()) {
    const words = measure.trim().split(/\s+/).filter(Boolean)
    for (const word of words) {
      const step = readStep(word)
      if (typeof step === 'string')
        return { ok: false, problem: { kind: step, word, step: steps.length + 1 } }
      steps.push(step)
    }
    if (measures.length > 1 && words.length !== whole)
      return { ok: false, problem: { kind: 'length', measure: m + 1, steps: words.length, wanted: whole } }
  }
  if (steps.length === 0 || steps.length % whole !== 0)
    return { ok: false, problem: { kind: 'length', measure: 1, steps: steps.length, wanted: whole } }
  if (steps.every((s) => s === undefined)) return { ok: false, problem: { kind: 'silent' } }
  return { ok: true, pattern: { metre, perBeat, steps } }
}

/** Why a pattern cannot be read: a sign, a string named twice, a measure of the wrong length, nothing at all. */
export type PatternProblem =
  | { readonly kind: 'sign' | 'twice' | 'reach'; readonly word: string; readonly step: number }
  | { readonly kind: 'length'; readonly measure: number; readonly steps: number; readonly wanted: number }
  | { readonly kind: 'silent' }

export type PatternReading =
  { readonly ok: true; readonly pattern: Pattern } | { readonly ok: false; readonly problem: PatternProblem }

/** What is to be said of a problem, with the way out. */
export function patternProblemMessage(problem: PatternProblem): Message<'pattern'> {
  switch (problem.kind) {
    case 'sign':
    case 'twice':
    case 'reach':
      return message(`pattern.${problem.kind}`, { step: problem.step, word: problem.word })
    case 'silent':
      return message('pattern.silent')
    case 'length': {
      const { measure, steps, wanted } = problem
      return steps > wanted
        ? message('pattern.tooLong', { measure, steps, wanted, over: steps - wanted })
        : message('pattern.tooShort', { measure, steps, wanted, missing: wanted - steps })
    }
  }
}

function readStep(word: string): PatternStep | undefined | 'sign' | 'twice' | 'reach' {
  if (word === '.') return undefined
  const [, body = '', signs = ''] = present(/^(.*?)([*!_]*)$/.exec(word))
  const strings: PatternString[] = []
  let sweep: Sweep | undefined
  let rest = body
  while (rest) {
    const item = /^(?:([ba])|\^(\d)|(\d)|([DUdu])(?:\((\d)-(\d)\))?)/.exec(rest)
    if (!item) return 'sign'
    rest = rest.slice(item[0].length)
    const [, bass, above, string, stroke, least, most] = item
    if (bass) strings.push({ of: bass === 'b' ? 'bass' : 'other' })
    else if (above) strings.push({ of: 'above', steps: Number(above) })
    else if (string) strings.push({ of: 'string', string: Number(string) })
    else {
      if (sweep) return 'twice'
      if (least && Number(least) > Number(most)) return 'reach'
      sweep = {
        direction: present(stroke).toLowerCase() === 'd' ? 'down' : 'up',
        over: stroke === present(stroke).toLowerCase() ? 'trebles' : 'all',
        ...(least ? { least: Number(least), most: Number(most) } : {}),
        muted: signs.includes('*'),
      }
    }
  }
  if (strings.length === 0 && !sweep) return 'sign'
  // Only strokes are muted: a single muted string has no use of its own.
  if (signs.includes('*') && !sweep) return 'sign'
  if (
    strings.some((s) => s.of === 'string' && s.string < 1) ||
    strings.some((s) => s.of === 'above' && s.steps < 1)
  )
    return 'sign'
  if (new Set(strings.map(contentText)).size < strings.length) return 'twice'
  return {
    strings,
    ...(sweep ? { sweep } : {}),
    accent: signs.includes('!'),
    palm: signs.includes('_'),
  }
}

/** A pattern in writing, its measures set apart by bar lines; `readPattern` reads it back. */
export function writePattern(pattern: Pattern): PatternText {
  const { metre, perBeat, steps } = pattern
  const whole = stepsOf(metre, perBeat)
  const words = steps.map((s) => (s ? writeStep(s) : '.'))
  const measures: string[] = []
  for (let i = 0; i < words.length; i += whole) measures.push(words.slice(i, i + whole).join(' '))
  return { metre: plainMetre(metre), perBeat, text: measures.join(' | ') }
}

const plainMetre = ({ num, den }: Metre) => ({ num, den })

export function writeStep({ strings, sweep, accent, palm }: PatternStep): string {
  const items = strings.map((s) =>
    s.of === 'bass' ? 'b' : s.of === 'other' ? 'a' : s.of === 'above' ? `^${s.steps}` : String(s.string),
  )
  return `${items.join('')}${sweep ? writeSweep(sweep) : ''}${sweep?.muted ? '*' : ''}${accent ? '!' : ''}${palm ? '_' : ''}`
}

function writeSweep({ direction, over, least, most }: Sweep): string {
  const letter = direction === 'down' ? 'd' : 'u'
  return `${over === 'all' ? letter.toUpperCase() : letter}${least === undefined ? '' : `(${least}-${most})`}`
}
