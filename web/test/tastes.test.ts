import { newTaste } from '@velvet-porch/core/taste'
import { beforeEach, describe, expect, it } from 'vitest'
import { db } from '../src/state/db.ts'
import { currentPrefs } from '../src/state/prefs.ts'
import {
  caseAt,
  changeTaste,
  dropTaste,
  keepTaste,
  noteChosen,
  takeTaste,
  tasteFor,
} from '../src/state/tastes.ts'

const at = (measure: number) => caseAt({ id: 'tune', title: 'Tune' }, measure)
const leftOut = (measure: number) => ({ kind: 'leftOut', at: at(measure) }) as const

beforeEach(async () => {
  await db.tastes.clear()
  takeTaste(undefined)
})

describe('what is chosen', () => {
  it('begins a taste where there is none, and none of several quick ones is lost', async () => {
    await Promise.all([1, 2, 3, 4].map((measure) => noteChosen([leftOut(measure)], 'My way')))
    const [own, ...others] = await db.tastes.toArray()
    expect(others).toEqual([])
    expect(own?.name).toBe('My way')
    expect(own?.comparisons.map((c) => c.at.measure)).toEqual([1, 2, 3, 4])
    expect(currentPrefs().taste).toBe(own?.id)
  })

  it('is not followed once the taste was put aside', async () => {
    await noteChosen([leftOut(1)], 'My way')
    takeTaste(undefined)
    await noteChosen([leftOut(2)], 'My way')
    expect((await db.tastes.toArray()).flatMap((d) => d.comparisons)).toHaveLength(1)
    expect(await tasteFor('tune')).toEqual({ taste: undefined, habits: [] })
  })

  it('goes on after a change that is refused; a taste that is deleted is in use no more', async () => {
    await keepTaste(newTaste('a', 'A'))
    takeTaste('a')
    await expect(changeTaste('a', (doc) => ({ ...doc, version: 2 as 1 }))).rejects.toThrow(/newer/)
    await noteChosen([leftOut(1)], 'My way')
    expect((await db.tastes.get('a'))?.comparisons).toHaveLength(1)
    await dropTaste('a')
    expect(currentPrefs().taste).toBe('')
  })
})
