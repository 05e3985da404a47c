import { describe, expect, it } from 'vitest'
import { melodyOf, sungIn, timelineOf } from '../../../src/document/index.ts'
import { decodeSource } from '../../../src/input/index.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'
import { readTuneDoc } from '../../../src/schema/index.ts'
import { problemWords, say } from '../../support/words.ts'

const read = (text: string) => readAbc(text, () => 'tune')
const bytes = (text: string) => new TextEncoder().encode(text)

describe('bad ABC: what, where, and what was understood', () => {
  it('says that an empty text is empty', () => {
    expect(read('')[0]!.tune).toBeUndefined()
    expect(problemWords(read(' \n ')[0]!.problems[0]!).what).toContain('empty')
  })

  it('refuses prose instead of reading letters as notes', () => {
    const [r] = read('Dear Bea,\nthe cafe feedback was good.')
    expect(r!.tune).toBeUndefined()
    expect(problemWords(r!.problems[0]!).what).toContain('does not look like')
  })

  it('says that a tune has no notes', () => {
    const [r] = read('X:1\nT:Nothing\nK:C\n|]')
    expect(r!.tune).toBeUndefined()
    expect(r!.problems.some((p) => problemWords(p).what.includes('no notes'))).toBe(true)
  })

  it('takes further lines of words under rests for further verses', () => {
    const text =
      'X:1\nT:Two verses\nM:4/4\nL:1/4\nK:C\n"C"z4|"G"z4|\nw: first of all we sing\nw: then we sing again\n"F"z4|"C"z4|]\nw: to the end\n'
    const tune = read(text)[0]!.tune!
    expect(tune.song!.lines.map((l) => l.text)).toEqual([
      'first of all we sing',
      'to the end',
      'then we sing again',
    ])
    expect(sungIn(tune)[0]!.verses).toHaveLength(2)
  })

  it('takes a page of rests for one that is still to be written', () => {
    const [r] = read('X:1\nT:Nothing yet\nM:4/4\nL:1/8\nK:C\nz8|z8|]')
    expect(r!.tune!.measures).toHaveLength(2)
    expect(r!.tune!.chords).toEqual([])
    expect(r!.problems.map((p) => problemWords(p).what)).toContain('nothing but rests yet')
  })

  it('names line and column of a foreign character and reads the rest', () => {
    const [r] = read('X:1\nM:4/4\nL:1/4\nK:C\nCDEF|\nGA@B c|')
    const p = r!.problems.find((x) => problemWords(x).what.includes('@'))!
    expect([p.line, p.column]).toEqual([6, 3])
    expect(problemWords(p)).toEqual({
      what: '"@" means nothing here',
      taken: 'left out; the notes around it were read',
    })
    expect(r!.tune!.events.filter((e) => e.pitch)).toHaveLength(8)
  })

  it('keeps line numbers right in the second tune of a file', () => {
    const readings = read('X:1\nT:One\nK:C\nC4|\n\nX:2\nT:Two\nK:C\nD@D|')
    expect(readings.map((r) => r.tune?.title)).toEqual(['One', 'Two'])
    expect(readings[1]!.problems.find((p) => problemWords(p).what.includes('@'))!.line).toBe(9)
  })

  it.each(['5/0', '0/4', '4/3', 'banana'])('reads an impossible metre %s in 4/4 and says so', (metre) => {
    const [r] = read(`X:1\nM:${metre}\nL:1/4\nK:C\nCDEF|`)
    expect(r!.problems.some((p) => p.line === 2 && problemWords(p).what.includes('impossible metre'))).toBe(
      true,
    )
    expect(r!.tune!.measures[0]!.metre).toMatchObject({ num: 4, den: 4 })
  })

  it('says that tuplets do not nest and goes on', () => {
    const [r] = read('X:1\nM:4/4\nL:1/8\nK:C\n(3(3abc d2 e2|')
    expect(r!.problems.some((p) => problemWords(p).what.includes('tuplet starts inside another'))).toBe(true)
    expect(r!.tune).toBeDefined()
  })

  it('keeps an unknown chord symbol, shows it and assumes no chord', () => {
    const [r] = read('X:1\nM:4/4\nL:1/4\nK:C\n"Hwat"CDEF|"C"G4|')
    expect(r!.tune!.chords.map((c) => [c.symbol, c.parsed !== undefined])).toEqual([
      ['Hwat', false],
      ['C', true],
    ])
    expect(r!.problems.some((p) => problemWords(p).what.includes('Hwat'))).toBe(true)
  })

  it('warns of an overfull measure and keeps it as written', () => {
    const [r] = read('X:1\nM:3/4\nL:1/4\nK:C\n"C"CDE|CDEF|G3|')
    expect(problemWords(r!.problems.find((p) => p.severity === 'warning')!).what).toBe(
      'measure 2 has 4 of 3 quarter notes',
    )
    expect(r!.tune!.measures[1]!.length).toBe(4 * 10080)
  })

  it.each([
    ['|:CDEF|1 GABc:|cdec|', [0, 1, 0, 2]],
    ['|:CDEF|1 GABc:|2 cBAG:|3 c4|', [0, 1, 0, 2, 0, 3]],
    ['|:CDEF|[x GABc:|c4|', undefined],
  ])('plays %s as its endings say', async (music, order) => {
    const { unfold } = await import('../../../src/document/index.ts')
    const tune = read(`X:1\nM:4/4\nL:1/4\nK:C\n${music}`)[0]!.tune!
    const played = unfold(tune.measures).order.map((o) => o.measure)
    if (order) expect(played).toEqual(order)
    else expect(played.length).toBeGreaterThanOrEqual(3)
  })

  it('marks suggested harmony as suggested', () => {
    const [r] = read('X:1\nM:4/4\nL:1/4\nK:G\nGABc|d2B2|c2A2|G4|]')
    expect(r!.tune!.chords.length).toBeGreaterThan(0)
    expect(r!.tune!.chords.every((c) => c.origin === 'suggested')).toBe(true)
    expect(r!.problems.some((p) => problemWords(p).taken.includes('suggested'))).toBe(true)
    expect(r!.tune!.chords.at(-1)!.symbol).toBe('G')
  })

  it('says nothing of notes that have no sign of their own: they are read whole', () => {
    const [r] = read('X:1\nM:4/4\nL:1/8\nQ:1/4=80\nK:C\n"C"E5 CDE|"G7"D5/2E/ D5|"C"C8|]')
    expect(r!.problems).toEqual([])
    const melody = melodyOf(r!.tune!, timelineOf(r!.tune!.measures))
    const eighth = melody[1]!.duration
    expect(melody.map((n) => n.duration / eighth)).toEqual([5, 1, 1, 1, 2.5, 0.5, 5, 8])
  })

  it('says which tempo stands in for a missing one', () => {
    const [r] = read('X:1\nM:4/4\nL:1/4\nK:C\nCDEF|')
    expect(r!.tune!.tempos).toEqual([{ pos: { measure: 'm1', tick: 0 }, bpm: 100, stated: false }])
    expect(r!.problems.some((p) => problemWords(p).taken.includes('100'))).toBe(true)
  })

  it('keeps grace notes, ornaments, lower chord notes and other voices, and reports them', () => {
    const [r] = read('X:1\nM:4/4\nL:1/4\nK:C\nV:1\n{g}C ~D [EG] F|\nV:2\nC,4|')
    const events = r!.tune!.events
    expect(events[0]!.graces).toHaveLength(1)
    expect(events[1]!.ornaments).toHaveLength(1)
    expect(events[2]!.chordTones).toHaveLength(1)
    expect(events[2]!.pitch!.step).toBe('G')
    expect(events.filter((e) => e.voice === 1)).toHaveLength(1)
    const notes = r!.problems.filter((p) => p.severity === 'note')
    expect(notes.filter((p) => problemWords(p).taken.includes('not arranged yet'))).toHaveLength(2)
    expect(notes.filter((p) => problemWords(p).taken.includes('played where the hand can'))).toHaveLength(2)
  })

  it('reads a chord symbol that stands before an inline key or metre', () => {
    const [r] = read('X:1\nM:4/4\nL:1/4\nK:C\n"C"CDEF|"G"[K:G][M:3/4] GAB|')
    expect(r!.tune!.measures.map((m) => m.length / 10080)).toEqual([4, 3])
    expect(r!.tune!.measures[1]!.key.fifths).toBe(1)
    expect(r!.tune!.chords.map((c) => c.symbol)).toEqual(['C', 'G'])
  })

  it('an octave clef sounds an octave lower', () => {
    const pitches = (clef: string) =>
      read(`X:1\nM:4/4\nL:1/4\nK:C${clef}\nCDEF|`)[0]!.tune!.events.map((e) => e.pitch!.octave)
    expect(pitches(' clef=treble-8')).toEqual(pitches('').map((o) => o - 1))
  })

  it('counts a pickup as measure 0 and shares the number of a measure split by a repeat', async () => {
    const { measureNumbers } = await import('../../../src/document/index.ts')
    const tune = read('X:1\nM:4/4\nL:1/4\nK:C\nG|:CDEF|GAB:|:c|cBAG|E3:|')[0]!.tune!
    expect(measureNumbers(tune.measures)).toEqual([0, 1, 2, 2, 3, 4])
  })

  it('whatever is read passes the document schema', () => {
    for (const text of ['X:1\nM:4/4\nL:1/4\nK:C\nCDEF|(3GAB c2 z|', 'X:1\nM:C|\nK:Am\n"Am"A8|"E7"^G4-G4|]']) {
      const tune = read(text)[0]!.tune!
      expect(readTuneDoc(JSON.parse(JSON.stringify(tune)))).toEqual(tune)
    }
  })
})

describe('bytes of a file', () => {
  it('refuses what is empty, binary or too large, with the way out', () => {
    const refusal = (content: Uint8Array) => {
      const source = decodeSource(content)
      return source.ok ? '' : say(source.says)
    }
    expect(refusal(new Uint8Array())).toContain('empty')
    expect(refusal(new Uint8Array([0x89, 0x50, 0, 0, 1]))).toContain('not a text file')
    expect(refusal(new Uint8Array(10_000_000).fill(65))).toContain('10.0 MB; at most 2 MB')
  })

  it('reads Latin-1 and says so', () => {
    const latin = Uint8Array.from('T:Caf\u00e9', (c) => c.charCodeAt(0))
    expect(decodeSource(latin)).toMatchObject({
      ok: true,
      text: 'T:Café',
      note: { code: 'files.otherEncoding' },
    })
    expect(decodeSource(bytes('T:Café'))).toEqual({ ok: true, text: 'T:Café' })
  })

  it('reads mixed line ends as one tune', () => {
    const source = decodeSource(bytes('X:1\r\nM:4/4\rL:1/4\nK:C\r\nCDEF|\r\n'))
    expect(source.ok && read(source.text)[0]!.tune!.events).toHaveLength(4)
  })
})
