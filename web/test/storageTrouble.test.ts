import Dexie from 'dexie'
import { SchemaError } from '@velvet-porch/core/schema'
import { beforeEach, describe, expect, it } from 'vitest'
import {
  currentTrouble,
  endTrouble,
  isReported,
  reportTrouble,
  storing,
} from '../src/state/storageTrouble.ts'

beforeEach(endTrouble)

describe('storage that fails', () => {
  it.each([
    ['full', new DOMException('The quota has been exceeded.', 'QuotaExceededError')],
    ['full', new Dexie.AbortError('aborted', new DOMException('x', 'QuotaExceededError'))],
    ['missing', new Dexie.MissingAPIError('IndexedDB API missing')],
    ['missing', new Dexie.OpenFailedError('denied', new DOMException('denied', 'SecurityError'))],
    ['newer', new Dexie.VersionError('newer')],
    ['failed', new Dexie.DatabaseClosedError('closed')],
  ])('is said to be %s', (kind, error) => {
    reportTrouble(error)
    expect(currentTrouble()?.kind).toBe(kind)
    expect(isReported(error)).toBe(true)
  })

  it('is said once: the first reason stands until it is over', () => {
    reportTrouble(new DOMException('first', 'QuotaExceededError'))
    reportTrouble(new DOMException('second', 'QuotaExceededError'))
    expect(currentTrouble()?.reason).toBe('first')
    endTrouble()
    expect(currentTrouble()).toBeUndefined()
  })

  it('is heard of by whoever asked, too', async () => {
    const error = new DOMException('no room', 'QuotaExceededError')
    await expect(storing(() => Promise.reject(error))).rejects.toBe(error)
    expect(currentTrouble()?.kind).toBe('full')
  })

  it('is not what a document is refused for, nor a mistake of ours', async () => {
    for (const error of [new SchemaError('This', 'title', 'no'), new TypeError('x'), new Error('y')])
      await expect(storing(() => Promise.reject(error))).rejects.toBe(error)
    expect(currentTrouble()).toBeUndefined()
  })
})
