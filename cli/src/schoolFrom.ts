import { GUITAR } from '@velvet-porch/core/instrument'
import {
  HABITS,
  readBassOrders,
  USUAL_SCHOOL,
  type BassOrder,
  type School,
} from '@velvet-porch/core/document'
import { oneOf, UsageError } from './usage.ts'

const { ornament: _, ...SCHOOL_HABITS } = HABITS

/** What each choice of a school may be. */
const CHOICES: Readonly<Record<Exclude<keyof School, 'bassStrings'>, readonly string[]>> = {
  ...SCHOOL_HABITS,
  parts: ['melody', 'both'],
}

/** A school from `--school name=choice`, given as often as there is something to choose. */
export function schoolFrom(texts: readonly string[]): School {
  let school = USUAL_SCHOOL
  for (const text of texts) {
    const [name = '', choice = ''] = text.split('=')
    if (name === 'bassStrings') {
      school = { ...school, bassStrings: bassOrdersFrom(text.slice(name.length + 1)) }
      continue
    }
    const allowed = CHOICES[name as keyof typeof CHOICES]
    if (!allowed)
      throw new UsageError(
        `--school "${text}" is not known; write name=choice with ${[...Object.keys(CHOICES), 'bassStrings'].join(', ')}.`,
      )
    school = { ...school, [name]: oneOf(choice, allowed, `school ${name}`) }
  }
  return school
}

/** Chords with their bass strings: `C 5 4 6 4, G 6 4`. */
function bassOrdersFrom(text: string): readonly BassOrder[] {
  const read = readBassOrders(text, GUITAR.strings)
  if (!read.ok)
    throw new UsageError(
      `--school bassStrings: "${read.word}" cannot be read; write a chord and its strings, "C 5 4 6 4, G 6 4".`,
    )
  return read.orders
}
