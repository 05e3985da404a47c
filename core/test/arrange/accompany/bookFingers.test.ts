import { describe, expect, it } from 'vitest'
import type { Level } from '../../../src/document/index.ts'
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

const RULES = { alike: true, barres: true, stretches: true, full: false, strummed: true }

function shapesIn(progression: string, level: Level) {
  const segments = progression.split(' ').map((symbol, i) => {
    const reading = readChordSymbol(symbol)
    if (reading.kind !== 'chord') throw new Error(symbol)
    return { start: i, end: i + 1, symbol, sounding: reading.chord, shape: reading.chord }
  })
  const shapes = progressionShapes(guitarSetup(), segments, level, [], RULES)
  return segments.map(({ symbol }, i) => ({ symbol, ...shapes[i]! }))
}

const fingersIn = (progression: string): Record<string, string> =>
  Object.fromEntries(
    shapesIn(progression, 3).map(({ symbol, frets, fingers }) => [
      symbol,
      [...frets.keys()]
        .map((s) => (frets[s] === null ? 'x' : String(fingers[s])))
        .reverse()
        .join(''),
    ]),
  )

const fretsFromLow = (frets: readonly (number | null)[]) =>
  [...frets]
    .reverse()
    .map((f) => f ?? 'x')
    .join('-')

describe('open shapes of an accompaniment', () => {
  it.each(['G D Em C', 'C Am Dm G', 'D A Em G', 'A E D A', 'E A D E', 'Am E Am Dm'])(
    'keep the fingers that every player has learnt, in %s',
    (progression) => {
      for (const [chord, fingers] of Object.entries(fingersIn(progression)))
        if (BOOK[chord]) expect(`${chord} ${fingers}`).toBe(`${chord} ${BOOK[chord]}`)
    },
  )
})

/** Barre chords in the form rooted on string 5 or 6 that lies lowest. From memory, common practice. */
const BARRES: Readonly<Record<string, string>> = {
  Bm: 'x-2-4-4-3-2',
  B: 'x-2-4-4-4-2',
  Cm: 'x-3-5-5-4-3',
  'C#m': 'x-4-6-6-5-4',
  Bb: 'x-1-3-3-3-1',
  F: '1-3-3-2-1-1',
  Fm: '1-3-3-1-1-1',
  'F#m': '2-4-4-2-2-2',
  Gm: '3-5-5-3-3-3',
  Ab: '4-6-6-5-4-4',
  'G#m': '4-6-6-4-4-4',
}

describe('barre chords that are strummed', () => {
  it.each([2, 3, 4, 5] as const)('are those of the book at level %i, in whatever company', (level) => {
    for (const progression of ['D Bm F#m G Gm Bb', 'F Fm C Cm Ab Bb', 'E C#m G#m B A F#m', 'G Bm C Cm D B'])
      for (const { symbol, frets } of shapesIn(progression, level))
        if (BARRES[symbol]) expect(`${symbol} ${fretsFromLow(frets)}`).toBe(`${symbol} ${BARRES[symbol]}`)
  })

  it('are strings of the same without a barre at level 1; no stroke goes over a string that must be silent', () => {
    for (const progression of ['D Bm F#m G', 'G Bm C D', 'F Bb C F', 'A F#m D E'])
      for (const { symbol, frets } of shapesIn(progression, 1)) {
        const shape = fretsFromLow(frets)
        expect(`${symbol} ${shape}`).not.toMatch(/\d-x.*\d/)
        const book = BARRES[symbol]?.split('-')
        if (book && symbol !== 'F')
          shape
            .split('-')
            .forEach((f, i) => expect(`${symbol} ${f === 'x' ? book[i] : f}`).toBe(`${symbol} ${book[i]}`))
      }
  })
})
