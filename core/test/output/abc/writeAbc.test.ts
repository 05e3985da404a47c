import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { midiOf, QUARTER } from '../../../src/music/index.ts'
import { melodyOf, timelineOf, unfold, type TuneDoc } from '../../../src/document/index.ts'
import { writeAbc } from '../../../src/output/index.ts'
import { heardByAbc2midi } from '../../support/abc2midi.ts'
import { contentOf } from '../../support/tuneContent.ts'
import { randomTune } from '../../support/randomTune.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const again = (tune: TuneDoc) => tuneOf(writeAbc(tune))

/** Texts with something of everything that a tune can hold. */
const TEXTS: Readonly<Record<string, string>> = {
  'whole rests after a change of metre': 'M:3/4\nL:1/8\nK:C\nC6|[M:4/4] z8|z8|[M:6/4] C2 z8 z2|]',
  'tuplets, ties and dots': 'M:4/4\nL:1/8\nK:C\n(3CDE F2- F(3GAB c-|c8|(5CDEFG c2 (3d2c z2|]',
  'accidentals in several octaves': "M:4/4\nL:1/4\nK:G\n^c c c' =f|c f F2|_b B b2|^^f ^f f __e|]",
  'sharps tied over the bar line': 'M:4/4\nL:1/4\nK:C\nC D E ^F-|F F G2|]',
  'repeats, endings and pickups': 'M:4/4\nL:1/8\nK:D\nA2|:d2f2 a2f2|1 d6 A2:|2 d8||f2 e4 d2|]',
  'endings for passes 1 and 3, 2, and 4': 'M:2/4\nL:1/4\nK:C\n|:CD|1,3 EF:|2 GA:|4 cc|]',
  'one ending behind a double bar and again behind it':
    'M:2/4\nL:1/4\nK:C\n|:CD|1 EF:|2 GA|]2 cc|]2 ee||2 GE|]',
  'a chord that begins like an annotation': 'M:2/4\nL:1/4\nK:C\n"C"CD|" >A"EF|" ^x"GA|" <"cc|]',
  'a chord that holds a field': 'M:4/4\nL:1/4\nK:C\n"C"CDEF|"[K:F]Em"GABc|"G"[K:G]GABc|]',
  'an empty voice between two': 'M:2/4\nL:1/4\nV:1\nV:2\nV:3\nK:C\nV:1\nCD|EF|\nV:3\nEG|A2|',
  'key, metre and tempo changes':
    'M:4/4\nL:1/4\nQ:1/4=80\nK:G\nF G A B|[K:F][M:3/4] B A G|[Q:1/4=120] F2 G|[M:6/8]c/d/e/ c3/2|]',
  'signs and jumps': 'M:2/4\nL:1/4\nK:C\nCD|!segno!EF|GA !coda!|Bc!D.S.alcoda!|!coda!ce|c2|]',
  'da capo al fine': 'M:2/4\nL:1/4\nK:C\nCD|EF!fine!|GA|Bc!D.C.alfine!|]',
  'chords, sections and words':
    'M:4/4\nL:1/4\nK:C\nP:Verse\n"C"C D "F/A"E F|"G7"G2 z2|\nw:Down the ri-ver *\nP:Chorus\n"Am"A B c2|]\nw:stay a-while',
  'two verses': 'M:2/4\nL:1/4\nK:C\nC D|E F|]\nw:one two three four\nw:five six sev-en',
  'graces, ornaments and slurs': 'M:4/4\nL:1/8\nK:D\n{gf}e2 (fed) !trill!A2 .B|({c}d2 e) f (ga) b2|]',
  'notes under the melody': 'M:4/4\nL:1/4\nK:C\n[CEG] [DF]2 [E-c-]|[Ec] z2 c|]',
  'a second voice': 'M:3/4\nL:1/4\nV:1\nV:2\nK:G\nV:1\nG A B|c2 d|\nV:2\nG,3|C2 D|',
  'odd values and modes': 'M:7/8\nL:1/8\nK:Ador\nA5 B2|c3/2d/ e/4f/4g/2 a4|]',
}

describe('a tune written as ABC and read again', () => {
  for (const [name, body] of Object.entries(TEXTS)) {
    it(`is the same: ${name}`, () => {
      const tune = tuneOf(`X:1\nT:Test\n${body}\n`)
      expect(contentOf(again(tune))).toEqual(contentOf(tune))
    })
  }

  for (const tune of CORPUS) {
    it(`is the same: ${tune.title}`, () => expect(contentOf(again(tune))).toEqual(contentOf(tune)))
  }

  it('is the same for any tune', () => {
    fc.assert(
      fc.property(randomTune, (abc) => {
        const tune = tuneOf(abc)
        expect(contentOf(again(tune))).toEqual(contentOf(tune))
      }),
      { numRuns: 200 },
    )
  })

  it('keeps fields of the head that a tune does not hold', () => {
    const text = 'X:7\nT:Test\nR:reel\nN:slowly\nM:2/4\nL:1/4\nK:C\nC D|\n'
    expect(writeAbc(tuneOf(text), text)).toBe('X:1\nT:Test\nR:reel\nN:slowly\nM:2/4\nL:1/8\nK:C\nC2 D2 |\n')
  })

  it('parts a note where a chord begins inside it, and sounds the same', () => {
    const tune = tuneOf('X:1\nT:Test\nM:4/4\nL:1/4\nK:C\n"C"E4|\n')
    const { id, symbol, ...chord } = tune.chords[0]!
    const inside = { ...chord, id: `${id}x`, symbol: 'G', pos: { ...chord.pos, tick: 2 * QUARTER } }
    const read = again({ ...tune, chords: [...tune.chords, inside] })
    expect(read.chords.map((c) => `${c.pos.tick / QUARTER} ${c.symbol}`)).toEqual([`0 ${symbol}`, '2 G'])
    expect(melodyOf(read, timelineOf(read.measures)).map((n) => n.duration / QUARTER)).toEqual([4])
  })
})

describe('the written ABC sounds in abc2midi as the tune unfolds', () => {
  const played = (tune: TuneDoc) => {
    const timeline = timelineOf(tune.measures)
    const melody = melodyOf(tune, timeline)
    return unfold(tune.measures).order.flatMap((o) =>
      melody
        .filter((n) => n.measure === o.measure)
        .map((n) => ({
          onset: (o.startTick + n.start - timeline.starts[o.measure]!) / QUARTER,
          midi: midiOf(n.pitch),
        })),
    )
  }
  const rounded = (notes: readonly { onset: number; midi: number }[]) =>
    notes.map((n) => `${Math.round((n.onset - notes[0]!.onset) * 24)}:${n.midi}`)

  for (const tune of CORPUS) {
    it(tune.title, () => expect(rounded(heardByAbc2midi(writeAbc(tune)))).toEqual(rounded(played(tune))))
  }
})
