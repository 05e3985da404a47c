import { groupBy } from 'es-toolkit'
import { describe, expect, it } from 'vitest'
import type { TabJson } from '../../../src/output/index.ts'
import { arrangeTune, CORPUS } from '../../support/tunes.ts'

const fillsOf = ({ notes }: TabJson) =>
  notes.filter((n) => n.role === 'fill').sort((a, b) => a.start - b.start)

describe('the figure of an arpeggio', () => {
  const pages = CORPUS.slice(0, 5).map((tune) => arrangeTune(tune, 'arpeggio', 3))

  it('moves from string to string: few fills repeat the one before', () => {
    const fills = pages.map(({ json }) => fillsOf(json))
    const again = fills.flatMap((list) =>
      list.slice(1).filter((n, i) => n.string === list[i]!.string && n.fret === list[i]!.fret),
    )
    expect(again.length / fills.flat().length).toBeLessThanOrEqual(0.2)
  })

  it('may lie over the melody between its notes, never at one of them: by the audit of the finished tab', () => {
    let above = 0
    for (const { json, report } of pages) {
      expect(report.findings.filter((f) => f.kind === 'melodyMasked')).toEqual([])
      for (const fill of fillsOf(json)) {
        const sung = json.source.findLast((n) => n.start <= fill.start)
        if (sung && fill.midi > sung.midi + json.transposed) above++
      }
    }
    expect(above).toBeGreaterThan(5)
  })
})

describe('fills between the notes of a tune', () => {
  it('are no hammering: no note alone is struck three times running while the tune rests', () => {
    for (const style of ['melody-bass', 'alternating-bass'] as const)
      for (const level of [3, 4, 5] as const)
        for (const tune of CORPUS.filter((t) => t.chords.length > 0).slice(0, 8)) {
          const onsets = Object.entries(groupBy(arrangeTune(tune, style, level).json.notes, (n) => n.start))
            .sort(([a], [b]) => Number(a) - Number(b))
            .map(([, notes]) => notes)
          const alone = onsets.map((notes) => {
            const [n] = notes
            return notes.length === 1 && n?.role === 'fill' ? `${n.string}/${n.fret}` : undefined
          })
          const runs = alone.filter((n, i) => n && n === alone[i - 1] && n === alone[i - 2])
          expect(runs, `${tune.title} ${style} ${level}`).toEqual([])
        }
  })
})
