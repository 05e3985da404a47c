import './support.ts'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { dayOfUse } from '../src/state/daysOfUse.ts'
import { db } from '../src/state/db.ts'
import { addTunes, BIN_DAYS, binned, deleteForGood, putBack, binTune, sweep } from '../src/state/shelf.ts'
import { tuneOf } from './support.ts'

const tune = tuneOf('CDEF|G4|]')
const DAY = 24 * 3600 * 1000

/** Opens the app on a day: as the page does, it sweeps. */
async function useOn(time: number): Promise<void> {
  vi.setSystemTime(time)
  await sweep()
}

beforeEach(async () => {
  vi.useFakeTimers({ toFake: ['Date'], now: Date.UTC(2026, 2, 1, 12) })
  await Promise.all(db.tables.map((t) => t.clear()))
  await addTunes([tune])
})
afterEach(() => vi.useRealTimers())

describe('the bin', () => {
  it('keeps a removed tune for thirty days of use, counted by days and not by the clock', async () => {
    await binTune(tune.id)
    let now = Date.now()
    for (let day = 1; day < BIN_DAYS; day++) await useOn((now += 3 * DAY))
    expect((await binned()).map((b) => [b.row.id, b.daysLeft])).toEqual([[tune.id, 1]])
    await useOn(now + DAY)
    expect(await binned()).toEqual([])
    expect(await db.tunes.count()).toBe(0)
  })

  it('loses nothing to a clock that jumps years ahead, or back', async () => {
    await binTune(tune.id)
    for (const year of [2041, 1999, 2026, 2090]) await useOn(Date.UTC(year, 5, 1))
    expect((await binned())[0]!.daysLeft).toBe(BIN_DAYS - 4)
    await putBack(tune.id)
    expect(await binned()).toEqual([])
    expect((await db.shelf.get(tune.id))!.title).toBe('Gate Latch')
  })

  it('counts a day once, however often the app is opened on it', async () => {
    const first = await dayOfUse()
    expect([await dayOfUse(), await dayOfUse()]).toEqual([first, first])
  })

  it('gives a tune that was removed before days were counted its whole time', async () => {
    await db.shelf.update(tune.id, { removedAt: 1 })
    await sweep()
    expect((await binned())[0]!.daysLeft).toBe(BIN_DAYS)
  })

  it('is emptied on request, with all that belongs to a tune', async () => {
    await db.drafts.put({ id: tune.id, text: 'x', rev: 1, ancestors: [], at: 1 })
    await binTune(tune.id)
    await deleteForGood([tune.id])
    for (const table of [db.shelf, db.tunes, db.drafts]) expect(await table.count()).toBe(0)
  })
})
