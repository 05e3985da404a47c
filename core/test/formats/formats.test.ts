import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { ticksAt, timelineOf, type Score } from '@velvet-porch/core/document'
import { canWrite, featuresOf, formatOf, FORMATS, leftBehind, type Feature } from '@velvet-porch/core/formats'
import { DEFAULT_PLAYER, guitarSetup } from '@velvet-porch/core/instrument'
import { fileText, kindOf, readAny } from '@velvet-porch/core/input/any'
import { readTuneFile } from '@velvet-porch/core/schema'
import { finish } from '@velvet-porch/core/turns'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

const SONG = tuneOf(
  'X:1\nT:Harbour Steps\nC:Nell Ambry\nS:from her notebook\nM:3/4\nL:1/8\nQ:1/4=96\nK:G\nP:A\n|:"G"G2 {A}B2 (dB)|"D7"A4 ~F2|1 "G"G6:|2 "G"G6|]\nw:one two three-four five six|seven eight|nine|ten\n',
)
const WORDS = readAny(
  '{title: Low Bridge}\n{artist: Nell Ambry}\n{tempo: 90}\n{start_of_verse}\n[G]Under the [C]bridge we [G]go\n[D7]Slowly we [G]row\n{end_of_verse}\n',
  {
    newId: () => 'song',
    player: DEFAULT_PLAYER,
    title: 'none',
  },
).tunes[0]!.tune!
const score = arrangedScore(SONG, 'alternating-bass', 4, guitarSetup(2))

const contentOf = (id: string, of: Score): Uint8Array => {
  const content = finish(FORMATS.find((f) => f.id === id)!.writes!.writing(of))
  return typeof content === 'string' ? new TextEncoder().encode(content) : content
}

/** A score as it is read back from a file. */
function readBack(bytes: Uint8Array): Score {
  const read = fileText(bytes)
  if (!read.ok) throw new Error(read.says.code)
  if (kindOf(read.text) === 'json') {
    const { tune, arrangements } = readTuneFile(JSON.parse(read.text))
    return { tune, ...(arrangements[0] ? { arrangement: arrangements[0] } : {}) }
  }
  const [first] = readAny(read.text, { newId: () => 'x', player: DEFAULT_PLAYER, title: 'none' }).tunes
  return { tune: first!.tune!, ...(first!.arrangement ? { arrangement: first!.arrangement } : {}) }
}

describe('the table of formats', () => {
  it.each(FORMATS.filter((f) => f.reads && f.writes).map((f) => [f.id, f] as const))(
    '%s keeps what it says that it keeps, and its files are recognised',
    (id, format) => {
      const written = format.writes!.of === 'song' ? arrangedScore(WORDS, 'strum', 2) : score
      const bytes = contentOf(id, written)
      const read = fileText(bytes)
      expect(read.ok && kindOf(read.text)).toBe(format.reads)
      const has = featuresOf(written)
      const back = featuresOf(readBack(bytes))
      // A MIDI file counts a tuning as its tracks, and has no other word for swing, slides or a part's name.
      const heardOnly: readonly Feature[] = id === 'midi' ? ['tuning', 'techniques', 'swing'] : []
      const lost = format.writes!.keeps.filter((f) => has.has(f) && !back.has(f) && !heardOnly.includes(f))
      expect(lost).toEqual([])
    },
  )

  it.each(['melody-bass', 'arpeggio', 'chord-melody', 'alternating-bass'] as const)(
    'ABC keeps every string, fret and finger of %s, over any tuning and capo',
    (style) => {
      CORPUS.slice(0, 8).forEach((tune, i) => {
        const tab = arrangedScore(tune, style, i % 2 === 0 ? 3 : 2, guitarSetup(i % 4))
        const placesOf = ({ tune: t, arrangement }: Score) => {
          const timeline = timelineOf(t.measures)
          return arrangement!.base.notes
            .map(
              (n) =>
                `${ticksAt(timeline, n.pos)} ${n.place.string}.${n.place.fret}:${n.left} ${n.role === 'melody'}`,
            )
            .sort()
        }
        const back = readBack(contentOf('abc-places', tab))
        expect(back.arrangement!.setup.capo).toEqual(tab.arrangement.setup.capo)
        expect(placesOf(back)).toEqual(placesOf(tab))
      })
    },
  )

  it('says what is left behind: nothing of a tune file, strings and fingers of ABC', () => {
    const of = (id: string) =>
      leftBehind(
        FORMATS.find((f) => f.id === id)!,
        score,
      )
    expect(of('tune-file')).toEqual([])
    expect(of('abc')).toEqual(expect.arrayContaining(['places', 'leftHand', 'rightHand']))
    expect(of('musicxml')).toEqual(['styles'])
  })

  it('tells formats by their endings, and a tab is not written from a bare tune', () => {
    expect(formatOf('a/b.c/Ferry.MXL')!.id).toBe('mxl')
    expect(formatOf('noending')).toBeUndefined()
    expect(formatOf('x.places.abc')!.id).toBe('abc-places')
    expect(formatOf('places.abc')!.id).toBe('abc')
    const bare = FORMATS.filter((f) => canWrite(f, { tune: SONG })).map((f) => f.id)
    expect(bare).toEqual(['musicxml', 'mxl', 'abc', 'tune-file'])
  })

  it('writes the same bytes again from what a tune file holds', () => {
    const back = readBack(contentOf('tune-file', score))
    for (const id of ['tune-file', 'musicxml', 'mxl', 'midi', 'text', 'abc', 'svg'])
      expect(contentOf(id, back)).toEqual(contentOf(id, score))
  })

  it('stands in the docs, row by row', () => {
    const docs = readFileSync(new URL('../../../docs/formats.md', import.meta.url), 'utf8')
    for (const { name, endings } of FORMATS) {
      const row = docs.split('\n').find((line) => line.startsWith(`| ${name}`))
      expect(row, name).toContain(`\`.${endings[0]}\``)
    }
  })
})
