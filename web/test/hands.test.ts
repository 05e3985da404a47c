import { arrangementFor, tuneOf } from './support.ts'
import Dexie from 'dexie'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { readChordSymbol, type ChordReading } from '@velvet-porch/core/music'
import { DEFAULT_PLAYER, STANDARD_TUNING, type LeftFinger } from '@velvet-porch/core/instrument'
import { inputHash, isFresh, orderedHash } from '@velvet-porch/core/document'
import { USUAL_LESSON } from '@velvet-porch/core/lesson'
import { readTuneDoc } from '@velvet-porch/core/schema'
import { db } from '../src/state/db.ts'
import { labelsOf, step } from '../src/state/documents.ts'
import { playerOf, removePlayer, savePlayer } from '../src/state/players.ts'
import { addTunes } from '../src/state/shelf.ts'
import { pinShape, unpinShape } from '../src/state/pinShape.ts'

const tune = tuneOf('"C"cdec|"G"g4|"C"c4|]')
const chord = (text: string) => (readChordSymbol(text) as { chord: ChordReading }).chord

describe('hands in the store', () => {
  beforeEach(() => db.players.clear())

  it('are kept whole, listed by name, and removed', async () => {
    await savePlayer({ ...DEFAULT_PLAYER, id: 'b', name: 'Wren' })
    await savePlayer({ ...DEFAULT_PLAYER, id: 'a', name: 'Ash', handedness: 'left' })
    expect((await db.players.orderBy('name').toArray()).map((p) => p.name)).toEqual(['Ash', 'Wren'])
    expect(playerOf(await db.players.get('a'))).toEqual({
      ...DEFAULT_PLAYER,
      name: 'Ash',
      handedness: 'left',
    })
    await removePlayer('a')
    expect(await db.players.count()).toBe(1)
    expect(playerOf(undefined)).toBe(DEFAULT_PLAYER)
  })

  it('a hand of 0 mm is refused and nothing is written', async () => {
    const spans = { ...DEFAULT_PLAYER.spans, '14': 0 }
    await expect(savePlayer({ ...DEFAULT_PLAYER, id: 'z', name: 'Nobody', spans })).rejects.toThrow(
      'spans.14',
    )
    expect(await db.players.count()).toBe(0)
  })
})

describe('pins of a tune', () => {
  const frets = [3, 5, 5, 5, 3, null]
  const fingers: LeftFinger[] = [1, 4, 3, 2, 1, 0]
  beforeEach(async () => {
    await Promise.all([db.shelf.clear(), db.tunes.clear(), db.arrangements.clear(), db.history.clear()])
    await addTunes([tune])
  })

  it('are one step of undo each, valid by the schema, and change what the arranger reads', async () => {
    const arrangement = arrangementFor(tune)
    await pinShape(tune.id, chord('C'), STANDARD_TUNING, frets, fingers, 'pin')
    const pinned = (await db.tunes.get(tune.id))!
    expect(readTuneDoc(pinned).pins).toHaveLength(1)
    expect(inputHash(pinned, arrangement.setup, arrangement.regions)).not.toBe(arrangement.inputHash)
    expect(await labelsOf(tune.id)).toEqual({ undo: 'pin' })
    await step(tune.id, 'undo')
    const back = (await db.tunes.get(tune.id))!
    expect(inputHash(back, arrangement.setup, arrangement.regions)).toBe(arrangement.inputHash)
  })

  it('a second pin for a chord takes the place of the first; other tunings keep theirs', async () => {
    await pinShape(tune.id, chord('C'), STANDARD_TUNING, frets, fingers, 'one')
    await pinShape(tune.id, chord('C'), STANDARD_TUNING, [0, 1, 0, 2, 3, null], [0, 1, 0, 2, 3, 0], 'two')
    await pinShape(tune.id, chord('C'), [62, 57, 55, 50, 45, 38], frets, fingers, 'three')
    const pins = (await db.tunes.get(tune.id))!.pins!
    expect(pins.map((p) => p.frets[0])).toEqual([0, 3])
    await unpinShape(tune.id, pins[0]!.id, 'off')
    expect((await db.tunes.get(tune.id))!.pins!.map((p) => p.tuning[5])).toEqual([38])
    expect(await unpinShape(tune.id, 'not there', 'off')).toBe(false)
  })
})

describe('a store from before hands had techniques', () => {
  it('is brought up: hands get the usual techniques, what was up to date stays so', async () => {
    const made = arrangementFor(tune)
    const { techniques: _, school: __, ...old } = made.setup.player
    const setup = { ...made.setup, player: old } as typeof made.setup
    const doc = { ...made, schema: 1, setup, inputHash: orderedHash(tune, setup, made.regions) }
    db.close()
    await Dexie.delete('velvet-porch')
    const before = new Dexie('velvet-porch')
    before.version(1).stores({
      shelf: 'id, changedAt, removedAt',
      tunes: 'id',
      arrangements: 'id, tuneId',
      history: '++seq, docId, [docId+undone]',
    })
    await before.table('tunes').put(tune)
    await before.table('arrangements').put(doc)
    before.close()
    await db.open()
    const after = (await db.arrangements.get(doc.id))!
    expect(after.setup.player).toEqual(DEFAULT_PLAYER)
    expect(after.schema).toBe(made.schema)
    expect(isFresh(tune, after)).toBe(true)
  })
})

describe('how this teacher likes things', () => {
  it('garbage in storage is not believed', async () => {
    for (const stored of [
      'not json',
      '{"naming":"runes","boxes":3}',
      'null',
      '{"player":7}',
      '{"tunings":[{"kind":"guitar"},7],"capoKeeps":"all"}',
      '{"sheet":{"perLine":9,"form":3,"counts":"yes"}}',
      '{"lesson":{"unit":3,"way":7,"minutes":-1}}',
      '{"a4":9000}',
      '{"backup":{"everyDays":3,"savedAt":"yesterday","since":null}}',
      '{"leaveOut":"all","sheet":{"zoom":1000,"layout":7,"names":"x","durations":[],"boxes":1}}',
    ]) {
      vi.resetModules()
      vi.stubGlobal('localStorage', { getItem: () => stored, setItem: () => undefined })
      const { currentPrefs, FIRST_SHEET } = await import('../src/state/prefs.ts')
      expect(currentPrefs()).toEqual({
        naming: 'letters',
        boxes: 'upright',
        labels: 'fingers',
        sheet: FIRST_SHEET,
        lesson: USUAL_LESSON,
        leaveOut: [],
        backup: { everyDays: 30, savedAt: 0, since: 0 },
        tunings: [],
        effortShown: false,
        a4: 440,
        guide: 'unseen',
      })
    }
    vi.unstubAllGlobals()
  })
})
