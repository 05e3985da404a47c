import { Ajv2020 } from 'ajv/dist/2020.js'
import fc from 'fast-check'
import toJsonSchema from 'joi-to-json'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { FORMATS } from '@velvet-porch/core/formats'
import { PUBLISHED_SCHEMAS, readTuneFile } from '@velvet-porch/core/schema'
import { finish } from '@velvet-porch/core/turns'
import { arrangedScore } from '../support/score.ts'
import { CORPUS } from '../support/tunes.ts'

const fileOf = (name: string) => `../../../docs/schema/${name}.schema.json`
const published = (name: string) =>
  JSON.parse(readFileSync(new URL(fileOf(name), import.meta.url), 'utf8')) as object

const tuneFile = (n: number): Record<string, unknown> => {
  const score = arrangedScore(CORPUS[n]!, n % 2 === 0 ? 'arpeggio' : 'chord-melody', 4)
  const text = finish(FORMATS.find((f) => f.id === 'tune-file')!.writes!.writing(score))
  return JSON.parse(String(text)) as Record<string, unknown>
}

describe('the published schemas', () => {
  it.each(Object.entries(PUBLISHED_SCHEMAS))('%s is what the app itself checks', async (name, schema) => {
    const json = {
      title: `Velvet Porch: ${name}, version 1`,
      ...toJsonSchema(schema as never, 'json-draft-2019-09'),
    }
    await expect(`${JSON.stringify(json, null, 1)}\n`).toMatchFileSnapshot(fileOf(name))
  })

  it('hold for every tune file, by an independent validator', () => {
    const valid = new Ajv2020({ strict: false }).compile(published('tune-file'))
    for (let n = 0; n < 4; n++) expect(valid(tuneFile(n)), JSON.stringify(valid.errors)).toBe(true)
  })

  it('refuse what the app refuses: any value of the wrong kind, any that is missing, any that is not known', () => {
    const valid = new Ajv2020({ strict: false }).compile(published('tune-file'))
    const whole = tuneFile(0)
    const reads = (value: unknown): boolean => {
      try {
        readTuneFile(value)
        return true
      } catch {
        return false
      }
    }
    /** Changes one place of a copy, found by going down at random. */
    const changed = (path: readonly number[], how: 'kind' | 'gone' | 'more'): unknown => {
      const copy = structuredClone(whole)
      let at: unknown = copy
      for (const step of path) {
        if (at === null || typeof at !== 'object') break
        const keys = Object.keys(at)
        if (keys.length === 0) break
        const key = keys[step % keys.length]!
        const next = (at as Record<string, unknown>)[key]
        if (next !== null && typeof next === 'object' && step % 7 !== 0) {
          at = next
          continue
        }
        const own = at as Record<string, unknown>
        if (how === 'kind') own[key] = typeof next === 'number' ? 'a text' : 17.5
        else if (how === 'gone' && !Array.isArray(at)) delete own[key]
        else own['notKnownHere'] = 1
        return copy
      }
      return copy
    }
    fc.assert(
      fc.property(
        fc.array(fc.nat(1000), { minLength: 2, maxLength: 8 }),
        fc.constantFrom('kind', 'gone', 'more'),
        (path, how) => {
          const value = changed(path, how)
          // What the app refuses besides is what a schema cannot say: notes that refer to nothing.
          if (reads(value)) expect(valid(value), JSON.stringify(valid.errors)).toBe(true)
          else if (how === 'kind') expect(valid(value)).toBe(false)
        },
      ),
      { numRuns: 200 },
    )
  })
})
