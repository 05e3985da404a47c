import { EXPRESSIONS, type Expression } from '../../document/expression.ts'
import { LONGEST_REMARK } from '../../document/tab.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { XmlMeasure } from './readMeasure.ts'
import { child } from './xmlTree.ts'

/** What is said over or under a moment: loudness, touch, pace, words. */
export function remarksOf(measure: XmlMeasure): Map<Ticks, Expression & { remark?: string }> {
  const at = new Map<Ticks, Expression & { remark?: string }>()
  const say = (tick: Ticks, what: Expression & { remark?: string }) =>
    at.set(tick, { ...at.get(tick), ...what })
  for (const { tick, element } of measure.marks) {
    if (element.name === 'dynamics') {
      const dynamic = EXPRESSIONS.dynamic.find((d) => child(element, d))
      if (dynamic) say(tick, { dynamic })
    }
    if (element.name !== 'words') continue
    const words = element.text.trim()
    if (/^rit(?:\.|ard|enuto)?|^rall/i.test(words)) say(tick, { pace: 'rit' })
    else if (/^a tempo\b/i.test(words)) say(tick, { pace: 'aTempo' })
    else if (/^sul ponticello\b/i.test(words)) say(tick, { pluckAt: 'bridge' })
    else if (/^sul tasto\b/i.test(words)) say(tick, { pluckAt: 'neck' })
    else if (/^ordinario\b/i.test(words)) say(tick, { pluckAt: 'hole' })
    else if ((EXPRESSIONS.touch as readonly string[]).includes(words))
      say(tick, { touch: words as NonNullable<Expression['touch']> })
    else if (words !== '' && words.length <= LONGEST_REMARK && !SWING_WORDS.test(words))
      say(tick, { remark: words })
  }
  return at
}

const SWING_WORDS = /^(?:light swing|shuffle|straight|swing)$/i
