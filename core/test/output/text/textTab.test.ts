import { describe, expect, it } from 'vitest'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { ticksAt } from '../../../src/document/index.ts'
import { textTab } from '../../../src/output/index.ts'
import { arrangeTune, CORPUS } from '../../support/tunes.ts'

/** Reads the printed tab back: for each system the columns that hold frets, string by string, left to right. */
function readBack(text: string): { string: number; fret: number }[][] {
  const lines = text.split('\n')
  const onsets: { string: number; fret: number }[][] = []
  for (let i = 0; i < lines.length; i++) {
    if (!/^[A-G]#? ?\|/.test(lines[i]!) || !/^[A-G]#? ?\|/.test(lines[i + 5] ?? '')) continue
    const system = lines.slice(i, i + 6)
    const columns = new Map<number, { string: number; fret: number }[]>()
    system.forEach((line, s) => {
      for (const m of line.slice(3).matchAll(/\d+/g)) {
        columns.set(m.index, [...(columns.get(m.index) ?? []), { string: s + 1, fret: Number(m[0]) }])
      }
    })
    onsets.push(...[...columns].sort((a, b) => a[0] - b[0]).map(([, notes]) => notes))
    i += 5
  }
  return onsets
}

describe('plain-text tab', () => {
  it('reads back to the same strings and frets in the same order, on every tune', () => {
    for (const tune of CORPUS) {
      const { layer, plan } = arrangeTune(tune, 'alternating-bass', 3, 1)
      const text = textTab({
        tune,
        timeline: plan.timeline,
        setup: guitarSetup(1),
        layer,
        harmony: plan.harmony,
      })
      const byStart = new Map<number, { string: number; fret: number }[]>()
      for (const n of layer.notes) {
        const at = ticksAt(plan.timeline, n.pos)
        byStart.set(
          at,
          [...(byStart.get(at) ?? []), { ...n.place }].sort((a, b) => a.string - b.string),
        )
      }
      const expected = [...byStart].sort((a, b) => a[0] - b[0]).map(([, notes]) => notes)
      expect(readBack(text)).toEqual(expected)
    }
  })

  it('keeps the six lines of a system aligned and within the page', () => {
    for (const tune of CORPUS) {
      const { layer, plan } = arrangeTune(tune, 'melody-bass', 2)
      const lines = textTab({
        tune,
        timeline: plan.timeline,
        setup: guitarSetup(),
        layer,
        harmony: plan.harmony,
      }).split('\n')
      for (let i = 0; i < lines.length; i++) {
        if (!lines[i]!.startsWith('E |') || !lines[i + 5]?.startsWith('E |')) continue
        expect(new Set(lines.slice(i, i + 6).map((l) => l.length)).size).toBe(1)
        expect(lines[i]!.length).toBeLessThanOrEqual(110)
        i += 5
      }
    }
  })

  it('names tuning and capo', () => {
    const tune = CORPUS[0]!
    const { layer, plan } = arrangeTune(tune, 'melody-bass', 1, 2)
    const text = textTab({
      tune,
      timeline: plan.timeline,
      setup: guitarSetup(2),
      layer,
      harmony: plan.harmony,
    })
    expect(text).toContain('Tuning E A D G B E, capo 2')
    expect(text.split('\n')[0]).toBe('Twinkle, Twinkle')
  })
})
