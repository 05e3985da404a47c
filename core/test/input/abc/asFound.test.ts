import { describe, expect, it } from 'vitest'
import { readAbc } from '../../../src/input/abc/index.ts'
import { kindOf } from '../../../src/input/any/index.ts'
import { CORPUS_TEXT } from '../../support/tunes.ts'
import { abcSummary } from '../../support/abcSummary.ts'
import { ABC_PASTES } from './abcPastes.ts'

describe('ABC as people send it', () => {
  it.each(ABC_PASTES.map((p) => [p.what, p] as const))('%s', (_, { text, read }) => {
    expect(abcSummary(text)).toEqual(read)
    expect(kindOf(text)).toBe('abc')
  })
})

describe('tunes in are tunes out', () => {
  /** A book spoilt on its way; each leaves every tune in it. */
  const spoilers: readonly ((text: string) => string)[] = [
    (s) => s.replace(/\n/g, '\r\n'),
    (s) => s.replace(/\n/g, '\n\n'),
    (s) => s.replace(/^(?=.)/gm, '> '),
    (s) => `Dear all,\n\nsome tunes for Thursday.\n\n${s}\nSee you there,\nBo\n`,
    (s) => s.replace(/"([A-G][^"]*)"/g, '“$1”'),
    (s) => s.replace(/"/g, '&quot;').replace(/&(?!quot;)/g, '&amp;'),
    (s) => s.replace(/\n(?=X:)/g, '\n----------\n'),
    (s) => s.replace(/^([A-Z]):/gm, '$1: '),
    (s) => s.replace(/\n/g, '  \n'),
    (s) => s.replace(/^X:\d+$/gm, 'X:1'),
  ]
  const counts = (text: string) =>
    readAbc(text, () => 't').map(({ tune }) => [
      tune?.title,
      tune?.measures.length,
      tune?.events.filter((e) => e.pitch).length,
    ])

  it('whatever mails and pages do to a book: as many tunes, measures and notes', () => {
    const whole = counts(CORPUS_TEXT)
    expect(whole.length).toBeGreaterThan(10)
    for (const first of spoilers)
      for (const second of spoilers)
        expect(counts(second(first(CORPUS_TEXT))), `${String(first)} ${String(second)}`).toEqual(whole)
  })

  it('a tune of which nothing can be read is named with its line and reason, beside those that can', () => {
    const readings = readAbc(
      'X:1\nT:Whole\nK:G\nGABc|\n\nX:2\nT:Empty\nK:D\n\nX:3\nT:Last\nK:C\nCDEF|\n',
      () => 't',
    )
    expect(readings.map((r) => r.tune?.title)).toEqual(['Whole', undefined, 'Last'])
    expect(readings[1]!.problems[0]).toMatchObject({
      severity: 'error',
      line: 6,
      says: { code: 'reading.noNotes' },
    })
  })
})
