import { describe, expect, it } from 'vitest'
import { midiOf, QUARTER } from '../../../src/music/index.ts'
import { melodyOf, timelineOf, unfold } from '../../../src/document/index.ts'
import { splitBook } from '../../../src/input/abc/splitBook.ts'
import { heardByAbc2midi } from '../../support/abc2midi.ts'
import { CORPUS_TEXT, tuneOf } from '../../support/tunes.ts'

/** Texts that each hold a trap: in-bar accidentals, ties, tuplets, repeats, endings, pickups, key and metre changes. */
const TRAPS: Readonly<Record<string, string>> = {
  'accidentals last to the bar line and cross octaves': "M:4/4\nL:1/4\nK:G\n^c c c' =f|c f F2|_b B b2|]",
  'accidentals end at the bar line': 'M:4/4\nL:1/4\nK:C\n^F F G ^G|F G A2|]',
  'a tie carries an accidental over the bar line': 'M:4/4\nL:1/4\nK:C\nC D E ^F-|F F G2|]',
  'ties over two bar lines': 'M:3/4\nL:1/4\nK:D\nF3-|F3-|F2 A|]',
  'triplets, quintuplets and a triplet of mixed values':
    'M:4/4\nL:1/8\nK:C\n(3CDE F2 (3G2A2B2|(5CDEFG c2 (3d2c z2|]',
  'broken rhythm': 'M:4/4\nL:1/8\nK:C\nC>D E<F G>>A B<<c|]',
  'repeat with two endings': 'M:4/4\nL:1/4\nK:C\n|:CDEF|1 GABc:|2 cBAG|]',
  'endings for passes 1 and 3, 2, and 4': 'M:2/4\nL:1/4\nK:C\n|:CD|1,3 EF:|2 GA:|4 cc|]',
  'two repeated parts with pickups that are paid back':
    'M:4/4\nL:1/8\nK:D\nA2|:d2f2 a2f2|d6 A2:|\n|:f2|a4 f4|d6:|',
  'double repeat sign': 'M:2/4\nL:1/4\nK:C\n|:CD|EF::GA|Bc:|',
  'key change in mid-tune': 'M:4/4\nL:1/4\nK:G\nF G A B|[K:F] B A G F|[K:Emin]F G A B|]',
  'metre change in mid-tune': 'M:4/4\nL:1/4\nK:C\nCDEF|[M:3/4]GAB|[M:6/8]c/2d/2e/2 c3/2|]',
  'octave marks and a low clef': "M:4/4\nL:1/4\nK:C\nC, C c c'|c'' C,, z2|]",
  'modes and flats': 'M:4/4\nL:1/4\nK:Bbmix\nB c d e|f g a b|]',
  'rests and a whole-measure rest': 'M:3/4\nL:1/4\nK:C\nC z E|Z|z2 G|]',
  'default length of a short metre': 'M:2/4\nK:C\nCDEF|G2A2|]',
}

function played(abc: string): { onset: number; midi: number }[] {
  const tune = tuneOf(abc)
  const timeline = timelineOf(tune.measures)
  const melody = melodyOf(tune, timeline)
  return unfold(tune.measures).order.flatMap((o) => {
    const from = timeline.starts[o.measure]!
    return melody
      .filter((n) => n.measure === o.measure)
      .map((n) => ({ onset: (o.startTick + n.start - from) / QUARTER, midi: midiOf(n.pitch) }))
  })
}

const rounded = (notes: readonly { onset: number; midi: number }[]) => {
  const first = notes[0]?.onset ?? 0
  return notes.map((n) => `${Math.round((n.onset - first) * 24)}:${n.midi}`)
}

describe('reading ABC agrees with abc2midi on every pitch and onset in played order', () => {
  for (const [name, body] of Object.entries(TRAPS)) {
    it(name, () => {
      const abc = `X:1\nT:t\n${body}\n`
      expect(rounded(played(abc))).toEqual(rounded(heardByAbc2midi(abc)))
    })
  }

  for (const { text } of splitBook(CORPUS_TEXT)) {
    it(`corpus: ${/T:(.*)/.exec(text)![1]}`, () => {
      const abc = text.replace(/^X:.*/m, 'X:1')
      expect(rounded(played(abc))).toEqual(rounded(heardByAbc2midi(abc)))
    })
  }
})
