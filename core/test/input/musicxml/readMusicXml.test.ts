import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { ticksAt, timelineOf, unfold } from '@velvet-porch/core/document'
import { readingMusicXml, scoreInMxl } from '@velvet-porch/core/input/musicxml'
import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import { midiOf } from '@velvet-porch/core/music'
import { writeMusicXml } from '@velvet-porch/core/output/musicxml'
import { finish } from '@velvet-porch/core/turns'
import { corpus } from '../../support/corpus.ts'
import { CORPUS } from '../../support/tunes.ts'

const SUITE = unzipSync(corpus('musicxml-suite.zip'))
const EXPECTED = JSON.parse(corpus('musicxml-suite.json').toString()) as Record<string, readonly string[]>

const readAll = (text: string, melody?: string) =>
  finish(
    readingMusicXml(text, {
      newId: () => 'x',
      player: DEFAULT_PLAYER,
      title: 'New',
      ...(melody === undefined ? {} : { melody }),
    }),
  )
const read = (text: string, melody?: string) => readAll(text, melody)[0]!
const suite = (start: string) => {
  const name = Object.keys(SUITE).find((n) => n.startsWith(start))!
  return read(strFromU8(SUITE[name]!)).tune!
}

/** A score of one part with some measures of content. */
const score = (...measures: string[]) =>
  `<?xml version="1.0"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>Fiddle</part-name></score-part></part-list><part id="P1">${measures
    .map((m, i) => `<measure number="${i + 1}">${m}</measure>`)
    .join('')}</part></score-partwise>`
const note = (step: string, duration: number, more = '') =>
  `<note><pitch><step>${step}</step><octave>4</octave></pitch><duration>${duration}</duration>${more}</note>`
const FOUR =
  '<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>'

describe('a score in MusicXML', () => {
  it.each(Object.keys(EXPECTED))(
    '%s has every note that another library finds in it, and no other',
    (name) => {
      const bytes = name.endsWith('.mxl') ? scoreInMxl(SUITE[name]!) : SUITE[name]!
      const { tune } = read(strFromU8(bytes))
      const timeline = timelineOf(tune?.measures ?? [])
      const heard = (tune?.events ?? []).flatMap((e) =>
        e.pitch ? [e.pitch, ...e.chordTones].map((p) => `${ticksAt(timeline, e.pos)} ${midiOf(p)}`) : [],
      )
      expect(heard.sort()).toEqual(EXPECTED[name])
    },
  )

  it('says its form: repeats, endings, how often', () => {
    const order = (start: string) => unfold(suite(start).measures).order.map((o) => o.measure)
    // As the descriptions inside the files say.
    expect(order('45a')).toEqual([0, 0, 0, 0, 0, 1])
    expect(order('45b')).toEqual([0, 1, 0, 2, 3])
  })

  it('keeps words, verse by verse and syllable by syllable', () => {
    const words = suite('61a').events.map((e) => e.lyric ?? '')
    expect(words.slice(0, 4)).toEqual(['Tra-', 'la-', 'li', 'Ja!'])
    expect(suite('61b').events[0]!.moreLyrics).toEqual(['2.tra-', '3.TRA-'])
  })

  it('reads chords of every kind that it names', () => {
    const chords = suite('71f').chords
    expect(chords.length).toBeGreaterThan(20)
    const symbols = chords.map((c) => c.symbol)
    expect(symbols.slice(0, 7)).toEqual(['C', 'Cm', 'Caug', 'Cdim', 'C7', 'Cmaj7', 'Cm7'])
  })

  it('has every place of its tabs, a tune for each part with one', () => {
    const text = strFromU8(SUITE[Object.keys(SUITE).find((n) => n.startsWith('71e'))!]!)
    const parts = text.split('<part id').slice(1)
    const tabs = readAll(text)
    expect(tabs).toHaveLength(parts.length)
    tabs.forEach(({ arrangement }, i) => {
      // One part is for an instrument with other strings than any here.
      if (!arrangement) return
      const written = [...parts[i]!.matchAll(/<string>(\d+)<\/string>\s*<fret>(\d+)<\/fret>/g)]
      // The necks here have 20 frets.
      const expected = written.filter((m) => Number(m[2]) <= 20).map((m) => `${m[1]}:${m[2]}`)
      const placed = arrangement.base.notes.map((n) => `${n.place.string}:${n.place.fret}`)
      // Some chords of the later parts have a string twice.
      if (i === 0) expect(placed.sort()).toEqual(expected.sort())
      expect(new Set(placed)).toEqual(new Set(expected.filter((p) => i === 0 || placed.includes(p))))
      expect(placed.length).toBeGreaterThan(0.6 * expected.length)
    })
    expect(tabs.filter((t) => t.arrangement).length).toBeGreaterThan(1)
  })

  it('offers its voices, and takes the one that is asked for', () => {
    const two = score(
      FOUR +
        note('C', 4, '<voice>1</voice>') +
        '<backup><duration>4</duration></backup>' +
        note('E', 4, '<voice>2</voice>'),
    )
    const first = read(two)
    expect(first.voices!.offered.map((v) => v.name)).toEqual(['Fiddle, 1', 'Fiddle, 2'])
    const other = first.voices!.offered.find((v) => v.id !== first.voices!.melody)!
    const melodyOf = (r: typeof first) => r.tune!.events.find((e) => e.voice === 0 && e.pitch)!.pitch!.step
    expect(melodyOf(first)).toBe('E')
    expect(melodyOf(read(two, other.id))).toBe('C')
  })

  it('counts frets from the capo also where a file counts them from the nut', () => {
    const fretted = (fret: number) =>
      note('B', 4, `<notations><technical><string>2</string><fret>${fret}</fret></technical></notations>`)
    const details =
      '<staff-details><staff-lines>6</staff-lines>' +
      ['E2', 'A2', 'D3', 'G3', 'B3', 'E4']
        .map(
          (o, i) =>
            `<staff-tuning line="${i + 1}"><tuning-step>${o[0]}</tuning-step><tuning-octave>${o[1]}</tuning-octave></staff-tuning>`,
        )
        .join('') +
      '<capo>2</capo></staff-details>'
    const head = FOUR.replace('</attributes>', `${details}</attributes>`)
    for (const fret of [10, 12]) {
      const { arrangement } = read(score(head + fretted(fret)))
      expect(arrangement!.base.notes[0]!.place).toEqual({ string: 2, fret: 10 })
      expect(arrangement!.setup.capo[0]).toBe(2)
    }
  })

  it('sounds as it is written for an instrument in B flat', () => {
    const transposed = FOUR.replace(
      '</attributes>',
      '<key><fifths>2</fifths></key><transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose></attributes>',
    ).replace(/(<time>.*<\/time>)(<key>.*<\/key>)/, '$2$1')
    const { tune } = read(
      score(
        `${transposed}<harmony><root><root-step>D</root-step></root><kind>major</kind></harmony>${note('D', 4)}`,
      ),
    )
    expect(midiOf(tune!.events[0]!.pitch!)).toBe(60)
    expect(tune!.measures[0]!.key.fifths).toBe(0)
    expect(tune!.chords[0]!.symbol).toBe('C')
  })
})

describe('what is no score', () => {
  const whole = writeMusicXml({ tune: CORPUS[0]! })
  const codes = (text: string) => read(text).problems.map((p) => p.says.code)

  it('is refused in words, wherever a file is cut', () => {
    for (let cut = 0; cut < whole.length - 20; cut += 997) {
      const { tune, problems } = read(whole.slice(0, cut))
      expect(tune).toBeUndefined()
      expect(problems[0]!.severity).toBe('error')
    }
  })

  it('may not define entities, lie deep, or be another document', () => {
    const bomb = whole.replace(
      /<!DOCTYPE[^>]*>/,
      '<!DOCTYPE score-partwise [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]>',
    )
    expect(codes(bomb)).toEqual(['reading.xmlEntities'])
    expect(codes(`<score-partwise>${'<a>'.repeat(100)}`)).toEqual(['reading.xmlTooDeep'])
    expect(codes('<html><body/></html>')).toEqual(['reading.notMusicXml'])
    expect(codes('<score-partwise version="4.0"></score-partwise>')).toEqual(['reading.noNotes'])
  })

  it('is read as far as it makes sense: lengths, voices, keys and metres beyond all bounds', () => {
    const odd = score(
      '<attributes><divisions>0</divisions><key><fifths>99</fifths><mode>odd</mode></key><time><beats>0</beats><beat-type>3</beat-type></time></attributes>' +
        note('C', -4) +
        note('H', 4) +
        '<backup><duration>99999</duration></backup>' +
        note('C', 4) +
        '<note><chord/><pitch><step>E</step><octave>99</octave></pitch><duration>4</duration></note>',
      '',
    )
    const { tune } = read(odd)
    expect(tune!.events.filter((e) => e.pitch)).toHaveLength(1)
    expect(tune!.measures[0]!.metre).toEqual({ num: 4, den: 4 })
  })

  it('is a packed file that is damaged, empty, or would grow beyond what is read', () => {
    const packed = zipSync({
      'META-INF/container.xml': strToU8(
        '<container><rootfiles><rootfile full-path="a.xml"/></rootfiles></container>',
      ),
      'a.xml': strToU8(whole),
    })
    expect(strFromU8(scoreInMxl(packed))).toBe(whole)
    expect(() => scoreInMxl(packed.slice(0, 60))).toThrow('reading.badMxl')
    expect(() => scoreInMxl(zipSync({ 'readme.txt': strToU8('no') }))).toThrow('reading.emptyMxl')
    const bomb = zipSync({ 'a.xml': new Uint8Array(60_000_000) })
    expect(bomb.length).toBeLessThan(100_000)
    expect(() => scoreInMxl(bomb)).toThrow('reading.mxlTooLarge')
  })
})
