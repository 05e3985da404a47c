import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { freeFileName } from '../../src/formats/index.ts'

describe('names of files', () => {
  it('are never the same twice, not where small and large letters are one either', () => {
    const titles = fc.array(fc.oneof(fc.string(), fc.constantFrom('Rain', 'rain', 'RAIN', 'Rain 2', '???')))
    fc.assert(
      fc.property(titles, (all) => {
        const taken = new Set<string>()
        const names = all.map((title) => freeFileName(title, taken, '.abc'))
        expect(new Set(names.map((n) => n.toLowerCase())).size).toBe(all.length)
      }),
    )
  })

  it('hold nothing that a system refuses, are not endless, and have their ending', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300, unit: 'binary' }), (title) => {
        const name = freeFileName(title, new Set(), '.abc')
        expect(name).toMatch(/^[^\\/:*?"<>|\p{Cc}]+\.abc$/u)
        expect([...name].length).toBeLessThanOrEqual(84)
      }),
    )
  })

  it('say the title as it is where it can be a name', () => {
    const taken = new Set<string>()
    const names = ['Rain / Sun', 'Rain / Sun', '   '].map((title) => freeFileName(title, taken))
    expect(names).toEqual(['Rain - Sun', 'Rain - Sun 2', 'tune'])
  })
})
