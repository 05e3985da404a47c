import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { TuneDoc } from '../../../src/document/index.ts'
import { readSong } from '../../../src/input/song/readingSong.ts'
import { tuneOfSong } from '../../../src/input/song/songTune.ts'
import { writeChordPro } from '../../../src/output/index.ts'
import { SONG_PASTES } from '../../input/song/songPastes.ts'

/** All of a song but its ABC, which follows from the rest. */
const whole = ({ abc: _, ...tune }: TuneDoc) => tune

const again = (tune: TuneDoc, capo: number) =>
  tuneOfSong(readSong(writeChordPro(tune, { capo })), tune.id).tune

/** Songs of any words and chords; the words begin and end with letters, as a reader trims them. */
const word = fc
  .stringMatching(/^[a-z]{2,8}$/)
  .filter(
    (w) =>
      !/^(verse|chorus|intro|outro|bridge|solo|end|tag|coda|hook|part|final|bis|vers|turn|break)$/.test(w),
  )
const chord = fc.constantFrom('C', 'G/B', 'Am7', 'F#m7b5', 'Bbmaj7', 'Esus4', 'D9', 'N.C.', 'A', 'Ddim')
const line = fc.record({
  words: fc.array(word, { minLength: 2, maxLength: 8 }),
  chords: fc.array(fc.record({ chord, at: fc.nat(60) }), { maxLength: 5 }),
  times: fc.constantFrom(1, 1, 1, 2, 4),
})
const song = fc.record({
  capo: fc.nat(7),
  metre: fc.constantFrom('4/4', '3/4', '6/8', '2/2'),
  parts: fc.array(
    fc.record({
      name: fc.constantFrom('Verse 1', 'Chorus', 'Bridge', 'Verse 2'),
      lines: fc.array(line, { minLength: 1, maxLength: 4 }),
    }),
    { minLength: 1, maxLength: 4 },
  ),
})

function textOf({ capo, metre, parts }: typeof song extends fc.Arbitrary<infer T> ? T : never): string {
  const written = parts.map(({ name, lines }) =>
    [
      `[${name}]`,
      ...lines.map(({ words, chords, times }) => {
        const text = words.join(' ')
        const sorted = chords
          .map((c) => ({ ...c, at: Math.min(c.at, text.length) }))
          .sort((a, b) => b.at - a.at)
        const set = sorted.reduce((s, { chord: c, at }) => `${s.slice(0, at)}[${c}]${s.slice(at)}`, text)
        return set + (times > 1 ? ` (x${times})` : '')
      }),
    ].join('\n'),
  )
  return `{title: T}\n{time: ${metre}}\n${capo ? `{capo: ${capo}}\n` : ''}\n${written.join('\n\n')}\n`
}

describe('a song written as ChordPro', () => {
  it.each(SONG_PASTES.map((p) => [p.what, p.text] as const))('is read back the same: %s', (_, text) => {
    const { tune, capo } = tuneOfSong(readSong(text), 't')
    expect(whole(again(tune, capo))).toEqual(whole(tune))
  })

  it('is read back the same, whatever words, chords and bars it has', () => {
    fc.assert(
      fc.property(song, fc.constantFrom(undefined, 1, 2, 3, 8), (made, bars) => {
        const read = readSong(textOf(made))
        const { tune, capo } = tuneOfSong(read, 't', bars === undefined ? {} : { bars })
        expect(whole(again(tune, capo))).toEqual(whole(tune))
      }),
      { numRuns: 300 },
    )
  })

  it('has the usual directives, its bars in one of our own, and none of that where a person is to read it', () => {
    // The directives are those of the format's published description, from memory.
    const { tune, capo } = tuneOfSong(
      readSong('T\nby Una Cray\nCapo 2\n\n[Chorus]\nC      G\nwords to sing\n'),
      't',
    )
    const text = writeChordPro(tune, { capo })
    expect(text.split('\n').slice(0, 5)).toEqual([
      '{title: T}',
      '{artist: Una Cray}',
      '{key: C}',
      '{time: 4/4}',
      '{capo: 2}',
    ])
    expect(text).toContain(
      '{start_of_chorus: Chorus}\n{x_porch_bars: 2?; 1 2}\n[C]words t[G]o sing\n{end_of_chorus}',
    )
    const plain = writeChordPro(tune, { capo, plain: true })
    expect(plain).toContain('Capo: 2\n\n[Chorus]\n[C]words t[G]o sing\n')
    expect(plain).not.toContain('x_porch')
  })
})
