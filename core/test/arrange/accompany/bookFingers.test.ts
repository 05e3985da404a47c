import { describe, expect, it } from 'vitest'
import { progressionShapes } from '../../../src/arrange/accompany/progressionShapes.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { readChordSymbol } from '../../../src/music/harmony/chordSymbol.ts'

/** Fingers from string 6 to 1 as first method books print them. From memory, common practice. */
const BOOK: Readonly<Record<string, string>> = {
  C: 'x32010',
  D: 'xx0132',
  Am: 'x02310',
  Dm: 'xx0231',
  E: '023100',
  A: 'x01230',
}

const RULES = { alike: true, barres: true, stretches: true, full: false }

function fingersIn(progression: string): Record<string, string> {
  const segments = progression.split(' ').map((symbol, i) => {
    const reading = readChordSymbol(symbol)
    if (reading.kind !== 'chord') throw new Error(symbol)
    return { start: i, end: i + 1, symbol, sounding: reading.chord, shape: reading.chord }
  })
  const shapes = progressionShapes(guitarSetup(), segments, 3, [], RULES)
  return Object.fromEntries(
    segments.map(({ symbol }, i) => {
      const { frets, fingers } = shapes[i]!
      return [
        symbol,
        [...frets.keys()]
          .map((s) => (frets[s] === null ? 'x' : String(fingers[s])))
          .reverse()
          .join(''),
      ]
    }),
  )
}

describe('open shapes of an accompaniment', () => {
  it.each(['G D Em C', 'C Am Dm G', 'D A Em G', 'A E D A', 'E A D E', 'Am E Am Dm'])(
    'keep the fingers that every player has learnt, in %s',
    (progression) => {
      for (const [chord, fingers] of Object.entries(fingersIn(progression)))
        if (BOOK[chord]) expect(`${chord} ${fingers}`).toBe(`${chord} ${BOOK[chord]}`)
    },
  )
})
