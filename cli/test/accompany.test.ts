import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { porch, root } from './support.ts'

const corpus = join(root, 'core/test/corpus/traditional.abc')

const file = (content: string) => {
  const path = join(mkdtempSync(join(tmpdir(), 'velvet-')), 'tune.abc')
  writeFileSync(path, content)
  return path
}

const SONG = 'X:1\nT:Pantry Door\nM:4/4\nL:1/4\nK:C\n"C"(EG)c2|"F"AFA2|"G"BdB2|"C"c4|]\n'

interface Printed {
  tune: { measures: { sung?: boolean }[] }
  sung: unknown[]
  source: unknown[]
  notes: {
    start: number
    string: number
    fret: number
    rightFinger: string
    technique: string
    role: string
  }[]
  audit: { structural: number; rootsInBass: number; harmonyChanges: number; melodyKept: number }
}
const printed = (...args: string[]): Printed => {
  const run = porch('arrange', ...args, '--json')
  expect(run.stderr).toBe('')
  return JSON.parse(run.stdout) as Printed
}

describe('porch accompanies', () => {
  it.each(['picking', 'bass-brush', 'strum', 'shuffle'])(
    '--style %s: the melody is sung, every root is there',
    (style) => {
      const json = printed(corpus, '--tune', '3', '--style', style, '--level', '3')
      expect(json.source).toEqual([])
      expect(json.sung.length).toBeGreaterThan(10)
      expect(json.tune.measures.every((m) => m.sung)).toBe(true)
      expect(json.audit.structural).toBe(0)
      expect(json.audit.rootsInBass).toBe(json.audit.harmonyChanges)
    },
  )

  it('--pattern takes one in writing, one by name, and a strum in words', () => {
    const song = file(SONG)
    const strings = (json: Printed) => json.notes.filter((n) => n.start < 40_320).map((n) => n.string)
    expect(strings(printed(song, '--style', 'picking', '--pattern', 'b 3 2 1', '--per-beat', '1'))).toEqual([
      5, 3, 2, 1,
    ])
    expect(strings(printed(song, '--style', 'picking', '--pattern', 'rowing-boat'))).toEqual([
      5, 3, 2, 3, 1, 3, 2, 3,
    ])
    const strum = printed(song, '--style', 'strum', '--pattern', 'down down down-up down-up')
    const onsets = [...new Set(strum.notes.filter((n) => n.start < 40_320).map((n) => n.start / 5040))]
    expect(onsets).toEqual([0, 2, 4, 5, 6, 7])
    expect(strum.notes.find((n) => n.start === 25_200)!.rightFinger).toBe('up')
  })

  it.each([
    [['--style', 'strum', '--pattern', 'down up'], /can fall in more than one way .* write one of: "/],
    [['--style', 'strum', '--pattern', 'down dwn'], /"dwn" is neither a down nor an up stroke/],
    [['--style', 'picking', '--pattern', 'b 3 2'], /has 3 steps, and 8 fill it\. Add 5/],
    [['--style', 'picking', '--pattern', 'windmill'], /is not in the library; use stepping-stones, /],
    [
      ['--style', 'drone', '--pattern', 'b 3 2 1'],
      /--pattern goes with --style picking, bass-brush or strum/,
    ],
    [['--style', 'bottleneck'], /choose open D, open G or open C/],
    [['--ornament', '4'], /--ornament "4" must be a whole number from 0 to 3/],
    [['--lock', 'measure 1 beat 2 melody sounded twang'], /a note is not sounded by "twang"/],
  ])('%o: says what is wrong and what would do', (args, message) => {
    const run = porch('arrange', file(SONG), ...args)
    expect(run.status).toBe(1)
    expect(run.stderr).toMatch(message)
    expect(run.stdout).toBe('')
  })
})

describe('porch ornaments', () => {
  it('--ornament: plain, as written, or as many as the hand can', () => {
    const count = (n: string) =>
      printed(
        corpus,
        '--tune',
        '2',
        '--style',
        'flatpicked-lead',
        '--level',
        '3',
        '--ornament',
        n,
      ).notes.filter((x) => x.rightFinger === 'none').length
    expect(count('0')).toBe(0)
    expect(count('3')).toBeGreaterThan(count('1'))
  })

  it('a bend that is asked for is played, or said with what would do', () => {
    const bend = (fret: number, finger: number) =>
      porch(
        'arrange',
        file('X:1\nT:Pantry Door\nM:4/4\nL:1/4\nK:D\n"D"d e d f|]\n'),
        '--style',
        'flatpicked-lead',
        '--lock',
        `measure 1 beat 1 melody string 2 fret ${fret} finger ${finger}`,
        '--lock',
        `measure 1 beat 2 melody string 2 fret ${fret + 2} finger ${finger} sounded bend`,
      )
    expect(bend(3, 3).stdout).toMatch(/3-*b\(5\)/)
    expect(bend(3, 1).stderr).toMatch(/Measure 1: no room for the bend; .* Slide or hammer it instead/)
  })
})

describe('porch easier', () => {
  it('prints versions by effort, each with what it leaves out, and what a capo would do', () => {
    const run = porch('easier', corpus, '--tune', '4', '--style', 'alternating-bass', '--level', '4')
    expect(run.status).toBe(0)
    const lines = run.stdout.trim().split('\n')
    const efforts = lines.slice(0, -1).map((l) => Number(l.trim().split(' ')[0]))
    expect(efforts.length).toBeGreaterThan(2)
    expect(efforts).toEqual([...efforts].sort((a, b) => a - b))
    expect(run.stdout).toMatch(/ as it is: stretch \d+ mm, \d+ barres/)
    expect(run.stdout).toMatch(/−\d+ fill/)
    expect(lines.at(-1)).toMatch(/^Widest stretch with the capo higher: 0: \d+ mm, .* 7: \d+ mm$/)
  })

  it('of some measures, and says which there are', () => {
    const json = porch(
      'easier',
      corpus,
      '--style',
      'alternating-bass',
      '--level',
      '4',
      '--measures',
      '2-3',
      '--json',
    )
    const { rungs } = JSON.parse(json.stdout) as { rungs: { effort: number; changes: unknown[] }[] }
    expect(rungs.some((r) => r.changes.length === 0)).toBe(true)
    expect(porch('easier', corpus, '--measures', '90').stderr).toMatch(/--measures "90" is not on the page/)
  })
})
