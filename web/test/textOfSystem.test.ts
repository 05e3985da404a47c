import { readAbc } from '@velvet-porch/core/input/abc'
import { describe, expect, it } from 'vitest'
import { textOfSystem } from '../src/features/tune/textOfSystem.ts'

const TEXT =
  'X:1\nT:Gate\nM:4/4\nL:1/4\nK:C\nP:Verse\n"C"cd {g}e(c|"F"f2) "G7"!fermata!d2:|\n' +
  'w: one two three\n|:"Am"(3abc e2 c|d4:|2 e4||f4|: g4 :| a2 a2 |\n[P:Coda] b4|]\n'

const tune = readAbc(TEXT, () => 'gate')[0]!.tune!
const { spans } = tune.abc!
const last = tune.measures.length - 1

const part = (from: number, to: number) => {
  const range = textOfSystem(tune, TEXT, spans, from, to)!
  return TEXT.slice(range.from, range.to)
}

describe('the text of a system', () => {
  it('has its own notes, chords, graces and words, and its closing bar', () => {
    expect(part(0, 1)).toBe('"C"cd {g}e(c|"F"f2) "G7"!fermata!d2:|\nw: one two three\n')
    expect(part(0, 0)).toBe('"C"cd {g}e(c|')
  })

  it('wherever systems are parted, their texts put together are the whole music', () => {
    const music = TEXT.slice(TEXT.indexOf('"C"cd'))
    for (let a = 0; a < last; a++)
      for (let b = a + 1; b < last; b++) expect(part(0, a) + part(a + 1, b) + part(b + 1, last)).toBe(music)
  })

  it('a repeat belongs to what it opens, a bar line to what it closes', () => {
    const at = tune.measures.findIndex((m) => m.repeatStart && m.id !== tune.measures[2]!.id)
    expect(part(at, at)).toMatch(/^\|:/)
    expect(part(at - 1, at - 1)).not.toContain('|:')
  })

  it('is not offered where the text has several voices', () => {
    const text = 'X:1\nT:Two\nM:4/4\nL:1/4\nK:C\nV:1\ncdec|\nV:2\nC4|\n'
    const two = readAbc(text, () => 'two')[0]!.tune!
    expect(textOfSystem(two, text, two.abc!.spans, 0, 0)).toBeUndefined()
  })
})
