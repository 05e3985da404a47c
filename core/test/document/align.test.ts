import { describe, expect, it } from 'vitest'
import { alignIds } from '../../src/document/index.ts'
import { readTuneDoc } from '../../src/schema/index.ts'
import { CORPUS, tuneOfMusic } from '../support/tunes.ts'

const before = tuneOfMusic('"C"CDEF|GABc|"G"dedB|"C"c4|]')

describe('re-reading edited ABC keeps ids', () => {
  it('the same text gives the same document', () => {
    for (const t of CORPUS) expect(alignIds(t, t)).toEqual(t)
  })

  it('a changed note keeps its id and every other one', () => {
    const after = alignIds(before, tuneOfMusic('"C"CDEF|GA_Bc|"G"dedB|"C"c4|]'))
    expect(after.measures.map((m) => m.id)).toEqual(before.measures.map((m) => m.id))
    expect(after.events.map((e) => e.id)).toEqual(before.events.map((e) => e.id))
    expect(after.events[6]!.pitch!.alter).toBe(-1)
  })

  it('an inserted measure is new and the others keep their ids', () => {
    const after = alignIds(before, tuneOfMusic('"C"CDEF|efga|GABc|"G"dedB|"C"c4|]'))
    const ids = after.measures.map((m) => m.id)
    expect([ids[0], ids[2], ids[3], ids[4]]).toEqual(before.measures.map((m) => m.id))
    expect(before.measures.map((m) => m.id)).not.toContain(ids[1])
    expect(new Set(after.events.map((e) => e.id)).size).toBe(after.events.length)
    expect(readTuneDoc(after)).toEqual(after)
  })

  it('a dropped measure takes only its own ids away', () => {
    const after = alignIds(before, tuneOfMusic('"C"CDEF|"G"dedB|"C"c4|]'))
    expect(after.measures.map((m) => m.id)).toEqual(['m1', 'm3', 'm4'])
    expect(after.chords.every((c) => after.measures.some((m) => m.id === c.pos.measure))).toBe(true)
  })
})
