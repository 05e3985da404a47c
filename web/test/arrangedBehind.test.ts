// @vitest-environment jsdom
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { comesBehind, firstAsked, hasCome, hasten, leftBehind } from '../src/state/arrangedBehind.ts'

/** Takes what waits, one after the other. */
function takeAll(): string[] {
  const taken: string[] = []
  for (let id = firstAsked(); id !== undefined; id = firstAsked()) {
    taken.push(id)
    hasCome(id)
  }
  return taken
}

beforeEach(() => comesBehind([]))

describe('tunes that are arranged behind the page', () => {
  it('come in their order, and the one that is opened comes right after the one at work', () => {
    comesBehind(['a', 'b', 'c', 'd'])
    hasten('d')
    expect(takeAll()).toEqual(['a', 'd', 'b', 'c'])
    expect(firstAsked()).toBeUndefined()
  })

  it('all come, each once, whatever is asked for on the way', () => {
    const ids = ['a', 'b', 'c', 'd', 'e']
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...ids, 'other'), { maxLength: 12 }), (asked) => {
        comesBehind(ids)
        asked.forEach(hasten)
        expect(firstAsked()).toBe('a')
        expect(takeAll().sort()).toEqual(ids)
      }),
    )
  })

  it('are gone on with by a page that is opened anew, until none is left', () => {
    expect(leftBehind()).toBe(false)
    comesBehind(['a', 'b'])
    expect(leftBehind()).toBe(true)
    hasCome('a')
    expect(leftBehind()).toBe(true)
    hasCome('b')
    expect(leftBehind()).toBe(false)
  })
})
