import { describe, expect, it } from 'vitest'
import { ledTone } from '../../../src/arrange/plan/ledTone.ts'
import { readChordSymbol, type ChordReading } from '../../../src/music/index.ts'

const chord = (symbol: string): ChordReading => {
  const read = readChordSymbol(symbol)
  if (read.kind !== 'chord') throw new Error(symbol)
  return read.chord
}
const led = (from: string, to: string) => ledTone(chord(from), chord(to))

// Facts of harmony that every handbook has; from memory.
describe('the tone that goes down into the next chord', () => {
  it('is the suspended fourth before its own third', () => {
    expect(led('Asus4', 'A')).toEqual({ tone: 2, down: 1 })
    expect(led('A7sus4', 'A7')).toEqual({ tone: 2, down: 1 })
    expect(led('Dsus4', 'Dm')).toEqual({ tone: 7, down: 2 })
  })

  it('is the seventh before the third of the chord a fourth above', () => {
    expect(led('G7', 'C')).toEqual({ tone: 5, down: 1 })
    expect(led('E7', 'Am')).toEqual({ tone: 2, down: 2 })
    expect(led('Dm7', 'G7')).toEqual({ tone: 0, down: 1 })
    expect(led('Cmaj7', 'F')).toEqual({ tone: 11, down: 2 })
  })

  it('is none between plain chords, into one without a third, or where the roots go elsewhere', () => {
    for (const [from, to] of [
      ['G', 'C'],
      ['Asus4', 'D'],
      ['G7', 'C5'],
      ['G7', 'Am'],
      ['Asus4', 'Asus2'],
      ['A', 'A7'],
    ] as const)
      expect(led(from, to), `${from} ${to}`).toBeUndefined()
  })
})
