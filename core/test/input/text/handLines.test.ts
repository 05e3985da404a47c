import { describe, expect, it } from 'vitest'
import { DEFAULT_PLAYER } from '../../../src/instrument/index.ts'
import { readTextTab, scoreOfTab } from '../../../src/input/index.ts'

/** C and G broken, with lines under it. */
const tab = (...under: string[]) =>
  [
    '   C           G',
    'e|---------0-|---------3-|',
    'B|------1----|------0----|',
    'G|---0-------|---0-------|',
    'D|-----------|-----------|',
    'A|-3---------|-----------|',
    'E|-----------|-3---------|',
    ...under,
  ].join('\n')

const notesOf = (text: string) =>
  scoreOfTab(readTextTab(text), 'tune', DEFAULT_PLAYER, 'New').arrangement!.base.notes
const fingersOf = (text: string, hand: 'left' | 'right') => notesOf(text).map((n) => n[hand])

describe('fingers under a text tab', () => {
  it('are kept, both hands, whatever would have been found', () => {
    const found = tab()
    expect(fingersOf(found, 'left')).not.toEqual([4, 0, 2, 0, 4, 0, 0, 1])
    const given = tab('LH 4    2      4       1', 'RH p p  i  i   p m  p  a').split('\n')
    expect(readTextTab(given.join('\n')).problems.filter((p) => p.severity === 'warning')).toEqual([])
    expect(fingersOf(given.join('\n'), 'left')).toEqual([4, 0, 2, 0, 4, 0, 0, 1])
    expect(fingersOf(given.join('\n'), 'right')).toEqual(['p', 'p', 'i', 'i', 'p', 'm', 'p', 'a'])
  })

  it('the picking line needs no label, and several notes of an onset are named from the lowest string', () => {
    const text = [
      'e|-0--3-|',
      'B|-1----|',
      'G|-0----|',
      'D|------|',
      'A|-3----|',
      'E|----3-|',
      '   pima pa',
    ].join('\n')
    expect(fingersOf(text, 'right')).toEqual(['p', 'i', 'm', 'a', 'p', 'a'])
  })

  it('letters without a space between them belong to the onsets over them', () => {
    const text = [
      'e|----0-|',
      'B|--1---|',
      'G|---0--|',
      'D|------|',
      'A|-3----|',
      'E|------|',
      'RH paia',
    ].join('\n')
    expect(fingersOf(text, 'right')).toEqual(['p', 'a', 'i', 'a'])
  })

  it('what names another number of fingers is said with its line and column, and found anew', () => {
    const text = tab('RH  pim    a')
    const { problems } = readTextTab(text)
    expect(problems.find((p) => p.says.code === 'reading.fingersBeside')).toMatchObject({
      line: 8,
      column: 5,
      says: { values: { fingers: 'pim' } },
    })
    expect(notesOf(text).every((n) => n.right !== 'none')).toBe(true)
    expect(notesOf(text)[3]!.right).toBe('a')
  })

  it('prose under a tab is no fingers', () => {
    const { problems } = readTextTab(tab('I am in time.'))
    expect(problems.some((p) => p.says.code === 'reading.fingersBeside')).toBe(false)
  })
})
