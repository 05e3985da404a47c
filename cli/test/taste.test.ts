import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { newTaste, withEntry, type TasteDoc, type TasteSays } from '@velvet-porch/core/taste'
import { describe, expect, it } from 'vitest'
import { porch, root } from './support.ts'

const corpus = join(root, 'core/test/corpus/traditional.abc')
const folder = mkdtempSync(join(tmpdir(), 'velvet-'))
const file = (name: string, value: unknown) => {
  const path = join(folder, name)
  writeFileSync(path, typeof value === 'string' ? value : JSON.stringify(value))
  return path
}
const tasteOf = (...says: TasteSays[]): TasteDoc =>
  says.reduce(
    (doc, s, i) =>
      withEntry(doc, { id: `e${i}`, on: true, says: s, scope: { kind: 'always' }, from: 'hand', cases: [] }),
    newTaste('t', 'The way we teach here'),
  )
const { tuning } = guitarSetup()
const openStrings = (...args: string[]) => {
  const run = porch('arrange', corpus, '--style', 'arpeggio', '--level', '3', '--json', ...args)
  expect(run.stderr).toBe('')
  const { notes, audit } = JSON.parse(run.stdout) as {
    notes: { fret: number }[]
    audit: { structural: number }
  }
  expect(audit.structural).toBe(0)
  return notes.filter((n) => n.fret === 0).length
}

describe('porch arrange --taste', () => {
  it('keeps to a taste file', () => {
    const closed = file('closed.json', tasteOf({ kind: 'price', feature: 'open', price: 6 }))
    expect(openStrings('--taste', closed)).toBeLessThan(openStrings() / 2)
  })

  it('of which nothing is on is the house’s', () => {
    const doc = tasteOf({ kind: 'price', feature: 'open', price: 6 })
    const off = file('off.json', { ...doc, entries: doc.entries.map((e) => ({ ...e, on: false })) })
    expect(openStrings('--taste', off)).toBe(openStrings())
  })

  it.each([
    ['no JSON', 'open strings please', /this is not JSON/],
    ['another file', { format: 'velvet-porch-tune' }, /not a taste that can be read.*format/],
    ['of a newer version', { ...newTaste('t', 'x'), version: 2 }, /newer version/],
    [
      'with a shape that is another chord',
      tasteOf({
        kind: 'shape',
        shape: { chord: 'G', tuning, frets: [0, 1, 0, 2, 3, null], fingers: [0, 1, 0, 2, 3, 0] },
      }),
      /the shape of G in the taste “The way we teach here” is not that chord/,
    ],
    [
      'with a shape that no hand holds',
      tasteOf({
        kind: 'shape',
        shape: { chord: 'G', tuning, frets: [3, null, null, 12, null, 3], fingers: [4, 0, 0, 1, 0, 3] },
      }),
      /this hand cannot hold the shape of G/,
    ],
  ])('a file that is %s is refused, with what is wrong', (_, content, words) => {
    const run = porch('arrange', corpus, '--taste', file('odd.json', content))
    expect(run.status).not.toBe(0)
    expect(run.stderr).toMatch(words)
  })
})
