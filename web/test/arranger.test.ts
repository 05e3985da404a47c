import type { ArrangeError } from '@velvet-porch/core/arrange'
import { lockOf, type Region } from '@velvet-porch/core/document'
import { arranging } from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { arrangementFor, tuneOf } from './support.ts'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Arranger, settingsAfter, type ArrangerTools } from '../src/features/arrange/arranger.ts'
import { settingsOf } from '../src/features/arrange/settings.ts'
import { db } from '../src/state/db.ts'
import { historyOf, step } from '../src/state/documents.ts'
import { editScore, openScoreOf } from '../src/state/openScore.ts'
import { addScore, arrangementId } from '../src/state/shelf.ts'
import { allWritten } from '../src/state/unwritten.ts'
import { playerOf } from '../src/state/players.ts'

// The page of a browser draws a frame now and then; here one comes at once.
vi.stubGlobal('requestAnimationFrame', (frame: () => void) => setTimeout(frame))

/** Milliseconds that the arranging of the test takes: longer than a choice after another. */
const SLOW_MS = 40

let count = 0
let tune = tuneOf('"C"cdec|"G"g4|"C"c4|]')
let close = () => {}
let solving = 0

/** The core's arranger in this thread; it takes its time and can be stopped. */
const solve: ArrangerTools['solve'] = (order, onProgress) => {
  let stopped = false
  solving++
  return {
    cancel: () => (stopped = true),
    reply: (async () => {
      await new Promise((resolve) => setTimeout(resolve, SLOW_MS / 2))
      onProgress(0.5)
      await new Promise((resolve) => setTimeout(resolve, SLOW_MS / 2))
      if (stopped) return { kind: 'cancelled' } as const
      try {
        const { layer, plan, idleLocks } = finish(
          arranging(order.tune, order.setup, order.regions, { locks: order.locks }),
        )
        return { kind: 'done', layer, transposed: plan.transposed, ms: 1, idleLocks } as const
      } catch (error) {
        const { says, locks } = error as ArrangeError
        return { kind: 'failed', says, locks } as const
      }
    })(),
  }
}

function arrangerOf(tools: Partial<ArrangerTools> = {}): Arranger {
  return new Arranger({
    score: () => openScoreOf(tune.id).score(),
    player: () => playerOf(undefined),
    solve,
    edit: (label, edit) => editScore(tune.id, label, edit),
    ...tools,
  })
}

const arrangement = () => openScoreOf(tune.id).score()!.arrangement!
const region = () => arrangement().regions[0]!
const to = (choice: Partial<Region>) => (now: { readonly regions: readonly Region[] }) => ({
  regions: now.regions.map((r) => ({ ...r, ...choice })),
})
const labels = async () => (await historyOf(tune.id)).map((s) => s.label)

beforeEach(async () => {
  await Promise.all([db.shelf.clear(), db.tunes.clear(), db.arrangements.clear(), db.history.clear()])
  solving = 0
  tune = { ...tune, id: `arranged${count++}` }
  const made = { ...arrangementFor(tune), tuneId: tune.id, id: arrangementId(tune.id) }
  await addScore({ tune, arrangement: made })
  await new Promise<void>((resolve) => {
    close = openScoreOf(tune.id).subscribe(() => resolve())
  })
})
afterEach(async () => {
  await allWritten()
  close()
})

describe('choices on the bench', () => {
  it('three within a moment all hold, each is a step of the history, and each comes back as it was', async () => {
    const arranger = arrangerOf()
    const before = arrangement()
    void arranger.choose('style', to({ style: 'arpeggio' }))
    void arranger.choose('level', to({ level: 4 }))
    await arranger.choose('capo', () => ({ capo: 2 }))
    expect([region().style, region().level, arrangement().setup.capo[0]]).toEqual(['arpeggio', 4, 2])
    await allWritten()
    expect(await labels()).toEqual(['style', 'level', 'capo'])
    const seen = [[region().style, region().level, arrangement().setup.capo[0]]]
    for (let i = 0; i < 3; i++) {
      await step(tune.id, 'undo')
      const doc = (await db.arrangements.get(arrangementId(tune.id)))!
      seen.push([doc.regions[0]!.style, doc.regions[0]!.level, doc.setup.capo[0]])
    }
    expect(seen).toEqual([
      ['arpeggio', 4, 2],
      ['arpeggio', 4, 0],
      ['arpeggio', before.regions[0]!.level, 0],
      [before.regions[0]!.style, before.regions[0]!.level, 0],
    ])
    expect((await db.arrangements.get(arrangementId(tune.id)))!.base).toEqual(before.base)
  })

  it('are shown at once as they will stand, and counted but once when they do', async () => {
    const arranger = arrangerOf()
    const shown = () => settingsAfter(settingsOf(tune, arrangement()), arranger.store.getState().waiting).capo
    const more = arranger.choose('up', (now) => ({ capo: now.capo + 1 }))
    void arranger.choose('up', (now) => ({ capo: now.capo + 1 }))
    expect(shown()).toBe(2)
    const seen = new Set<number>()
    arranger.store.subscribe(() => seen.add(shown()))
    await more
    expect([...seen]).toEqual([2])
    expect(arrangement().setup.capo[0]).toBe(2)
    expect(arranger.isAtWork()).toBe(false)
    expect(arranger.store.getState().progress).toBeUndefined()
  })

  it('one that cannot be carried out is said with its locks, and those behind it go on without it', async () => {
    const arranger = arrangerOf()
    const melody = arrangement().base.notes.find((n) => n.role === 'melody')!
    const impossible = lockOf('place', 'l', melody.id, { string: 6, fret: 15 })
    void arranger.choose('a lock', (now) => ({ locks: [...now.locks, impossible] }))
    expect(arranger.store.getState().progress).toBe(0)
    await arranger.choose('capo', () => ({ capo: 1 }))
    await allWritten()
    expect(arrangement().base.locks).toEqual([])
    expect(await labels()).toEqual(['capo'])
  })

  it('the last that fails stays said until it is taken back', async () => {
    const arranger = arrangerOf()
    await arranger.choose('a banjo roll', to({ style: 'bottleneck' }))
    const { failed } = arranger.store.getState()
    expect(failed?.why).toMatchObject({ says: { code: 'arranging.noOpenChord' } })
    expect(failed?.label).toBe('a banjo roll')
    arranger.forget()
    expect(arranger.store.getState().failed).toBeUndefined()
  })

  it('are stopped together: nothing of them enters the page, and the next one is carried out', async () => {
    const arranger = arrangerOf()
    const before = arrangement()
    const going = arranger.choose('style', to({ style: 'arpeggio' }))
    void arranger.choose('level', to({ level: 4 }))
    await new Promise((resolve) => setTimeout(resolve, SLOW_MS / 4))
    arranger.cancel()
    expect(arranger.isAtWork()).toBe(false)
    await going
    expect(arrangement()).toBe(before)
    expect(solving).toBe(1)
    await arranger.choose('level', to({ level: 3 }))
    expect([region().style, region().level]).toEqual([before.regions[0]!.style, 3])
  })

  it('one that cannot be stored is thrown, and does not keep those behind it waiting', async () => {
    const arranger = arrangerOf({
      edit: (label, edit) =>
        label === 'style' ? Promise.reject(new Error('full')) : editScore(tune.id, label, edit),
    })
    const first = arranger.choose('style', to({ style: 'arpeggio' }))
    void arranger.choose('level', to({ level: 4 })).catch(() => undefined)
    await expect(first).rejects.toThrow('full')
    expect(arranger.isAtWork()).toBe(false)
    expect(region().level).toBe(4)
  })

  it('some measures alone wait their turn, and keep the rest note for note', async () => {
    const arranger = arrangerOf()
    void arranger.choose('level', to({ level: 4 }))
    await arranger.rearrange('some', 1, 1)
    await allWritten()
    expect(solving).toBe(2)
    expect(await labels()).toContain('level')
    expect(region().level).toBe(4)
  })
})
