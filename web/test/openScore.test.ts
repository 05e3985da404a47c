import type { Score, TabNote } from '@velvet-porch/core/document'
import { applyEdit, type EditCommand } from '@velvet-porch/core/edit'
import { arrangementFor, tuneOf } from './support.ts'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { db } from '../src/state/db.ts'
import { changeScore, historyOf, step, type ScoreEdit } from '../src/state/documents.ts'
import { editScore, openScoreOf, retryWrites, unstoredScores } from '../src/state/openScore.ts'
import { addScore, arrangementId } from '../src/state/shelf.ts'
import { allWritten, onFailedWrite } from '../src/state/unwritten.ts'

// The page of a browser draws a frame now and then; here one comes at once.
vi.stubGlobal('requestAnimationFrame', (frame: () => void) => setTimeout(frame))

// A tune of its own for every test: a score stays open for a while after it was left.
let count = 0
let tune = tuneOf('"C"cdec|"G"g4|"C"c4|]')
let arrangement = arrangementFor(tune)
let close = () => {}

/** Opens the score as a view does, and waits until it is there. */
async function opened() {
  const score = openScoreOf(tune.id)
  await new Promise<void>((resolve) => {
    close = score.subscribe(() => resolve())
    if (score.score()) resolve()
  })
  return score
}

beforeEach(async () => {
  await Promise.all([db.shelf.clear(), db.tunes.clear(), db.arrangements.clear(), db.history.clear()])
  tune = { ...tune, id: `tune${count++}` }
  arrangement = { ...arrangement, tuneId: tune.id, id: arrangementId(tune.id) }
  await addScore({ tune, arrangement })
})

afterEach(async () => {
  await allWritten()
  close()
  vi.restoreAllMocks()
})

const first = arrangement.base.notes.find((n) => n.role === 'melody')!

/** Writes a fret where the first melody note stands. */
const fret = (value: number): ScoreEdit =>
  edit({
    do: 'fret',
    at: first.pos,
    string: first.place.string,
    fret: value,
    ticks: first.dur.ticks,
    role: 'melody',
  })

function edit(command: EditCommand): ScoreEdit {
  return (score: Score) => {
    const done = applyEdit(score, command)
    return done.ok ? done.score : undefined
  }
}

const fretOf = (notes: readonly TabNote[] | undefined) => notes?.find((n) => n.id === first.id)?.place.fret
const storedFret = async () => fretOf((await db.arrangements.get(arrangementId(tune.id)))?.base.notes)

describe('a score that is open', () => {
  it('shows an edit at once and stores it a moment later, as one step', async () => {
    const score = await opened()
    void editScore(tune.id, 'a fret', fret(7))
    expect(fretOf(score.score()?.arrangement?.base.notes)).toBe(7)
    expect(await storedFret()).not.toBe(7)
    await allWritten()
    expect(await storedFret()).toBe(7)
    expect((await historyOf(tune.id)).map((s) => s.label)).toEqual(['a fret'])
  })

  it('keeps every one of many edits that follow fast, in order, each a step of its own', async () => {
    const score = await opened()
    for (const value of [5, 6, 7, 8, 9]) void editScore(tune.id, `to ${value}`, fret(value))
    await allWritten()
    expect((await historyOf(tune.id)).map((s) => s.label)).toEqual(['to 5', 'to 6', 'to 7', 'to 8', 'to 9'])
    expect(await storedFret()).toBe(9)
    for (const value of [8, 7, 6, 5]) {
      await step(tune.id, 'undo')
      await vi.waitFor(() => expect(fretOf(score.score()?.arrangement?.base.notes)).toBe(value))
    }
  })

  it('stores what it shows, object for object', async () => {
    const score = await opened()
    void editScore(tune.id, 'a fret', fret(8))
    void editScore(tune.id, 'insert', edit({ do: 'insert', before: 1, count: 1 }))
    await allWritten()
    expect(await db.tunes.get(tune.id)).toEqual(score.score()!.tune)
    expect(await db.arrangements.get(arrangementId(tune.id))).toEqual(score.score()!.arrangement)
  })

  it('writes on top of what another window wrote in between', async () => {
    const score = await opened()
    void editScore(tune.id, 'mine', fret(7))
    // Another window does not wait for this one.
    await changeScore(tune.id, 'theirs', edit({ do: 'insert', before: 3, count: 1 }))
    await allWritten()
    expect(await storedFret()).toBe(7)
    expect((await db.tunes.get(tune.id))!.measures).toHaveLength(4)
    await vi.waitFor(() => expect(score.score()!.tune!.measures).toHaveLength(4))
    expect((await historyOf(tune.id)).map((s) => s.label).sort()).toEqual(['mine', 'theirs'])
  })

  it('says so where it could not write; the change stays on the page and is stored when it can be', async () => {
    const score = await opened()
    vi.spyOn(db.history, 'add').mockImplementation(() => {
      throw new Error('full')
    })
    const told: unknown[] = []
    const deaf = onFailedWrite((reason) => told.push(reason))
    void editScore(tune.id, 'a fret', fret(9))
    expect(fretOf(score.score()?.arrangement?.base.notes)).toBe(9)
    await allWritten()
    deaf()
    expect(told.map(String)).toEqual(['Error: full'])
    expect(fretOf(score.score()?.arrangement?.base.notes)).toBe(9)
    expect(unstoredScores()).toHaveLength(1)
    expect(await historyOf(tune.id)).toEqual([])
    vi.restoreAllMocks()
    retryWrites()
    await allWritten()
    expect(await storedFret()).toBe(9)
    expect((await historyOf(tune.id)).map((h) => h.label)).toEqual(['a fret'])
    expect(unstoredScores()).toEqual([])
  })

  it('shows a first arrangement that storage has no room for, and stores it when there is, as no step of its own', async () => {
    await db.arrangements.clear()
    const score = await opened()
    vi.spyOn(db.arrangements, 'put').mockImplementation(() => {
      throw new Error('full')
    })
    void editScore(tune.id, 'arranged', ({ tune }) => ({ tune, arrangement }))
    expect(score.score()?.arrangement).toBe(arrangement)
    await allWritten()
    expect(await db.arrangements.count()).toBe(0)
    void editScore(tune.id, 'a fret', fret(9))
    await allWritten()
    expect(fretOf(score.score()?.arrangement?.base.notes)).toBe(9)
    vi.restoreAllMocks()
    retryWrites()
    await allWritten()
    expect(await storedFret()).toBe(9)
    expect((await historyOf(tune.id)).map((h) => h.label)).toEqual(['a fret'])
    await step(tune.id, 'undo')
    expect(await storedFret()).toBe(first.place.fret)
  })

  it('keeps what is written while an earlier write is on its way', async () => {
    await opened()
    for (let value = 3; value < 12; value++) {
      void editScore(tune.id, `to ${value}`, fret(value))
      await new Promise((resolve) => setTimeout(resolve, value % 3))
    }
    await allWritten()
    expect(await storedFret()).toBe(11)
    expect(await historyOf(tune.id)).toHaveLength(9)
  })

  it('is the same object after it was stored: nothing is drawn again', async () => {
    const score = await opened()
    void editScore(tune.id, 'a fret', fret(7))
    const shown = score.score()
    await allWritten()
    await new Promise((resolve) => setTimeout(resolve, 50))
    expect(score.score()).toBe(shown)
  })
})
