import { Midi } from '@tonejs/midi'
import { parseMidi } from 'midi-file'
import { describe, expect, it } from 'vitest'
import { timelineOf, unfold, type Score, type Style } from '../../../src/document/index.ts'
import { QUARTER } from '../../../src/music/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { writeMidi } from '../../../src/output/midi/index.ts'
import { scoreOf } from '../../../src/output/sound/index.ts'
import { readAbc } from '../../../src/input/abc/index.ts'
import { arrangedScore } from '../../support/score.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const performanceOf = ({ tune, arrangement }: Required<Score>) => {
  const { setup, base, variants, regions } = arrangement
  return scoreOf(tune, setup, base, timelineOf(tune.measures), unfold(tune.measures), variants, regions)
}

/** The file as another library reads it. */
const read = (score: Required<Score>) => new Midi(writeMidi(score))

const WAYS: readonly (readonly [number, Style, 2 | 3 | 5])[] = [
  [0, 'melody-bass', 2],
  [2, 'arpeggio', 3],
  [4, 'alternating-bass', 5],
  [6, 'chord-melody', 3],
]

describe('a MIDI file', () => {
  it.each(WAYS)(
    'of tune %i in %s at level %i has every pluck on its string, as it is heard',
    (n, style, level) => {
      const score = arrangedScore(CORPUS[n]!, style, level, guitarSetup(2))
      const heard = performanceOf(score)
      const file = read(score)
      expect(file.tracks).toHaveLength(6)
      for (let string = 1; string <= 6; string++) {
        const own = heard.notes.filter((note) => note.string === string && !note.glide)
        const track = file.tracks.find((t) => t.name.startsWith(`String ${string} `))!
        if (own.length > 0) expect(track.channel).toBe(string - 1)
        expect(track.notes.map((note) => note.midi)).toEqual(
          own.map((note) => Math.round(69 + 12 * Math.log2(note.hertz / 440))),
        )
        track.notes.forEach((note, i) => {
          expect(Math.abs(note.ticks - (own[i]!.at * file.header.ppq) / QUARTER)).toBeLessThan(0.51)
          const until = Math.min(own[i]!.until, own[i + 1]?.at ?? Infinity)
          const end = (until * file.header.ppq) / QUARTER
          expect(Math.abs(note.ticks + note.durationTicks - end)).toBeLessThan(1.01)
        })
      }
    },
  )

  it('says tempo, metre and key, and chords and words as they are sung', () => {
    const abc =
      'X:1\nT:Gârdé\nM:6/8\nL:1/8\nQ:3/8=90\nK:Bb\n|:"Bb"B2c "F7"d3 |\nw: One two three\nw: four five six\n"Bb"B6 :|\nw: done\nw: gone\n'
    const tune = readAbc(abc, () => 'x')[0]!.tune!
    const score = arrangedScore(tune, 'melody-bass', 2)
    const bytes = writeMidi(score)
    const { tracks } = parseMidi(bytes) as unknown as { tracks: Record<string, unknown>[][] }
    const of = (type: string) => tracks[0]!.filter((e) => e['type'] === type)
    expect(of('timeSignature')[0]).toMatchObject({ numerator: 6, denominator: 8 })
    expect(of('keySignature')[0]).toMatchObject({ key: -2, scale: 0 })
    expect(of('setTempo')[0]!['microsecondsPerBeat']).toBe(Math.round(60e6 / 135))
    const bytesOf = (text: unknown) => Uint8Array.from(text as string, (c) => c.charCodeAt(0))
    expect(new TextDecoder().decode(bytesOf(of('trackName')[0]!['text']))).toBe('Gârdé')
    expect(of('text').map((e) => e['text'])).toEqual(['Bb', 'F7', 'Bb', 'Bb', 'F7', 'Bb'])
    expect(of('lyrics').map((e) => e['text'])).toEqual([
      'One',
      'two',
      'three',
      'done',
      'four',
      'five',
      'six',
      'gone',
    ])
  })

  it('moves the pitch of a string that is bent, and brings it back', () => {
    const score = arrangedScore(
      tuneOf('X:1\nT:B\nM:4/4\nL:1/4\nQ:1/4=60\nK:C\n"C"e2 f2 | e4 |]\n'),
      'melody-bass',
      2,
    )
    const [first, second, ...rest] = score.arrangement.base.notes.filter((note) => note.role === 'melody')
    const others = score.arrangement.base.notes.filter((note) => note.role !== 'melody')
    const place = { string: 2, fret: 5 }
    const bent = {
      ...score,
      arrangement: {
        ...score.arrangement,
        base: {
          ...score.arrangement.base,
          notes: [
            { ...first!, place },
            { ...second!, place, bend: 1, attack: 'bend' as const },
            ...rest,
            ...others.filter((note) => note.place.string !== 2),
          ],
        },
      },
    }
    const track = read(bent).tracks.find((t) => t.name.startsWith('String 2 '))!
    expect(track.notes[0]!.midi).toBe(64)
    // One semitone of an octave's range.
    const bends = track.pitchBends.map((b) => b.value)
    expect(Math.max(...bends)).toBeCloseTo(1 / 12, 2)
    expect([...bends].sort((a, b) => a - b)).toEqual(bends.slice().sort((a, b) => a - b))
    expect(track.notes[0]!.durationTicks).toBeGreaterThan(2 * 480)
  })
})
