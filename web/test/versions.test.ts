import { arrangementFor, tuneOf } from './support.ts'
import { beforeEach, describe, expect, it } from 'vitest'
import type { ArrangementDoc } from '@velvet-porch/core/document'
import { applyEdit } from '@velvet-porch/core/edit'
import { db } from '../src/state/db.ts'
import { changeScore, step } from '../src/state/documents.ts'
import { addScore, arrangementId, duplicateTune } from '../src/state/shelf.ts'
import { dropVersion, keepVersion, takeVersion, versionsOf } from '../src/state/versions.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|]')
const plain = arrangementFor(tune, 1)
const full = arrangementFor(tune, 4)

const bench = async () => (await db.arrangements.get(arrangementId(tune.id)))!
/** What is played, without ids of documents and revisions. */
const played = ({ base, regions, setup, inputHash }: ArrangementDoc) => ({ base, regions, setup, inputHash })

beforeEach(async () => {
  await Promise.all([db.shelf.clear(), db.tunes.clear(), db.arrangements.clear(), db.history.clear()])
  await addScore({ tune, arrangement: plain })
})

describe('versions of an arrangement', () => {
  it('are copies: the bench goes on without them', async () => {
    await keepVersion(tune.id, 'easy')
    await takeVersion(tune.id, 'x', full)
    const [easy] = await versionsOf(tune.id)
    expect(easy).toMatchObject({ name: 'easy', tuneId: tune.id })
    expect(played(easy!)).toEqual(played(plain))
    expect(played(await bench())).toEqual(played(full))
  })

  it('one of the same name gives way; others stay, in order of their names', async () => {
    for (const name of ['stage', 'easy', 'stage']) await keepVersion(tune.id, name)
    expect((await versionsOf(tune.id)).map((v) => v.name)).toEqual(['easy', 'stage'])
    await dropVersion((await versionsOf(tune.id))[0]!)
    expect((await versionsOf(tune.id)).map((v) => v.name)).toEqual(['stage'])
  })

  it('are taken to the bench as one step that can be taken back', async () => {
    const before = await bench()
    expect(await takeVersion(tune.id, 'full to the bench', full)).toBe(true)
    const now = await bench()
    expect([now.id, now.name, now.rev]).toEqual([before.id, before.name, before.rev + 1])
    await step(tune.id, 'undo')
    expect(played(await bench())).toEqual(played(plain))
  })

  it('lose what the tune lost since, and nothing else', async () => {
    await keepVersion(tune.id, 'easy')
    await changeScore(tune.id, 'delete', (score) => {
      const edited = applyEdit(score, { do: 'delete', from: 1, to: 1 })
      return edited.ok ? edited.score : undefined
    })
    await takeVersion(tune.id, 'easy', (await versionsOf(tune.id))[0]!)
    const gone = tune.measures[1]!.id
    const left = plain.base.notes.filter((n) => n.pos.measure !== gone)
    expect((await bench()).base.notes.map((n) => n.id)).toEqual(left.map((n) => n.id))
    expect((await bench()).base.grips.every((g) => g.until.measure !== gone)).toBe(true)
  })

  it('go along when a tune is duplicated, none over another', async () => {
    for (const name of ['easy', 'stage']) await keepVersion(tune.id, name)
    const copy = (await duplicateTune(tune.id, 'Copy'))!
    expect((await versionsOf(copy)).map((v) => v.name)).toEqual(['easy', 'stage'])
    expect(played((await db.arrangements.get(arrangementId(copy)))!)).toEqual(played(plain))
    expect(await versionsOf(tune.id)).toHaveLength(2)
  })
})
