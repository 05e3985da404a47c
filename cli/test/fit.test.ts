import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { porch } from './support.ts'

const song = join(mkdtempSync(join(tmpdir(), 'velvet-')), 'tune.abc')
writeFileSync(song, 'X:1\nT:Pantry Door\nM:4/4\nL:1/4\nK:Bb\n"Bb"B,DF2|"Eb"GEG2|"F"AcA2|"Bb"B4|]\n')

interface Option {
  choice: { shift: number; capo: number; octave: number; tuning: number[] }
  figures: { effort: number; stretch: { mm: number } }
  estimated: boolean
  tradeOff: boolean
  sung?: { outside: unknown[] }
}

describe('porch fit', () => {
  it('prints the options, the best first, with what each costs', () => {
    const run = porch('fit', song, '--keys', 'own', '--capos', '0-5', '--tunings', 'standard', '--level', '2')
    expect(run.stderr).toBe('')
    const lines = run.stdout.trim().split('\n')
    // Six capos, some of them in two octaves; the ten best are printed.
    const options = lines.filter((l) => l.includes(' capo '))
    expect(options).toHaveLength(10)
    expect(new Set(options.map((l) => /capo (\d)/.exec(l)![1])).size).toBe(6)
    expect(options.some((l) => / [+−]1 octave/.test(l))).toBe(true)
    for (const l of options) {
      expect(l).toMatch(/sounds Bb major, shapes in \S+ major: effort \d/)
      expect(l).toMatch(/stretch \d+ mm in \d, \d+ barres, open roots \d of 4/)
    }
    // B flat behind a capo at 1 or 3 is A or G: easier than B flat itself.
    expect(lines[0]).toMatch(/capo [1-5]/)
  })

  it('--json has every choice, the trade-offs marked, the singer and the parts', () => {
    const run = porch(
      ...['fit', song, '--keys=-2,0,2', '--capos', '0-2', '--tunings', 'standard,dropD'],
      ...['--voice', 'C4-C5', '--partners', 'piano,eFlat', '--json'],
    )
    expect(run.stderr).toBe('')
    const json = JSON.parse(run.stdout) as {
      options: Option[]
      parts: { partner: string; written: number }[]
    }
    const settings = json.options.map(({ choice: c }) => [c.tuning, c.shift, c.capo].join())
    expect(new Set(settings).size).toBe(2 * 3 * 3)
    const octaves = json.options.map(({ choice: c }) => [c.tuning, c.shift, c.capo, c.octave].join())
    expect(new Set(octaves).size).toBe(json.options.length)
    expect(json.options.some((o) => o.tradeOff && !o.estimated)).toBe(true)
    for (const o of json.options) {
      expect([-2, 0, 2]).toContain(o.choice.shift)
      expect(o.sung).toBeDefined()
    }
    expect(json.parts.map((p) => [p.partner, p.written])).toEqual([
      ['capoPlayer', 0],
      ['piano', 0],
      ['eFlat', 9],
    ])
  })

  it('what it offers can be arranged: --shift and --octave move the tune, the audit finds every note', () => {
    const run = porch('arrange', song, '--shift=-10', '--octave=1', '--capo', '3', '--level', '2', '--json')
    expect(run.stderr).toBe('')
    const json = JSON.parse(run.stdout) as {
      transposed: number
      audit: { structural: number; melodyKept: number }
      chords: { symbol: string; sounding: string }[]
    }
    expect(json.transposed).toBe(2)
    expect(json.audit).toMatchObject({ structural: 0, melodyKept: 10 })
    // B flat two up is C; behind the capo at 3 an A shape.
    expect([json.chords[0]!.symbol, json.chords[0]!.sounding]).toEqual(['A', 'C'])
    const high = porch('arrange', song, '--octave=2')
    expect(high.status).not.toBe(0)
    expect(high.stderr).toContain('--octave=2: the melody does not lie there on this instrument; 0 does')
  })

  it.each([
    [['--voice', 'D5-A3'], 'write A3-D5'],
    [['--voice', 'tall'], 'such as A3-D5'],
    [['--capos', '5-2'], 'a range such as 0-7'],
    [['--keys', '40'], 'from −11 to 11'],
    [['--tunings', ','], 'Nothing is left to choose from'],
    [['--partners', 'kazoo'], 'partner'],
  ])('%j is refused with the way out', (args, text) => {
    const run = porch('fit', song, ...args)
    expect(run.status).toBe(1)
    expect(run.stderr).toContain(text)
  })
})
