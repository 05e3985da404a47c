import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { kindOf, readAny } from '../../../src/input/any/index.ts'
import { capoFret, songKey, songMetre } from '../../../src/input/headFacts.ts'
import { partHeadIn } from '../../../src/input/partHeads.ts'
import { isChordRow } from '../../../src/input/song/chordRow.ts'
import { readSong } from '../../../src/input/song/readingSong.ts'
import { tuneOfSong } from '../../../src/input/song/songTune.ts'
import { DEFAULT_PLAYER } from '../../../src/instrument/index.ts'
import { readTuneDoc } from '../../../src/schema/index.ts'
import { songSummary } from '../../support/songSummary.ts'
import { SONG_PASTES } from './songPastes.ts'

const needs = { newId: () => 't', player: DEFAULT_PLAYER, title: 'New' }

describe('a song as people send it', () => {
  it.each(SONG_PASTES.map((p) => [p.what, p] as const))('%s', (_, { text, read }) => {
    expect(songSummary(text)).toEqual(read)
    expect(kindOf(text)).toBe('song')
  })

  it('becomes a tune that storage takes, with measures, chords and words', () => {
    for (const { text } of SONG_PASTES) {
      const [first] = readAny(text, needs).tunes
      const tune = readTuneDoc(JSON.parse(JSON.stringify(first!.tune)))
      expect(tune.measures.length).toBeGreaterThan(0)
      expect(tune.events.every((e) => !e.pitch)).toBe(true)
      expect(tune.chords.length).toBeGreaterThan(0)
    }
  })
})

describe('no chord and no word is lost', () => {
  /** A line of a good song spoilt as people spoil it. */
  const spoil = fc.constantFrom<(text: string) => string>(
    (s) => s.replace(/\n/g, '\r\n'),
    (s) => s.replace(/\n/g, '\n\n'),
    (s) => s.replace(/ {2,}/g, '\t'),
    (s) => s.replace(/^/gm, '> '),
    (s) => `Hello all,\nhere it is\n\n${s}\n\n-- \nsent from afar`,
    (s) => s.replace(/^(\S)/gm, '  $1'),
    (s) => s.replace(/'/g, '’').replace(/ /g, '\u00a0'),
    (s) => s.replace(/\[(Verse|Chorus|Intro)[^\]]*\]/g, '$1:'),
    (s) => s.replace(/\n[^\n]*$/, ''),
    (s) => s.toUpperCase(),
  )

  it('in a thousand spoilt songs: never an exception, every word of the text is in a line, a heading or a remark', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SONG_PASTES), fc.array(spoil, { maxLength: 2 }), ({ text }, how) => {
        const spoilt = how.reduce((s, f) => f(s), text)
        const read = readSong(spoilt)
        if (read.parts.every((p) => p.lines.every((l) => l.kind === 'remark'))) return
        const { tune } = tuneOfSong(read, 't')
        const bare = (s: string) => s.toLowerCase().replace(/[^\p{L}\d]+/gu, '')
        const kept = bare(
          [
            read.title,
            read.artist,
            read.subtitle,
            read.strum,
            read.tuning,
            ...read.parts.map((p) => p.name),
            ...read.parts.flatMap((p) =>
              p.lines.flatMap((l) => [l.singer ?? '', l.text, ...l.chords.map((c) => c.symbol)]),
            ),
          ].join(' '),
        )
        // Words of letters alone, six or more: nothing that heads a line or names a fact is that long here.
        for (const word of spoilt.match(/(?<![\p{L}&/:.])\p{L}{6,}(?![\p{L};:.])/gu) ?? [])
          if (
            !/^(chorus|refrain|repeat|textfont|columns|comment|played|estrofa|estribillo|artist|tuning|bridge)$/i.test(
              word,
            )
          )
            expect(kept).toContain(bare(word))
        // Every chord that a line has is in the tune, and no two stand at one moment.
        const moments = tune.chords.map((c) => `${c.pos.measure}@${c.pos.tick}`)
        expect(new Set(moments).size).toBe(moments.length)
      }),
      { numRuns: 1000 },
    )
  })
})

describe('headings', () => {
  it.each([
    ['Verse 1', 'Verse 1', 1, false],
    ['[Chorus x2]', 'Chorus', 2, false],
    ['CHORUS (repeat)', 'Chorus', 1, true],
    ['Repeat chorus', 'Chorus', 1, true],
    ['--- Bridge ---', 'Bridge', 1, false],
    ['Outro:', 'Outro', 1, false],
    ['(Verse 2)', 'Verse 2', 1, false],
    ['Pre-Chorus', 'Pre-Chorus', 1, false],
    ['Chorus: x4', 'Chorus', 4, false],
  ])('%s', (text, name, times, again) => {
    expect(partHeadIn(text)).toMatchObject({ name, times, again })
  })

  it('are no words that are sung', () => {
    for (const words of [
      'Chorus of the morning birds',
      'Endless is the road',
      'Verses I have sung',
      'V',
      'Bridges fall down',
    ])
      expect(partHeadIn(words), words).toBeUndefined()
  })
})

describe('rows of chords', () => {
  it.each([
    'C  G/B  Am7',
    '| C . G . | % |',
    'Am',
    'F#m7b5 - B7',
    'C G x2',
    'N.C.',
    '(Em)   (D)',
    'Gsus4  G',
    'C Gqx Am F',
  ])('%s', (row) => expect(isChordRow(row, 'letters')).toBe(true))
  it.each(['A dog and a cat', 'I am', 'Am I a fool', 'Bad news', 'La la la', 'Go down', 'x2', '| | |'])(
    'not: %s',
    (row) => expect(isChordRow(row, 'letters')).toBe(false),
  )
})

describe('facts', () => {
  it('a capo by number, ordinal, Roman number, word', () => {
    expect(['2', '3rd fret', 'IV', 'on the fifth fret', 'none', 'at fret 7'].map(capoFret)).toEqual([
      2, 3, 4, 5, 0, 7,
    ])
    expect(capoFret('somewhere')).toBeUndefined()
  })

  it('keys and metres; what nobody counts is none', () => {
    expect(['G', 'Am', 'F# minor', 'D dorian'].map((k) => songKey(k)?.fifths)).toEqual([1, 0, 3, 0])
    expect(songMetre('6/8')).toEqual({ num: 6, den: 8 })
    expect(songMetre('4/5')).toBeUndefined()
  })
})

describe('bars of a line', () => {
  const tuneFor = (text: string, bars?: number) =>
    tuneOfSong(readSong(text), 't', bars === undefined ? {} : { bars })

  it('are a guess that is marked and can be said otherwise', () => {
    const text = 'T\n\nC        G        Am       F\nfour chords for all of these words\n'
    const { tune, guessed, bars } = tuneFor(text)
    expect([bars, guessed, tune.measures.length]).toEqual([4, true, 4])
    expect(tune.measures.every((m) => m.provenance === 'guessed')).toBe(true)
    const two = tuneFor(text, 2).tune
    expect(two.chords.map((c) => [c.pos.measure, c.pos.tick])).toEqual([
      ['m1', 0],
      ['m1', 20160],
      ['m2', 0],
      ['m2', 20160],
    ])
  })

  it('are those of the bar lines where there are some', () => {
    const { tune, guessed } = tuneFor('T\n\n| C . Am . | F | % | G |\n')
    expect(guessed).toBe(false)
    expect(tune.measures).toHaveLength(4)
    expect(tune.chords.map((c) => c.symbol)).toEqual(['C', 'Am', 'F', 'F', 'G'])
    expect(tune.chords[1]!.pos).toEqual({ measure: 'm1', tick: 20160 })
  })

  it('names behind a capo are shapes unless they are said to be what sounds', () => {
    const text = 'T\nCapo 2\n\nG    C\nwords to sing\n'
    const shapes = tuneOfSong(readSong(text), 't')
    expect(shapes.tune.chords.map((c) => c.symbol)).toEqual(['A', 'D'])
    const sound = tuneOfSong(readSong(text), 't', { meaning: 'sound' })
    expect(sound.tune.chords.map((c) => c.symbol)).toEqual(['G', 'C'])
    expect(sound.capo).toBe(2)
  })

  it('a key that is stated behind a capo is that of the shapes or of the sound, whichever the chords lie in', () => {
    const chords = '\n\nG  C  D7  G\nwords to sing here\n'
    for (const key of ['G', 'A'])
      expect(
        tuneOfSong(readSong(`T\nCapo 2\nKey: ${key}${chords}`), 't').tune.measures[0]!.key.tonic.step,
      ).toBe('A')
  })
})

describe('what a text is', () => {
  it.each([
    ['{"format":"velvet-porch-tune"}', 'json'],
    ['{title: A song}\n[C]la', 'song'],
    ['X:1\nT:x\nK:C\nCDEF|', 'abc'],
    ['|: G2 BG dGBG | c2 ec gcec :|', 'abc'],
    ['M:3/4\nL:1/8\n"C"c2 | "G"B2 |', 'abc'],
    ['e|--0--|\nB|--1--|\nG|--0--|\nD|--2--|\nA|--3--|\nE|-----|', 'tab'],
    ['| C . Am . | F | G |', 'song'],
    ['C     G\nwords here', 'song'],
  ])('%j', (text, kind) => expect(kindOf(text)).toBe(kind))

  it('is nothing where nothing is understood, and said so', () => {
    expect(kindOf('Dear Bea, the cafe was good.')).toBeUndefined()
    const { tunes } = readAny('Dear Bea, the cafe was good.', needs)
    expect(tunes[0]!.tune).toBeUndefined()
    expect(tunes[0]!.problems[0]!.says.code).toBe('reading.noKind')
  })

  it('several songs in one text are several tunes', () => {
    const { tunes } = readAny('{title: One}\n[C]la\n{new_song}\n{title: Two}\n[G]la\n', needs)
    expect(tunes.map((t) => t.tune?.title)).toEqual(['One', 'Two'])
  })
})
