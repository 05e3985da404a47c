import { describe, expect, it } from 'vitest'
import { midiOf } from '../../../src/music/index.ts'
import { LIMITS, unfold, type TuneDoc } from '../../../src/document/index.ts'
import { writeAbc } from '../../../src/output/index.ts'
import { applyEdit } from '../../../src/edit/index.ts'
import { abcBlocks } from '../../../src/input/abc/abcBlocks.ts'
import { wordsOf } from '../../../src/input/abc/lyricLines.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'
import { rewritten, rewrittenAgain } from '../../../src/input/rewritten.ts'
import { readTuneDoc } from '../../../src/schema/index.ts'
import { tuneOf, tuneOfMusic } from '../../support/tunes.ts'
import { problemWords } from '../../support/words.ts'

const read = (text: string) => readAbc(text, () => 'tune')[0]!
const order = (tune: TuneDoc) => unfold(tune.measures).order.map((o) => o.measure + 1)
const pitches = (tune: TuneDoc, voice = 0) =>
  tune.events.filter((e) => e.voice === voice && e.pitch).map((e) => midiOf(e.pitch!))
const words = (tune: TuneDoc) =>
  tune.events.filter((e) => e.pitch).map((e) => [e.lyric ?? '', ...(e.moreLyrics ?? [])].join('/'))
const said = (text: string) => read(text).problems.map((p) => `${p.line}: ${problemWords(p).what}`)

describe('a repeat that begins after an inline field', () => {
  it.each(['[Q:1/4=90]', '[K:G]', '[M:3/4]', '[K:G][Q:1/4=90]', '[L:1/4]'])('%s is followed', (field) => {
    expect(order(tuneOfMusic(`C4|${field}|:CDEF|GABc:|`))).toEqual([1, 2, 3, 2, 3])
  })

  it('keeps the tempo at the measure that it stands before', () => {
    const tune = tuneOfMusic('C4|[Q:1/4=90]|:CDEF|GABc:|')
    expect(tune.tempos.map((t) => [t.pos.measure, t.bpm])).toEqual([
      ['m1', 100],
      ['m2', 90],
    ])
  })
})

describe('fields on lines of their own in mid-tune', () => {
  it('a metre holds from there on', () => {
    const tune = tuneOfMusic('CDEF|\nM:3/4\nGAB|cBA|')
    expect(tune.measures.map((m) => m.metre.num)).toEqual([4, 3, 3])
    expect(tune.measures.map((m) => m.length === m.nominal)).toEqual([true, true, true])
  })

  it('a tempo is that of the next measure, in whole beats or not', () => {
    const tune = tuneOfMusic('CDEF|\nQ:1/4=85.5\nGABc|')
    expect(tune.tempos.map((t) => [t.pos.measure, t.bpm])).toEqual([
      ['m1', 100],
      ['m2', 85.5],
    ])
  })

  it('a key between the lines of two voices holds for each from its own line on', () => {
    const tune = tuneOf(
      'X:1\nM:4/4\nL:1/4\nV:1\nV:2\nK:C\nV:1\nEEEE|\nV:2\nE4|\nV:1\n[K:Gm]EEEE|\nV:2\n[K:Gm]E4|\n',
    )
    expect([pitches(tune, 0), pitches(tune, 1)]).toEqual([
      [64, 64, 64, 64, 63, 63, 63, 63],
      [64, 63],
    ])
  })
})

describe('clefs, keys and voices', () => {
  it('an octave clef in mid-tune moves what follows', () => {
    expect(pitches(tuneOfMusic('C4|[K:clef=treble-8]C4|[K:clef=treble]C4|'))).toEqual([60, 48, 60])
    expect(pitches(tuneOfMusic('C4|\nK:C clef=treble-8\nC4|'))).toEqual([60, 48])
  })

  it('the bagpipe’s key has F and C sharp; explicit accidentals stand alone', () => {
    expect(pitches(tuneOfMusic('CDEF|G4|', 'L:1/4\nK:HP'))).toEqual([61, 62, 64, 66, 67])
    expect(pitches(tuneOfMusic('CDFB|', 'L:1/4\nK:D exp _b'))).toEqual([60, 62, 65, 70])
  })

  it('measures of a second voice beyond the first are kept, and said', () => {
    const text = 'X:1\nM:4/4\nL:1/4\nV:1\nV:2\nK:C\nV:1\nCDEF|\nV:2\nC4|D4|E4|\n'
    const { tune, problems } = read(text)
    expect(tune!.measures).toHaveLength(3)
    expect(pitches(tune!, 1)).toEqual([60, 62, 64])
    expect(problems.map((p) => problemWords(p).what)).toContain('voice 2 goes on after the melody')
    expect(readTuneDoc(tune)).toEqual(tune)
  })

  it('a grace note’s accidental holds for its main note', () => {
    expect(pitches(tuneOfMusic('{^f}f4|{f}^f2 f2|'))).toEqual([78, 78, 78])
  })
})

describe('what is beyond every limit is cut or left out, and said with its line', () => {
  const head = 'X:1\nT:t\nL:1/4\nK:C\n'
  const CASES: readonly (readonly [string, string, RegExp])[] = [
    ['a title of 301 letters', `X:1\nT:${'a'.repeat(301)}\nK:C\nC4|`, /the title has 301 letters/],
    ['a syllable of 501 letters', `${head}C4|\nw:${'a'.repeat(501)}\n`, /5: a syllable of 501 letters/],
    ['a note below every instrument', `${head}C,,,,,,,, C3|`, /5: a note that no instrument has/],
    ['a note above every instrument', `${head}C3 c''''''''|`, /5: a note that no instrument has/],
    ['a chord symbol of 80 letters', `${head}"${'C'.repeat(80)}"C4|`, /5: a chord symbol of 80 letters/],
    ['an ornament of 80 letters', `${head}!${'x'.repeat(80)}!C4|`, /5:.*ornament/],
    ['a name of a part of 300 letters', `${head}P:${'A'.repeat(300)}\nC4|`, /name of a part of 300 letters/],
    ['a note of a million beats', `${head}C1000000|`, /5: a note longer than 100 whole notes/],
    ['a rest of ten thousand measures', `${head}C4|Z10000|`, /5: a rest of 10000 measures/],
    ['a tempo of 9000', `${head}C4|[Q:1/4=9000]C4|`, /5: a tempo beyond/],
    ['an ending 99', `${head}|:C4|[99 D4:|`, /5: .*no number of an ending/],
    ['a unit of length that is none', 'X:1\nT:t\nL:1/0\nK:C\nC4|D4|', /3: "1\/0" is no unit of length/],
    ['forty verses', `${head}C4|\n${'w:la\n'.repeat(40)}`, /syllables without a note|verses/],
  ]
  it.each(CASES.slice(0, 12))('%s', (_, text, message) => {
    const { tune } = read(text)
    if (tune) expect(readTuneDoc(JSON.parse(JSON.stringify(tune)))).toEqual(tune)
    expect(said(text).some((s) => message.test(s))).toBe(true)
  })

  it('more verses than are kept are no reason to refuse a tune', () => {
    const { tune } = read(CASES[12]![1])
    expect(readTuneDoc(tune)).toEqual(tune)
  })

  it('Z200 is two hundred measures', () => {
    expect(tuneOfMusic('C4|Z200|D4|').measures).toHaveLength(202)
  })

  it('one tune that cannot be read does not take the others with it', () => {
    const book = ['L:/8', 'L:1/8', 'L:', 'M:0/0', 'K:']
      .map((field, i) => `X:${i + 1}\nT:Tune ${i + 1}\n${field}\nK:C\nCDEF GABc|\n`)
      .join('\n')
    const readings = readAbc(book, () => 'tune')
    expect(readings.map((r) => r.tune?.title)).toEqual([1, 2, 3, 4, 5].map((n) => `Tune ${n}`))
    for (const { tune } of readings) expect(tune!.events.filter((e) => e.pitch)).toHaveLength(8)
  })

  it('edits refuse it too, with the nearest that can be', () => {
    const tune = tuneOfMusic('C4|')
    const at = { measure: 'm1', tick: 0 }
    const long = 'la'.repeat(600)
    for (const edit of [
      { do: 'word', at, text: long },
      { do: 'chord', at, symbol: long },
      { do: 'section', measure: 0, name: long },
    ] as const) {
      const edited = applyEdit({ tune }, edit)
      expect(edited).toMatchObject({ ok: false, refusal: { reason: 'textLong' } })
      const offer = edited.ok ? undefined : edited.refusal.offer
      expect(offer && applyEdit({ tune }, offer).ok).toBe(true)
    }
  })
})

describe('blocks and directives', () => {
  const block = (kind: string, inside: string, end = `%%end${kind}\n`) =>
    `X:1\nT:t\nL:1/4\nK:C\nCDEF|\n%%begin${kind}\n${inside}${end}GABc|\n`

  it.each(['ps', 'svg', 'text', 'ml'])('of %s are taken out, with empty lines and all, and said', (kind) => {
    const { tune, problems } = read(block(kind, '/a { 1 add } def\n\nX:2\nT:none\nC4|\n'))
    expect(pitches(tune!)).toEqual([60, 62, 64, 65, 67, 69, 71, 72])
    expect(problems).toContainEqual({
      line: 6,
      column: 1,
      severity: 'note',
      says: { code: 'reading.block', values: { kind } },
    })
  })

  it('that never end are said, and end before the next field', () => {
    const { tune, problems } = read(block('ps', '/a { 1 } def\nK:G\n', ''))
    expect(pitches(tune!)).toEqual([60, 62, 64, 65, 67, 69, 71, 72])
    expect(problems).toContainEqual({
      line: 6,
      column: 1,
      severity: 'warning',
      says: { code: 'reading.openBlock', values: { kind: 'ps' } },
    })
  })

  it('in the head of a book hold for no tune', () => {
    const readings = readAbc(
      `%%beginps\n/X { } def\nX:9\n%%endps\n\nX:1\nK:C\nC4|\n\nX:2\nK:C\nD4|\n`,
      () => 'tune',
    )
    expect(readings.map((r) => pitches(r.tune!))).toEqual([[60], [62]])
  })

  it('are found by their lines', () => {
    expect(abcBlocks(['a', '%%beginps', 'x', '%%endps', '%% begintext', 'y'])).toEqual([
      { kind: 'ps', from: 1, to: 3, closed: true },
      { kind: 'text', from: 4, to: 5, closed: false },
    ])
  })

  it('instructions and directives about the look change no note', () => {
    const { tune } = read(
      'X:1\nL:1/4\nI:linebreak $\n%%scale 0.7\nK:C\n%%MIDI program 1\nCD[I:x]EF|\nI:abc-charset utf-8\nGABc|\n',
    )
    expect(pitches(tune!)).toEqual([60, 62, 64, 65, 67, 69, 71, 72])
  })

  it('an empty line does not end a tune; prose behind one is left out and said', () => {
    const { tune, problems } = read('X:1\nL:1/4\nK:C\n\nCDEF|\n\nGABc|\n\nPlayed by Wren at the ferry.\n')
    expect(pitches(tune!)).toHaveLength(8)
    expect(problems).toContainEqual(
      expect.objectContaining({ line: 9, says: { code: 'reading.prose', values: {} } }),
    )
  })
})

describe('words under the notes', () => {
  it('skip rests, hold, wait for the next measure, and go on over lines', () => {
    const tune = tuneOfMusic(
      'z C D E|F G A B|c d e f|\nw: one two- three | four * five _ | six\\-seven~eight',
    )
    expect(words(tune)).toEqual([
      'one',
      'two-',
      'three',
      'four',
      '',
      'five',
      '',
      'six-seven eight',
      '',
      '',
      '',
    ])
  })

  it('come verse by verse, each with its own gaps', () => {
    const tune = tuneOfMusic('z C D E|\nw: la lo\nw: * li lu')
    expect(words(tune)).toEqual(['la', 'lo/li', '/lu'])
  })

  it('without a note are said with their line', () => {
    expect(said('X:1\nL:1/4\nK:C\nC D|\nw: one two three four\n')).toContain('5: 2 syllables without a note')
  })

  it('read as they are written (ABC 2.1, section 5.1)', () => {
    expect(wordsOf('a-b --c* _|')).toEqual([
      { kind: 'syllable', text: 'a', goesOn: true },
      { kind: 'syllable', text: 'b', goesOn: true },
      { kind: 'skip' },
      { kind: 'syllable', text: 'c', goesOn: false },
      { kind: 'skip' },
      { kind: 'skip' },
      { kind: 'bar' },
    ])
  })
})

describe('a text that was made ready for the parser', () => {
  it('knows where everything stood, through several rewritings', () => {
    const first = rewritten('abcdef', [
      { from: 1, to: 3, text: 'X' },
      { from: 5, to: 5, text: '123' },
    ])
    expect(first.text).toBe('aXde123f')
    expect([...first.text].map((_, i) => first.toSource(i))).toEqual([0, 1, 3, 4, 5, 5, 5, 5])
    const second = rewrittenAgain(first, [{ from: 0, to: 1, text: '--' }])
    expect(second.text).toBe('--Xde123f')
    expect(second.toSource(second.text.indexOf('d'))).toBe(3)
  })

  it('puts every span where its note stands in the source', () => {
    const text = 'X:1\nL:/4\n%%beginps\nx\n%%endps\nK:C\n"C"[Q:1/4=90]C D [I:x]E F|\n'
    const tune = read(text).tune!
    const spans = tune.abc!.spans.map((s) =>
      text
        .slice(s.from, s.to)
        .replace(/"C"|\[[^\]]*\]/g, '')
        .trim(),
    )
    expect(spans).toEqual(['C', 'D', 'E', 'F'])
  })
})

it('an ending that is written twice in turn is read twice', () => {
  const tune = tuneOfMusic('|:CDEF|1 G4:|1 A4:|2 B4|]')
  const again = tuneOf(writeAbc(tune))
  expect(again.measures.map((m) => m.endings)).toEqual(tune.measures.map((m) => m.endings))
  expect(LIMITS.passes).toBeGreaterThan(2)
})
