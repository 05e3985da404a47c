// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { guitarSetup, setupOf, tuningById } from '@velvet-porch/core/instrument'
import type { SetList } from '@velvet-porch/core/studio'
import { cleanup, fireEvent, renderHook, screen, waitFor, within } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { SetsPage } from '../src/features/sets/SetsPage.tsx'
import { useMoveWords } from '../src/features/sets/useMoveWords.ts'
import { db } from '../src/state/db.ts'
import { addScore } from '../src/state/shelf.ts'
import { bringStages } from '../src/texts/i18n.ts'
import { stubBrowser } from './browserStubs.ts'
import { inPage } from './inPage.tsx'
import { arrangementFor, tuneOf } from './support.ts'

const SETUPS = {
  plain: guitarSetup(),
  capo: guitarSetup(2),
  dropped: setupOf('guitar', tuningById('guitar', 'dropD'), { fret: 0 }),
}
const GIG: SetList = {
  id: 'gig',
  name: 'Porch',
  items: [
    { tuneId: 'plain', minutes: 3 },
    { tuneId: 'dropped', minutes: 4 },
    { tuneId: 'capo' },
    { tuneId: 'plain2' },
  ],
}

beforeEach(async () => {
  stubBrowser()
  await bringStages()
  await Promise.all(db.tables.map((t) => t.clear()))
  for (const [id, setup] of [...Object.entries(SETUPS), ['plain2', SETUPS.plain] as const]) {
    const tune = { ...tuneOf('"C"cdec|"C"c4|]', id), title: id }
    await addScore({ tune, arrangement: { ...arrangementFor(tune), setup } })
  }
  await db.sets.put(GIG)
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const open = async () => {
  inPage(<SetsPage />, { path: '/sets/:set?', at: '/sets/gig' })
  return within(await screen.findByTestId('set'))
}
const stored = async () => (await db.sets.get('gig'))!
const order = async () => (await stored()).items.map((i) => i.tuneId)

describe('a set list', () => {
  it('says what is done between two tunes, and sums minutes and seconds up', async () => {
    const set = await open()
    const moves = set.getAllByTestId('moves').map((m) => m.textContent)
    expect(moves).toEqual([
      'String 6 from E2 down to D2 about 14 s',
      'Put the capo at fret 2 · String 6 from D2 up to E2 about 22 s',
      'Capo off about 8 s',
    ])
    expect(set.getByTestId('set-sum').textContent).toMatch(/^4 tunes, 8 minutes, about 44 s/)
  })

  it('in its best order keeps minutes and says what was saved', async () => {
    const set = await open()
    fireEvent.click(set.getByRole('button', { name: 'Best order' }))
    await set.findByText(/now take about 22 s in place of 44/)
    const items = (await stored()).items
    // Those of one setup stand together, in the order in which they were.
    const plain = items.findIndex((i) => i.tuneId === 'plain')
    expect(items[plain + 1]!.tuneId).toBe('plain2')
    expect(items.find((i) => i.tuneId === 'dropped')).toEqual({ tuneId: 'dropped', minutes: 4 })
  })

  it('moves a tune by hand, takes one out, and keeps minutes that are said', async () => {
    const set = await open()
    fireEvent.click(set.getByRole('button', { name: 'dropped later' }))
    await waitFor(async () => expect(await order()).toEqual(['plain', 'capo', 'dropped', 'plain2']))
    fireEvent.click(await set.findByRole('button', { name: 'Take plain2 out' }))
    await waitFor(async () => expect(await order()).toEqual(['plain', 'capo', 'dropped']))
    fireEvent.change(await set.findByLabelText('Minutes of capo'), { target: { value: '6' } })
    await waitFor(async () => expect((await stored()).items[1]).toEqual({ tuneId: 'capo', minutes: 6 }))
  })

  it('keeps a tune that left the shelf and says so', async () => {
    await db.shelf.update('capo', { removedAt: 1, removedOnDay: 1 })
    const set = await open()
    expect(set.getByText('capo (not on the shelf any more)')).toBeTruthy()
  })

  it('that does not exist is said to be none', async () => {
    inPage(<SetsPage />, { path: '/sets/:set?', at: '/sets/other' })
    expect(await screen.findByText('There is no such set list here.')).toBeTruthy()
  })
})

describe('moves in words', () => {
  const words = () => renderHook(() => useMoveWords(), { wrapper: MemoryRouter }).result.current

  it('name a partial capo with its strings', () => {
    const { moveText } = words()
    const none = [0, 0, 0, 0, 0, 0]
    expect(moveText({ kind: 'capo', from: none, to: [0, 2, 2, 2, 2, 0] })).toBe(
      'Put the capo at fret 2 on strings 2, 3, 4, 5',
    )
    expect(moveText({ kind: 'capo', from: [2, 2, 2, 2, 2, 2], to: none })).toBe('Capo off')
  })

  it('name a tuning, or spell one that has no name from the lowest string', () => {
    const { setupText } = words()
    const of = (tuning: readonly number[]) =>
      setupText({ id: 't', minutes: 1, kind: 'guitar', tuning, capo: [0, 0, 0, 0, 0, 0] })
    expect(of(SETUPS.dropped.tuning)).toBe('Guitar, Drop D, no capo')
    expect(of([64, 59, 55, 50, 45, 41])).toBe('Guitar, F2 A2 D3 G3 B3 E4, no capo')
  })
})
