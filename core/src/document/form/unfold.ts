import { message, type Message } from '../../messages/message.ts'
import type { Jump, Measure } from '../tune.ts'
import type { Ticks } from '../../music/time/ticks.ts'

/** One playing of a written measure. `pass` counts from 1 inside its repeat. */
export interface Occurrence {
  readonly measure: number
  readonly pass: number
  readonly startTick: Ticks
}

/** The played order of a tune, and what could not be followed. */
export interface Unfolded {
  readonly order: readonly Occurrence[]
  readonly length: Ticks
  readonly problems: readonly Message<'form'>[]
}

/** No real tune is longer; a guard against endings that send the reader round for ever. */
const MOST_OCCURRENCES = 20_000

type Marked = Pick<
  Measure,
  'length' | 'repeatStart' | 'repeatEnd' | 'endings' | 'segno' | 'coda' | 'fine' | 'jump'
>

const AL_FINE: readonly Jump[] = ['daCapoAlFine', 'dalSegnoAlFine', 'daCapo', 'dalSegno']
const AL_CODA: readonly Jump[] = ['daCapoAlCoda', 'dalSegnoAlCoda']

/**
 * Unfolds repeats, endings and jumps to played order. After a jump repeats are not taken again and the last
 * ending is played, as is common practice.
 */
export function unfold(measures: readonly Marked[]): Unfolded {
  const order: Occurrence[] = []
  const problems: Message<'form'>[] = []
  const passes = passesOf(measures)
  let at = 0
  let tick = 0
  let pass = 1
  let repeatFrom = 0
  let jumped: Jump | undefined
  while (at < measures.length) {
    const m = measures[at]!
    if (order.length >= MOST_OCCURRENCES) {
      problems.push(message('form.endless'))
      break
    }
    if (m.repeatStart && at !== repeatFrom) {
      repeatFrom = at
      pass = jumped ? passes[at]! : 1
    }
    if (m.endings.length > 0 && !m.endings.includes(pass)) {
      at++
      if (measures[at]?.endings.length === 0) {
        repeatFrom = at
        pass = jumped ? passes[at]! : 1
      }
      continue
    }
    order.push({ measure: at, pass, startTick: tick })
    tick += m.length
    if (jumped && m.fine && AL_FINE.includes(jumped)) break
    if (jumped && m.coda && AL_CODA.includes(jumped)) {
      const coda = measures.findIndex((x, i) => i > at && x.coda)
      if (coda < 0) problems.push(message('form.noCoda'))
      else {
        at = coda
        repeatFrom = coda
        pass = 1
        jumped = undefined
        continue
      }
    }
    if (m.repeatEnd > 1 && !jumped && pass < m.repeatEnd) {
      pass++
      at = repeatFrom
      continue
    }
    if (m.jump && !jumped) {
      jumped = m.jump
      at = m.jump.startsWith('daCapo') ? 0 : measures.findIndex((x) => x.segno)
      if (at < 0) {
        problems.push(message('form.noSegno'))
        break
      }
      repeatFrom = at
      pass = passes[at]!
      continue
    }
    at++
    if (m.repeatEnd > 1) {
      const inEnding = measures[at]?.endings.length
      if (!inEnding) {
        repeatFrom = at
        pass = jumped ? (passes[at] ?? 1) : 1
      }
    } else if (m.endings.length > 0 && at < measures.length && measures[at]!.endings.length === 0) {
      repeatFrom = at
      pass = jumped ? passes[at]! : 1
    }
  }
  return { order, length: tick, problems }
}

/** For each measure the number of passes through the repeat that it stands in. */
function passesOf(measures: readonly Marked[]): number[] {
  const result = measures.map(() => 1)
  let from = 0
  let most = 1
  const close = (to: number) => {
    for (let i = from; i < to; i++) result[i] = most
    from = to
    most = 1
  }
  measures.forEach((m, i) => {
    if (m.repeatStart) close(i)
    most = Math.max(most, m.repeatEnd, ...m.endings)
    const next = measures[i + 1]
    const ends = m.repeatEnd > 1 || m.endings.length > 0
    if (ends && next && next.endings.length === 0) close(i + 1)
  })
  close(measures.length)
  return result
}
