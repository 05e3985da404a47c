// @vitest-environment jsdom
import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { keepValue, keptValue } from '../src/state/keptValue.ts'

beforeEach(() => localStorage.clear())
afterEach(() => vi.restoreAllMocks())

describe('small values that the browser keeps', () => {
  it('come back as they were', () => {
    fc.assert(
      fc.property(fc.string(), fc.jsonValue(), (key, value) => {
        keepValue(key, value)
        expect(keptValue(key)).toEqual(value === null ? undefined : JSON.parse(JSON.stringify(value)))
      }),
    )
  })

  it('are gone when none is kept', () => {
    keepValue('a', [1])
    keepValue('a', undefined)
    expect(keptValue('a')).toBeUndefined()
    expect(localStorage.length).toBe(0)
  })

  it('are none where something else lies there, or where nothing may be read or kept', () => {
    localStorage.setItem('a', '{"half":')
    expect(keptValue('a')).toBeUndefined()
    for (const method of ['getItem', 'setItem', 'removeItem'] as const)
      vi.spyOn(Storage.prototype, method).mockImplementation(() => {
        throw new DOMException('denied', 'SecurityError')
      })
    expect(keptValue('a')).toBeUndefined()
    expect(() => keepValue('a', 1)).not.toThrow()
    expect(() => keepValue('a', undefined)).not.toThrow()
  })
})
