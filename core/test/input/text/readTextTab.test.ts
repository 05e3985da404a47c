import { describe, expect, it } from 'vitest'
import { WHOLE } from '../../../src/music/index.ts'
import {
  DEFAULT_PLAYER,
  guitarSetup,
  setupOf,
  tuningById,
  type Setup,
} from '../../../src/instrument/index.ts'
import {
  inputHash,
  ticksAt,
  timelineOf,
  type Layer,
  type Style,
  type TuneDoc,
} from '../../../src/document/index.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { textTab } from '../../../src/output/index.ts'
import { readTextTab, scoreOfTab } from '../../../src/input/index.ts'
import { finish } from '../../../src/turns.ts'
import { scoreFaults } from '../../edit/scoreFaults.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'
import { problemWords, refusalWords } from '../../support/words.ts'

const taken = (text: string) => scoreOfTab(readTextTab(text), 'tune', DEFAULT_PLAYER, 'New tune')

/** What stands on the strings of a score, in time. */
function placesOf(tune: TuneDoc, layer: Layer): string[] {
  const timeline = timelineOf(tune.measures)
  return layer.notes
    .map((n) => {
      const { string, fret, harmonic, artificial } = n.place
      const at = ticksAt(timeline, n.pos)
      const graces = (n.graces ?? []).map((g) => `${g.place.fret}${g.attack}`).join()
      const how = n.attack === 'tremolo' || n.attack === 'brush' ? 'pluck' : n.attack
      return {
        at,
        string,
        text: `${at} ${string}:${n.attack === 'muted' ? 'x' : fret} ${harmonic ? 'harm' : ''}${artificial ? 'art' : ''} ${how} ${n.bend ?? ''} ${n.optional} ${graces} ${n.left} ${n.right} ${n.vibrato ?? ''} ${n.place.offsetCents ?? ''}`,
      }
    })
    .sort((a, b) => a.at - b.at || a.string - b.string)
    .map((n) => n.text)
}

function printed(tune: TuneDoc, setup: Setup, style: Style, level: 2 | 3 | 5) {
  const { layer, plan } = finish(arranging(tune, setup, wholeTune(tune, style, level)))
  const { timeline, harmony } = plan
  return { layer, text: textTab({ tune, timeline, setup, layer, harmony }) }
}

/** A tune's measures are as long as their metre: text tab says nothing of others. */
const isPlain = (tune: TuneDoc) => tune.measures.every((m) => m.metre.num === 4 && m.metre.den === 4)

describe('text tab, printed and read back', () => {
  const styles: readonly Style[] = [
    'melody-bass',
    'alternating-bass',
    'chord-melody',
    'cross-string',
    'arpeggio',
    'double-stops',
    'strum',
  ]
  const setups: readonly Setup[] = [
    guitarSetup(),
    guitarSetup(3),
    setupOf('guitar', tuningById('guitar', 'dadgad'), { fret: 2 }),
  ]
  it.each(CORPUS.map((tune, i) => ({ tune, i, title: tune.title })))(
    '$title has the same places, onsets, signs and fingers of both hands',
    ({ tune, i }) => {
      const setup = setups[i % setups.length]!
      const { layer, text } = printed(tune, setup, styles[i % styles.length]!, i % 2 === 0 ? 3 : 5)
      const read = readTextTab(text, tune.measures[Math.min(1, tune.measures.length - 1)]!.metre)
      expect(read.problems.filter((p) => p.severity !== 'note')).toEqual([])
      const score = taken(text)
      expect(read.measures).toHaveLength(tune.measures.length)
      expect(score.arrangement!.setup.tuning).toEqual(setup.tuning)
      expect(score.arrangement!.setup.capo).toEqual(setup.capo)
      if (!isPlain(tune) || read.measures.some((m) => m.guessed)) return
      expect(placesOf(score.tune, score.arrangement!.base)).toEqual(placesOf(tune, layer))
    },
  )

  it('a mandolin is known by its four strings', () => {
    const tune = tuneOfMusic('"G"G2B2d2B2|"C"c2e2g2e2|"D"d2f2a2f2|"G"g8|]')
    const { layer, text } = printed(tune, setupOf('mandolin'), 'flatpicked-lead', 2)
    const score = taken(text)
    expect(score.arrangement!.setup.instrument.kind).toBe('mandolin')
    expect(placesOf(score.tune, score.arrangement!.base)).toEqual(placesOf(tune, layer))
  })
})

/** Layouts as they are found pasted (common practice, no source). */
const PLAIN = `My evening tune
Capo 2

e|-----0---|-3-------|
B|---1---1-|-----0---|
G|-0-------|---0---0-|
D|---------|---------|
A|-3-------|---------|
E|---------|-3-------|
`

describe('pasted tab', () => {
  it('is a whole score: places, fingers, a tune, all locked as typed', () => {
    const score = taken(PLAIN)
    expect(scoreFaults(score)).toEqual([])
    const { tune, arrangement } = score
    expect(tune.title).toBe('My evening tune')
    expect(arrangement!.setup.capo[0]).toBe(2)
    expect(arrangement!.base.notes.map((n) => `${n.place.string}.${n.place.fret}`)).toEqual([
      '5.3',
      '3.0',
      '2.1',
      '1.0',
      '2.1',
      '6.3',
      '1.3',
      '3.0',
      '2.0',
      '3.0',
    ])
    expect(tune.measures.every((m) => m.provenance === 'guessed')).toBe(true)
    const locked = new Set(arrangement!.base.locks.map((l) => l.target))
    expect(arrangement!.base.notes.every((n) => locked.has(n.id))).toBe(true)
    expect(inputHash(tune, arrangement!.setup, arrangement!.regions, arrangement!.base.locks)).toBe(
      arrangement!.inputHash,
    )
    // Arranged again, every typed note stays where it was.
    const again = finish(
      arranging(tune, arrangement!.setup, arrangement!.regions, { locks: arrangement!.base.locks }),
    )
    const place = (l: Layer) =>
      l.notes
        .map((n) => `${n.id} ${n.place.string}.${n.place.fret}`)
        .filter((x) => locked.has(x.split(' ')[0]!))
    expect(place(again.layer).sort()).toEqual(place(arrangement!.base).sort())
  })

  it('takes even spacing for even quarters', () => {
    const [first] = readTextTab(PLAIN).measures
    expect([...new Set(first!.signs.map((s) => s.tick))].sort((a, b) => a - b)).toEqual([
      0,
      WHOLE / 4,
      WHOLE / 2,
      (3 * WHOLE) / 4,
    ])
  })

  it('is read from a word processor: long dashes, curly quotes, tabulators, spaces that do not break', () => {
    const typed = PLAIN.replace(/-/g, '–')
      .replace('My evening', 'My\u00a0“evening”')
      .replace('\n\n', '\n\t\n')
    const plain = taken(PLAIN).arrangement!.base.notes
    expect(taken(typed).arrangement!.base.notes.map((n) => n.place)).toEqual(plain.map((n) => n.place))
  })

  it('is read without names, with colons for repeats, with text between the systems', () => {
    const text =
      '|:-0-2-3-5-:|\n|--0---0---|\n|---------|\n'.slice(0, 0) +
      [
        '||:-0--2--3--5-:||',
        '||:-------------||',
        '||*-0-----0----*||',
        '||*------------*||',
        '||:-3-----------||',
        '||:-------------||',
      ].join('\n') +
      '\n\nand then slower:\n\n' +
      ['|-7-5-3-2-|', '|---------|', '|-0-------|', '|---------|', '|---------|', '|-3-------|'].join('\n')
    const read = readTextTab(text)
    expect(read.measures).toHaveLength(2)
    expect(read.measures[0]).toMatchObject({ repeatStart: true, repeatEnd: true })
    expect(read.names).toBeUndefined()
  })

  it('reads the signs between and around the frets', () => {
    const rows = [
      'e|-5h7-7p5-5/7-7\\5-x-(3)-<12>-7~-|',
      ...['B', 'G', 'D', 'A', 'E'].map((n) => `${n}|${'-'.repeat(31)}|`),
    ]
    const [m] = readTextTab(rows.join('\n')).measures
    expect(
      m!.signs.map((s) =>
        [
          s.fret ?? 'x',
          s.lead ?? '',
          s.muted ? 'muted' : s.optional ? 'optional' : s.harmonic ? 'harmonic' : s.vibrato ? 'vibrato' : '',
        ]
          .join(' ')
          .trim(),
      ),
    ).toEqual([
      '5',
      '7 hammer',
      '7',
      '5 pull',
      '5',
      '7 slide',
      '7',
      '5 slide',
      'x  muted',
      '3  optional',
      '12  harmonic',
      '7  vibrato',
    ])
  })

  it('takes the rhythm from the letters over the strings', () => {
    const rows = [
      '   q.  e  h   ',
      'e|-0---1--3---|',
      'B|------------|',
      'G|------------|',
      'D|------------|',
      'A|------------|',
      'E|-3----------|',
    ]
    const [m] = readTextTab(rows.join('\n')).measures
    expect(m).toMatchObject({ guessed: false, length: WHOLE })
    expect([...new Set(m!.signs.map((s) => s.tick))]).toEqual([0, (3 * WHOLE) / 8, WHOLE / 2])
  })

  it('says what it could not take, and where', () => {
    const rows = ['e|-0-?-3-|', 'B|-------|', 'G|-------|', 'D|-------|', 'A|-------|', 'E|-3-----|']
    const { problems } = readTextTab(rows.join('\n'))
    expect(problems.find((p) => problemWords(p).what.startsWith('"?"'))).toMatchObject({
      line: 1,
      column: 6,
      severity: 'warning',
    })
  })

  it('refuses what holds no frets, or too many strings', () => {
    expect(refusalWords(() => taken('e|----|\nB|----|\nG|----|\nD|----|\nA|----|\nE|----|'))).toContain(
      'no frets',
    )
    expect(refusalWords(() => taken(Array.from({ length: 5 }, () => '|-0--2--3-|').join('\n')))).toContain(
      '5 lines',
    )
    expect(readTextTab('nothing of the kind').measures).toEqual([])
  })
})

describe('text tab in which something is wrong', () => {
  const rows = (first: string, fill = '-'.repeat(first.length - 2)) =>
    [first, ...['B', 'G', 'D', 'A', 'E'].map((n) => `${n}|${fill}`)].join('\n')

  it.each(['0/4', '0/0', '4/0', '3/7', '99/4'])(
    'a metre of %s is refused with a word, and 4/4 stands',
    (metre) => {
      const read = readTextTab(`Time ${metre}\n\n${rows('e|-0--1--3--5-|')}`)
      expect(read.metre).toEqual({ num: 4, den: 4 })
      expect(read.problems.map((p) => problemWords(p).what)).toContain(`"${metre}" is an impossible metre`)
    },
  )

  it('digits beyond every neck are two frets, and said to be', () => {
    const read = readTextTab(rows('e|---64---0---|'))
    expect(read.measures[0]!.signs.map((s) => s.fret)).toEqual([6, 4, 0])
    expect(read.problems.map(problemWords)).toContainEqual({
      what: 'no neck has a fret 64',
      taken: 'read as 6 and then 4',
    })
  })

  it('a fret on a bar line of the other strings is read', () => {
    const text = [
      'e|-0-1-3-5-',
      'B|-1---|----',
      'G|-----|----',
      'D|-----|----',
      'A|-3---|----',
      'E|-----|----',
    ].join('\n')
    const frets = readTextTab(text).measures.flatMap((m) => m.signs.map((s) => s.fret))
    expect(frets.sort()).toEqual([0, 1, 1, 3, 3, 5])
  })

  it('a line that stands askew loses nothing', () => {
    const text = [
      '  e|--0--1--|',
      '5--3----|',
      '  G|--------|',
      '  D|--------|',
      '  A|--3-----|',
      '  E|--------|',
    ].join('\n')
    const frets = readTextTab(text).measures.flatMap((m) => m.signs.map((s) => s.fret))
    expect(frets.sort()).toEqual([0, 1, 3, 3, 5])
  })

  it('places that the neck behind a capo does not have are said with their line', () => {
    const read = readTextTab(`Capo 5\n\n${rows('e|--0--20--3--|')}`)
    const { problems } = scoreOfTab(read, 'tune', DEFAULT_PLAYER, 'New')
    expect(problems.map((p) => [p.line, problemWords(p).taken])).toContainEqual([3, 'left out'])
  })

  it('a line that was meant to be a string and is not taken for one is said', () => {
    const text = `${rows('e|-0-1-|')}\n\nB|-1-- and then some words over it -3--|`
    expect(readTextTab(text).problems.map((p) => [p.line, problemWords(p).what])).toContainEqual([
      8,
      'this looks like a string of a tab, and is not read as one',
    ])
  })

  it('a chord name over a bar line belongs to the measure that follows; none is lost', () => {
    const text = ['   C     G   Am', ...rows('e|-0-1-|-3-5-|', '-----|-----|').split('\n')].join('\n')
    const { measures } = readTextTab(text)
    expect(measures.map((m) => m.chords.map((c) => c.symbol))).toEqual([['C'], ['G', 'Am']])
  })
})
