import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { kindOf, readAny } from '../../../src/input/any/index.ts'
import { DEFAULT_PLAYER } from '../../../src/instrument/index.ts'
import { timesInLine } from '../../../src/input/times.ts'
import { countsIn, isCountLine } from '../../../src/input/text/countLine.ts'
import { readTuneDoc, readArrangementDoc } from '../../../src/schema/index.ts'
import { tabSummary } from '../../support/tabSummary.ts'
import { TAB_PASTES } from './tabPastes.ts'

const read = (text: string) => readAny(text, { newId: () => 't', player: DEFAULT_PLAYER, title: 'New' })

describe('text tab as people send it', () => {
  it.each(TAB_PASTES.map((p) => [p.what, p] as const))('%s', (_, { text, read: expected }) => {
    expect(tabSummary(text)).toEqual(expected)
    expect(kindOf(text)).toBe('tab')
  })
})

describe('a good tab that is spoilt on its way', () => {
  const anywhere = fc.nat(400)
  const signs = fc.constantFrom(
    '-',
    ' ',
    '|',
    '3',
    '12',
    'h',
    'p',
    '/',
    'x',
    '~',
    '(',
    '<',
    'b',
    '?',
    '\n',
    '“',
    '\t',
  )
  /** Small accidents: a sign put in, one lost, a line lost, signs changed. */
  const accident = fc.oneof(
    fc.tuple(anywhere, signs).map(
      ([at, sign]) =>
        (s: string) =>
          s.slice(0, at % s.length) + sign + s.slice(at % s.length),
    ),
    anywhere.map((at) => (s: string) => s.slice(0, at % s.length) + s.slice((at % s.length) + 1)),
    fc.tuple(anywhere, signs).map(
      ([at, sign]) =>
        (s: string) =>
          s.slice(0, at % s.length) + sign + s.slice((at % s.length) + 1),
    ),
    fc.constant((s: string) => s.replace(/\n/g, '\r\n')),
    fc.constant((s: string) => s.replace(/^/gm, '> ')),
    fc.constant((s: string) => `Hello,\n\n${s}\nAll the best\n`),
  )

  it('a thousand times: never two frets on a string at once, never a lost fret without a remark, never a refusal later', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...TAB_PASTES.map((p) => p.text)),
        fc.array(accident, { minLength: 1, maxLength: 3 }),
        (text, how) => {
          const spoilt = how.reduce((s, f) => f(s), text)
          if (kindOf(spoilt) !== 'tab') return
          for (const { tune, arrangement, problems } of read(spoilt).tunes) {
            if (!tune || !arrangement) {
              expect(problems.length).toBeGreaterThan(0)
              continue
            }
            readTuneDoc(JSON.parse(JSON.stringify(tune)))
            readArrangementDoc(JSON.parse(JSON.stringify(arrangement)), tune)
            const struck = arrangement.base.notes.map(
              (n) => `${n.pos.measure} ${n.pos.tick} ${n.place.string}`,
            )
            expect(new Set(struck).size).toBe(struck.length)
          }
        },
      ),
      { numRuns: 1000 },
    )
  })
})

describe('how often', () => {
  it.each([
    ['x2', 2],
    ['(3x)', 3],
    ['play 4 times', 4],
    ['Repeat x3', 3],
    ['[ x 2 ]', 2],
    ['twice', 2],
  ])('%s', (text, times) => expect(timesInLine(text)).toBe(times))
  it.each(['x', '12 bars', 'three times a lady', 'G x3 C'])('not: %s', (text) =>
    expect(timesInLine(text)).toBeUndefined(),
  )
})

describe('counts under a tab', () => {
  const ticks = (line: string, num: number, den: number) =>
    countsIn(line, 0, line.length, { num, den })?.map(([, tick]) => tick / 10080)

  it('name beats and their parts', () => {
    expect(ticks('1 & 2 & 3 e & a 4', 4, 4)).toEqual([0, 0.5, 1, 1.5, 2, 2.25, 2.5, 2.75, 3])
    expect(ticks('1 2 3 4 5 6', 6, 8)).toEqual([0, 0.5, 1, 1.5, 2, 2.5])
  })

  it('that do not rise are none', () => {
    expect(ticks('1 3 2', 4, 4)).toBeUndefined()
    expect(isCountLine('C e a')).toBe(false)
    expect(isCountLine('1 & 2 &')).toBe(true)
  })
})
