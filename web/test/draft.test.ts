import { tuneOf } from './support.ts'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { db } from '../src/state/db.ts'
import { dropDraft, dropStoredDraft, keepDraft, keptDraft, textHash } from '../src/state/draft.ts'
import { currentTrouble, endTrouble } from '../src/state/storageTrouble.ts'

beforeEach(async () => {
  await db.drafts.clear()
  endTrouble()
})

const draft = (text: string) => ({ text, rev: 3, ancestors: [textHash('before')] })

describe('text that is being typed', () => {
  it('is in the database a moment after the key, the last key winning', async () => {
    for (const text of ['a', 'ab', 'abc']) keepDraft('t', draft(text))
    expect((await keptDraft('t'))!.text).toBe('abc')
    await vi.waitFor(async () => expect((await db.drafts.get('t'))!.text).toBe('abc'))
    expect(await db.drafts.get('t')).toMatchObject({ rev: 3, ancestors: [textHash('before')] })
  })

  it('is dropped with what was still on its way', async () => {
    keepDraft('t', draft('abc'))
    dropDraft('t')
    await new Promise((r) => setTimeout(r, 120))
    expect(await keptDraft('t')).toBeUndefined()
  })

  it('is dropped only when the tune in storage holds it, and only where nothing was typed since', async () => {
    const tune = { ...tuneOf('CDEF|'), id: 't' }
    const text = tune.abc!.text
    await db.tunes.put({ ...tune, abc: { text: 'before', spans: [] } })
    await db.drafts.put({ id: 't', ...draft(text), at: 1 })
    await dropStoredDraft('t', text)
    expect((await db.drafts.get('t'))!.text).toBe(text)
    await db.tunes.put(tune)
    await db.drafts.put({ id: 't', ...draft(text + 'G'), at: 2 })
    await dropStoredDraft('t', text)
    expect((await db.drafts.get('t'))!.text).toBe(text + 'G')
    await db.drafts.put({ id: 't', ...draft(text), at: 3 })
    await dropStoredDraft('t', text)
    expect(await db.drafts.get('t')).toBeUndefined()
  })

  it('says so where storage does not take it', async () => {
    vi.spyOn(db.drafts, 'put').mockImplementation(() => {
      throw new DOMException('no room', 'QuotaExceededError')
    })
    keepDraft('t', draft('abc'))
    await vi.waitFor(() => expect(currentTrouble()).toMatchObject({ kind: 'full', reason: 'no room' }))
    vi.restoreAllMocks()
  })

  it('is named by its content', () => {
    expect(textHash('CDEF|')).toBe(textHash('CDEF|'))
    expect(textHash('CDEF|')).not.toBe(textHash('CDEG|'))
  })
})
