import { describe, expect, it } from 'vitest'
import { piecesOf, type Piece } from '../../src/lesson/index.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

function pieces(music: string, head = 'M:4/4\nL:1/4\nK:C'): Piece[] {
  const { tune, arrangement } = arrangedScore(tuneOf(`X:1\nT:Parts\n${head}\n${music}\n`), 'melody-bass', 2)
  return piecesOf(tune, arrangement)
}
const ranges = (list: readonly Piece[]) => list.map((p) => `${p.from}-${p.to}`)

describe('a tune in pieces', () => {
  /** Traditional tunes, long out of copyright, from memory. */
  it('has every measure once and in order, no piece longer than five, none that goes over a repeat', () => {
    for (const tune of CORPUS) {
      const found = piecesOf(tune, arrangedScore(tune, 'melody-bass', 1).arrangement)
      let next = 0
      for (const p of found) {
        expect(p.from).toBe(next)
        next = p.to + 1
        expect(p.to - p.from).toBeLessThanOrEqual(4)
        for (let m = p.from; m < p.to; m++) expect(tune.measures[m]!.repeatEnd).toBe(1)
        for (let m = p.from + 1; m <= p.to; m++)
          if (!(m === 1 && p.from === 0)) expect(tune.measures[m]!.repeatStart).toBe(false)
      }
      expect(next).toBe(tune.measures.length)
      found.forEach((p, i) => expect(p.number).toBe(i + 1))
    }
  })

  it('parts eight measures in the middle, or where the melody holds or rests', () => {
    expect(ranges(pieces('"C"cdef|gfed|cdef|gfed|cdef|gfed|cdef|"C"c4|]'))).toEqual(['0-3', '4-7'])
    expect(ranges(pieces('"C"cdef|gfed|c4|gfed|cdef|g2z2|cdef|"C"c4|]'))).toEqual(['0-2', '3-5', '6-7'])
  })

  it('keeps a pickup with what follows it, and ends a piece with each part', () => {
    expect(ranges(pieces('G|"C"cdef|gfed|c4:|"G"gagf|"C"c4|]'))).toEqual(['0-3', '4-5'])
    expect(ranges(pieces('P:A\n"C"cdef|gfed|\nP:B\n"F"fagf|"C"c4|]'))).toEqual(['0-1', '2-3'])
  })

  it('says of what comes again in which measures it differs, and nothing of what is new', () => {
    const found = pieces('"C"cdef|gfed|cege|"G"d4|"C"cdef|gfed|cege|"C"c4|"F"fagf|"G"gbag|"F"fagf|"C"c4|]')
    expect(ranges(found)).toEqual(['0-3', '4-7', '8-11'])
    expect(found[1]!.like).toEqual({ piece: 1, differs: [7] })
    expect(found[2]!.like).toBeUndefined()
    const same = pieces('"C"cdef|gfed|cege|"C"c4|"C"cdef|gfed|cege|"C"c4|"F"fagf|"G"gbag|"F"fagf|"C"c4|]')
    expect(same[1]!.like).toEqual({ piece: 1, differs: [] })
  })
})
