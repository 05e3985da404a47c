import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import {
  arrangementAsNow,
  ARRANGEMENT_SCHEMA,
  commandAsNow,
  isFresh,
  undo,
  USUAL_SCHOOL,
  type ArrangementDoc,
  type Command,
  type TuneDoc,
} from '../../src/document/index.ts'
import { applyEdit } from '../../src/edit/index.ts'
import { readArrangementDoc, readTuneDoc } from '../../src/schema/index.ts'

/**
 * Documents as each schema had them, with the steps of their history; `score.schema1.json` was written by the app of schema 1:
 * a locked measure, a note written by hand, a bass taken out, a finger set. These files never change.
 */
const stored = (schema: number) =>
  JSON.parse(readFileSync(new URL(`./fixtures/score.schema${schema}.json`, import.meta.url), 'utf8')) as {
    tune: TuneDoc
    arrangement: ArrangementDoc
    commands: Command[]
  }

describe('a score of schema 1', () => {
  const { tune, arrangement, commands } = stored(1)
  const now = readArrangementDoc(arrangement, readTuneDoc(tune))

  it('is read in today’s shape: what was told by an id is a field, all else stays', () => {
    expect(arrangement.schema).toBe(1)
    expect(now.schema).toBe(ARRANGEMENT_SCHEMA)
    const byHand = now.base.notes.filter((n) => n.origin === 'hand')
    expect(byHand.map((n) => [n.place.string, n.place.fret, n.pos.measure])).toEqual([[4, 2, 'm4']])
    const typed = now.base.locks.find((l) => l.field === 'typed')!
    expect(typed.value).toEqual(byHand[0])
    const plain = {
      ...now,
      schema: 1,
      base: { ...now.base, notes: now.base.notes.map(({ origin: _, ...n }) => n) },
    }
    expect({ ...plain, base: { ...plain.base, locks: [] } }).toEqual({
      ...arrangement,
      base: { ...arrangement.base, locks: [] },
    })
  })

  it('is up to date where it was, though its hash was made otherwise; a change of the tune still shows', () => {
    expect(isFresh(tune, now)).toBe(true)
    const changed = { ...tune, events: tune.events.slice(1) }
    expect(isFresh(changed, now)).toBe(false)
  })

  it('is taken back step by step, as it was', () => {
    let doc = now
    for (const command of [...commands].reverse()) doc = undo(doc, commandAsNow(command))
    expect(doc.base.notes.some((n) => n.origin === 'hand')).toBe(false)
    expect(doc.base.locks.map((l) => l.field)).toEqual(['measure'])
    expect(isFresh(tune, doc)).toBe(true)
  })

  it('a note that was written by hand is simply gone when it is erased: no arrangement would bring it again', () => {
    const note = now.base.notes.find((n) => n.origin === 'hand')!
    const erased = applyEdit({ tune, arrangement: now }, { do: 'erase', note: note.id })
    if (!erased.ok) throw new Error('not erased')
    expect(erased.score.arrangement!.base.locks.some((l) => l.target === note.id)).toBe(false)
  })

  it('comes to the same in one step or many times over', () => {
    expect(arrangementAsNow(now)).toBe(now)
    expect(arrangementAsNow(arrangementAsNow(arrangement))).toEqual(now)
  })
})

describe('a score of schema 2', () => {
  const { tune, arrangement, commands } = stored(2)

  it('is read as it is: no section was given as tab before', () => {
    const now = readArrangementDoc(arrangement, readTuneDoc(tune))
    expect(arrangement.schema).toBe(2)
    expect(now).toEqual({ ...arrangement, schema: ARRANGEMENT_SCHEMA })
    expect(isFresh(tune, now)).toBe(true)
    let doc = now
    for (const command of [...commands].reverse()) doc = undo(doc, commandAsNow(command))
    expect(isFresh(tune, doc)).toBe(true)
  })
})

describe('a score of schema 3', () => {
  const { tune, arrangement } = stored(3)

  it('is read as it is: every section was straight before, and ended in time', () => {
    const now = readArrangementDoc(arrangement, readTuneDoc(tune))
    expect(arrangement.schema).toBe(3)
    expect(now).toEqual({ ...arrangement, schema: ARRANGEMENT_SCHEMA })
    const swung = { ...now, regions: now.regions.map((r) => ({ ...r, feel: 'shuffle', close: 'slower' })) }
    expect(readArrangementDoc(swung, tune)).toEqual(swung)
    expect(() =>
      readArrangementDoc({ ...now, regions: [{ ...now.regions[0], feel: 'funky' }] }, tune),
    ).toThrow()
  })
})

describe('a score of schema 4', () => {
  const { tune, arrangement } = stored(4)

  it('is read as it is: last chords were plain before, and no bass string was said', () => {
    const now = readArrangementDoc(arrangement, readTuneDoc(tune))
    expect(arrangement.schema).toBe(4)
    expect(now).toEqual({ ...arrangement, schema: ARRANGEMENT_SCHEMA })
    const school = { ...USUAL_SCHOOL, bassStrings: [{ chord: 'C', strings: [5, 4, 6, 4] }] }
    const said = {
      ...now,
      regions: now.regions.map((r) => ({ ...r, school, lastChord: 'rolled' as const })),
      base: { ...now.base, notes: now.base.notes.map((n) => ({ ...n, rolled: true as const })) },
    }
    expect(readArrangementDoc(said, tune)).toEqual(said)
    const wrong = { ...school, bassStrings: [{ chord: 'C', strings: [7] }] }
    for (const region of [{ lastChord: 'loud' }, { school: wrong }])
      expect(() =>
        readArrangementDoc({ ...now, regions: [{ ...now.regions[0], ...region }] }, tune),
      ).toThrow()
  })
})

describe('a document of a newer schema', () => {
  const { tune, arrangement } = stored(1)

  it('is left as it is, and refused with a word that says so', () => {
    const newer = { ...arrangement, schema: 99, surprise: true }
    expect(arrangementAsNow(newer)).toBe(newer)
    for (const read of [() => readArrangementDoc(newer, tune), () => readTuneDoc({ ...tune, schema: 99 })]) {
      expect(read).toThrow(/newer version of the app/)
      expect(read).toThrow(expect.objectContaining({ newer: true }) as Error)
    }
  })
})

describe('a lock', () => {
  const { tune, arrangement } = stored(1)
  const withLock = (field: string, value: unknown) => () =>
    readArrangementDoc(
      { ...arrangement, base: { ...arrangement.base, locks: [{ id: 'l', target: 'n.e1', field, value }] } },
      tune,
    )

  it.each([
    ['place', { string: 2, fret: 3 }, { string: 'two', fret: 3 }],
    ['left', 'T', 7],
    ['attack', 'slide', 'shouted'],
    ['grip', [{ string: 1, fret: 3, finger: 4 }], [{ string: 1, fret: 3 }]],
    ['measure', { style: 'drone', level: 2, notes: [] }, { style: 'unheard of', level: 2, notes: [] }],
    ['erased', { measure: 'm1', tick: 0 }, 'm1'],
    ['right', 'p', 'q'],
  ])('%s keeps what belongs to it and nothing else', (field, good, bad) => {
    expect(withLock(field, good)).not.toThrow()
    expect(withLock(field, bad)).toThrow(/locks\[0\]\.value/)
    expect(withLock(field, undefined)).toThrow(/locks\[0\]\.value/)
  })

  it('of a kind that there is not is refused', () => {
    expect(withLock('colour', 'red')).toThrow(/locks\[0\]\.field/)
  })
})
