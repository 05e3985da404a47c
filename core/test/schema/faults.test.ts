import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEFAULT_PLAYER, setupOf } from '../../src/instrument/index.ts'
import { LOG_FORMAT, type PracticeLog } from '../../src/lesson/index.ts'
import { BLOCK_KINDS, usualHandout } from '../../src/output/handout/index.ts'
import {
  readArrangementDoc,
  readHandout,
  readPlayer,
  readPracticeLog,
  readTuneDoc,
  SchemaError,
} from '../../src/schema/index.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS } from '../support/tunes.ts'

const { tune, arrangement } = arrangedScore(CORPUS[1]!, 'arpeggio', 4)
const log: PracticeLog = {
  format: LOG_FORMAT,
  version: 1,
  tune: 't',
  title: 'Heron',
  unit: 'lick',
  student: 's',
  entries: [
    { day: '2026-11-26', piece: 1, bpm: 60, clean: 3, minutes: 10, note: 'slow' },
    { day: '2026-11-27', piece: 0, bpm: 72.5, clean: 0, minutes: 0.5, note: '' },
  ],
}
const handout = {
  ...usualHandout('t'),
  blocks: BLOCK_KINDS.map((kind) => ({ id: kind, kind })),
}

/** Everything that is stored, as it is, with its reader. (The tab as JSON lets unknown fields pass: others write it, too.) */
const KINDS: [string, unknown, (value: unknown) => unknown][] = [
  ['tune', tune, readTuneDoc],
  ['arrangement', arrangement, readArrangementDoc],
  ['handout', handout, readHandout],
  ['practice log', log, readPracticeLog],
  ['hand', { ...DEFAULT_PLAYER, name: 'Wren' }, readPlayer],
  ['hand of a mandolin player', setupOf('mandolin').player, readPlayer],
]

type Json = null | boolean | number | string | Json[] | { [key: string]: Json }
type Way = readonly (string | number)[]

/** Every place of a document, with what stands there; of long lists their first and last items. */
function placesIn(value: Json, way: Way = []): { readonly way: Way; readonly value: Json }[] {
  const own = { way, value }
  if (Array.isArray(value)) {
    const ends = [...new Set([0, value.length - 1])].filter((i) => i >= 0)
    return [own, ...ends.flatMap((i) => placesIn(value[i]!, [...way, i]))]
  }
  if (typeof value !== 'object' || value === null) return [own]
  return [own, ...Object.entries(value).flatMap(([k, v]) => placesIn(v, [...way, k]))]
}

/** The document with something else at a place; nothing takes it away. */
function changed(value: Json, [key, ...rest]: Way, next: Json | undefined): Json | undefined {
  if (key === undefined) return next
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<string, Json>
  const inner = changed(copy[key as string]!, rest, next)
  if (inner === undefined && !Array.isArray(copy)) delete copy[key as string]
  else copy[key as string] = inner!
  return copy
}

const stored = (value: unknown): Json => JSON.parse(JSON.stringify(value)) as Json

/** The place as an error names it. */
const named = (way: Way): string =>
  way.reduce<string>((text, k) => (typeof k === 'number' ? `${text}[${k}]` : text ? `${text}.${k}` : k), '')

describe.each(KINDS)('a stored %s', (_, document, read) => {
  const whole = stored(document)
  const places = placesIn(whole)

  it('reads back as it was written', () => {
    expect(read(whole)).toEqual(document)
  })

  it('is refused where anything in it is of another kind, and the place is named', () => {
    fc.assert(
      fc.property(fc.constantFrom(...places), ({ way, value }) => {
        // What no field can be: neither text nor number, list nor record of known fields.
        const wrong: Json =
          typeof value === 'boolean' ? 'perhaps' : typeof value === 'object' ? 7 : { odd: 1 }
        let fault: unknown
        try {
          read(changed(whole, way, wrong))
        } catch (error) {
          fault = error
        }
        expect(fault, `${named(way)} = ${JSON.stringify(wrong)}`).toBeInstanceOf(SchemaError)
        // The fault is said at the place, or at what holds it where there is a choice of forms.
        const { where } = fault as SchemaError
        expect(
          named(way).startsWith(where) || where.startsWith(named(way)),
          `${where} for ${named(way)}`,
        ).toBe(true)
      }),
      { numRuns: 150 },
    )
  })

  it('is refused with a field that nobody knows', () => {
    const records = places.filter(
      ({ value }) => typeof value === 'object' && value !== null && !Array.isArray(value),
    )
    fc.assert(
      fc.property(fc.constantFrom(...records), ({ way, value }) => {
        const more = { ...(value as object), nobodyKnows: 1 } as Json
        expect(() => read(changed(whole, way, more))).toThrow(SchemaError)
      }),
      { numRuns: 60 },
    )
  })

  it('loses nothing unsaid: without a field it is refused, or the field was one that need not be', () => {
    const fields = places.filter(({ way }) => typeof way.at(-1) === 'string')
    fc.assert(
      fc.property(fc.constantFrom(...fields), ({ way }) => {
        const less = changed(whole, way, undefined)!
        let back: unknown
        try {
          back = read(less)
        } catch (error) {
          expect(error).toBeInstanceOf(SchemaError)
          expect((error as SchemaError).message).not.toBe('')
          return
        }
        expect(stored(back)).toEqual(less)
      }),
      { numRuns: 150 },
    )
  })

  it.each([undefined, null, 0, '', 'text', [], [1]])('is refused where all of it is %j', (value) => {
    expect(() => read(value)).toThrow(SchemaError)
  })
})
