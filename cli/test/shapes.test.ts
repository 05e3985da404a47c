import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { porch } from './support.ts'

interface ShapesPrinted {
  shapes: {
    frets: (number | null)[]
    fingers: (number | string)[]
    barres: unknown[]
    midi: number[]
    zone: string
    stretchMm: number
    family: string
  }[]
}

const OPEN = [40, 45, 50, 55, 59, 64]

describe('porch shapes', () => {
  it('--json prints shapes from the lowest string, in the order shown, with what they sound', () => {
    const run = porch('shapes', 'F#m7b5', '--capo', '2', '--json')
    expect(run.status).toBe(0)
    const { shapes } = JSON.parse(run.stdout) as ShapesPrinted
    expect(shapes.length).toBeGreaterThan(20)
    for (const s of shapes) {
      expect(s.midi).toEqual(s.frets.flatMap((f, i) => (f === null ? [] : [OPEN[i]! + 2 + f])))
      expect(s.fingers.length).toBe(6)
      for (const m of s.midi) expect([6, 9, 0, 4]).toContain(m % 12)
      expect(s.zone).toMatch(/^(1-3|4-6|7-9|10\+)$/)
      expect(s.stretchMm).toBeLessThan(109)
    }
  })

  it('takes wishes for top, bass, stretch and barre', () => {
    const run = porch(
      'shapes',
      'C',
      '--top',
      'E4',
      '--bass',
      'G',
      '--max-stretch',
      '90',
      '--no-barre',
      '--json',
    )
    const { shapes } = JSON.parse(run.stdout) as ShapesPrinted
    for (const s of shapes) {
      expect(Math.max(...s.midi)).toBe(64)
      expect(s.midi[0]! % 12).toBe(7)
      expect(s.stretchMm).toBeLessThanOrEqual(90)
      expect(s.barres).toEqual([])
    }
  })

  it.each([
    [['shapes', 'Cm7foo'], 'nearest is "Cm7"'],
    [['shapes', '???'], 'starts with a note name'],
    [['shapes'], "missing required argument 'chord'"],
    [['shapes', 'C', '--tuning', 'D A D G A'], '6 notes'],
    [['shapes', 'C', '--tuning', 'E2 A2 D3 G3 B3 E6'], 'would break'],
    [['shapes', 'C', '--capo', '30'], 'from 0 to'],
    [['shapes', 'C', '--top', 'E7'], 'Leave out --top'],
    [['shapes', 'C', '--max-stretch', '0'], 'above 0'],
    [['shapes', 'C', '--instrument', 'banjo'], 'guitar, mandolin'],
    [['name', 'x-3-2'], 'Write 6 frets'],
    [['name', 'x-3-2-0-1-99'], 'not a fret'],
  ])('%j is refused with the way out', (args, words) => {
    const run = porch(...args)
    expect(run.status).toBe(1)
    expect(run.stderr).toContain(words)
    expect(run.stdout).toBe('')
  })
})

describe('porch arrange in other tunings, for other hands', () => {
  const tune = fileURLToPath(new URL('../../demo/tunes.abc', import.meta.url))
  it('takes a tuning, and a hand from a file', () => {
    const hand = join(mkdtempSync(join(tmpdir(), 'velvet-')), 'hand.json')
    const spans = { '12': 70, '13': 90, '14': 95, '23': 65, '24': 88, '34': 65 }
    const techniques = { barre: false, littleFinger: false, thumbOver: false }
    writeFileSync(
      hand,
      JSON.stringify({ name: 'Wren', spans, techniques, school: 'flatPick', handedness: 'left' }),
    )
    const run = porch('arrange', tune, '--tuning', 'D A D G A D', '--player', hand, '--json')
    expect(run.status).toBe(0)
    const json = JSON.parse(run.stdout) as { setup: unknown; notes: { leftFinger: number }[] }
    expect(json.setup).toMatchObject({ tuning: [38, 45, 50, 55, 57, 62] })
    expect(json.notes.every((n) => n.leftFinger < 4)).toBe(true)
    writeFileSync(hand, JSON.stringify({ name: 'Nobody', spans: { ...spans, '14': 0 }, techniques }))
    const refused = porch('arrange', tune, '--player', hand)
    expect(refused.status).toBe(1)
    expect(refused.stderr).toContain('spans.14')
  })
})

describe('porch name', () => {
  it('prints shape and sound', () => {
    const run = porch('name', 'x-3-2-0-1-0', '--capo', '3', '--json')
    expect((JSON.parse(run.stdout) as { names: unknown[] }).names[0]).toEqual({ shape: 'C', sounding: 'Eb' })
    expect(porch('name', '0-2-3-0', '--instrument', 'mandolin').stdout.split('\n')[0]).toBe('C/G')
    expect(porch('name', '0-0-0-0-0-0', '--tuning', 'openG').stdout.split('\n')[0]).toBe('G/D')
  })
})
