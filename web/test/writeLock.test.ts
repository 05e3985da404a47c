import 'fake-indexeddb/auto'
import { applyEdit } from '@velvet-porch/core/edit'
import { usualHandout } from '@velvet-porch/core/output/handout'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { db } from '../src/state/db.ts'
import { change, goTo, step } from '../src/state/documents.ts'
import { keepHandout } from '../src/state/handouts.ts'
import { editScore } from '../src/state/openScore.ts'
import { addScore } from '../src/state/shelf.ts'
import { keepPieceNote } from '../src/state/teaching.ts'
import { dropVersion, keepVersion, versionsOf } from '../src/state/versions.ts'
import { onRefusedWrite, setReadOnly } from '../src/state/writeLock.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|]')
const arrangement = arrangementFor(tune)
const stored = async () =>
  Object.fromEntries(await Promise.all(db.tables.map(async (t) => [t.name, await t.toArray()] as const)))

beforeEach(async () => {
  await Promise.all(db.tables.map((t) => t.clear()))
  await addScore({ tune, arrangement })
  await change('tune', tune.id, 'to Hinge', (d) => void (d.title = 'Hinge'))
  await keepVersion(tune.id, 'easy')
})
afterEach(() => setReadOnly(tune.id, false))

describe('while another window writes a tune', () => {
  /** Every way in which a window changes a tune, by whatever key or menu it was asked. */
  const WAYS: Readonly<Record<string, () => Promise<unknown>>> = {
    'a change': () => change('tune', tune.id, 'to Sill', (d) => void (d.title = 'Sill')),
    'an edit of the score': () =>
      editScore(tune.id, 'insert', (score) => {
        const edited = applyEdit(score, { do: 'insert', before: 1, count: 1 })
        return edited.ok ? edited.score : undefined
      }),
    undo: () => step(tune.id, 'undo'),
    'a way back through the history': () => goTo(tune.id, 0),
    'a version kept': () => keepVersion(tune.id, 'full'),
    'a version dropped': async () => dropVersion((await versionsOf(tune.id))[0]!),
    'a handout': () => keepHandout(usualHandout(tune.id)),
    'words to a piece': () => keepPieceNote(tune.id, 'a', 'slowly'),
  }

  it.each(Object.keys(WAYS))('%s writes nothing, and is refused with a word', async (way) => {
    const before = await stored()
    let refused = 0
    const deaf = onRefusedWrite(() => refused++)
    setReadOnly(tune.id, true)
    await WAYS[way]!()
    expect(await stored()).toEqual(before)
    expect(refused).toBeGreaterThan(0)
    setReadOnly(tune.id, false)
    await WAYS[way]!()
    expect(await stored()).not.toEqual(before)
    deaf()
  })

  it('other tunes can be written', async () => {
    setReadOnly('another', true)
    expect(await change('tune', tune.id, 'to Sill', (d) => void (d.title = 'Sill'))).toBe(true)
    setReadOnly('another', false)
  })
})
