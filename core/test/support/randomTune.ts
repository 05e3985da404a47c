import fc from 'fast-check'

const NOTES = [
  'C',
  'D',
  'E',
  'F',
  'G',
  'A',
  'B',
  'c',
  'd',
  'e',
  'f',
  'g',
  'a',
  'b',
  '^f',
  '_B',
  '^c',
  'A,',
  'G,',
  '^G',
  "c'",
]
const CHORDS = [
  'C',
  'G',
  'D',
  'A',
  'E',
  'F',
  'Bb',
  'Eb',
  'Am',
  'Em',
  'Dm',
  'Bm',
  'F#m',
  'G7',
  'D7',
  'A7',
  'B7',
  'Cmaj7',
  'Dm7',
  'D/F#',
  'C/G',
  'Bdim',
  'F#dim7',
  'Caug',
  'Dsus4',
  'Bm7b5',
  'C9',
  'Gm',
  'Fm',
  'Ab',
  'C5',
  'G13',
  'Hx',
  'N.C.',
]
const METRES = [
  ['4/4', 8],
  ['3/4', 6],
  ['6/8', 6],
  ['2/4', 4],
  ['5/4', 10],
  ['7/8', 7],
  ['12/8', 12],
  ['2/2', 8],
] as const

const event = fc.record({
  note: fc.constantFrom(...NOTES),
  eighths: fc.constantFrom(1, 1, 1, 2, 2, 3, 4, 6),
  chord: fc.option(fc.constantFrom(...CHORDS), { freq: 3 }),
  rest: fc.nat(15).map((n) => n === 0),
})

/** Random ABC: any metre, tempo, key and chords, leaps, rests, pickups and repeats. Harder than any real tune. */
export const randomTune: fc.Arbitrary<string> = fc
  .record({
    metre: fc.constantFrom(...METRES),
    tempo: fc.constantFrom(50, 80, 100, 140, 200),
    key: fc.constantFrom('C', 'G', 'D', 'A', 'E', 'F', 'Bb', 'Am', 'Em', 'Ddor', 'Amix', 'Cm'),
    pickup: fc.boolean(),
    repeatAt: fc.nat(8),
    bars: fc.array(fc.array(event, { minLength: 1, maxLength: 12 }), { minLength: 3, maxLength: 8 }),
  })
  .map(({ metre: [metre, eighths], tempo, key, pickup, repeatAt, bars }) => {
    const written = bars.map((bar, b) => {
      let left = eighths
      let text = ''
      for (let i = 0; left > 0; i++) {
        const e = bar[i % bar.length]!
        const length = Math.min(e.eighths, left)
        const chord = i === 0 || i < bar.length ? e.chord : null
        text += `${chord ? `"${chord}"` : ''}${e.rest ? 'z' : e.note}${length}`
        left -= length
      }
      return text + (b === repeatAt ? ':|' : '|')
    })
    return `X:1\nT:Random\nM:${metre}\nL:1/8\nQ:1/4=${tempo}\nK:${key}\n${pickup ? 'G2|' : ''}|:${written.join('')}\n`
  })
