import fc from 'fast-check'
import { parseMidi } from 'midi-file'
import { enableLog, LOG_OFF, VerovioToolkit } from 'verovio/esm'
import createVerovioModule from 'verovio/wasm'
import { beforeAll, describe, expect, it } from 'vitest'
import { ticksAt, timelineOf, type Score, type Style } from '@velvet-porch/core/document'
import { DEFAULT_PLAYER, guitarSetup, pitchAt, setupOf } from '@velvet-porch/core/instrument'
import { readingMusicXml } from '@velvet-porch/core/input/musicxml'
import { midiOf, QUARTER } from '@velvet-porch/core/music'
import { writeMusicXml } from '@velvet-porch/core/output/musicxml'
import { finish } from '@velvet-porch/core/turns'
import { schemaFaults } from '../../support/musicXmlSchema.ts'
import { randomTune } from '../../support/randomTune.ts'
import { arrangedScore } from '../../support/score.ts'
import { scoreOfText } from '../../support/tabText.ts'
import { contentOf } from '../../support/tuneContent.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const readBack = (text: string) =>
  finish(readingMusicXml(text, { newId: () => 'x', player: DEFAULT_PLAYER, title: 'none' }))[0]!

const WAYS: readonly (readonly [number, Style, 1 | 3 | 5, number])[] = [
  [0, 'melody-bass', 1, 0],
  [1, 'arpeggio', 3, 2],
  [3, 'picking', 3, 3],
  [4, 'chord-melody', 5, 0],
  [5, 'flatpicked-lead', 5, 0],
  [6, 'alternating-bass', 5, 4],
  [9, 'strum', 3, 1],
  [11, 'drone', 5, 0],
  [12, 'double-stops', 3, 0],
]
const scores = WAYS.map(([n, style, level, capo]) =>
  arrangedScore(CORPUS[n]!, style, level, style === 'double-stops' ? setupOf('mandolin') : guitarSetup(capo)),
)

/** A tab in which the hands do all that a text tab can say. */
const TECHNIQUES = scoreOfText(`Title: All of it
Time 4/4

   q   q   q   q     q   q   e e q  q
e|-5b(7)-5-8~--<12>|-3---x---------------|
B|-----------------|-----x---1h3p1-5/8---|
G|-2---4---(2)-2---|-0---x------------9\\-|
D|-----------------|-------4-------------|
A|-0---0---0---0---|-3-------------------|
E|-----------------|-3---3---3-----3-----|
LH 1   3   4   1     4       1 3
RH p   i   m   a     p   p   i m
`)

/** Every note of a tab: when, where, by what, how. */
function tabOf({ tune, arrangement }: Required<Score>): string[] {
  const timeline = timelineOf(tune.measures)
  return arrangement.base.notes
    .map((n) => {
      const { id: _, sourceId: _s, origin: _o, pos, dur: _d, notationVoice: _v, ...rest } = n
      const role = n.role === 'melody' ? 'melody' : 'other'
      return `${ticksAt(timeline, pos)} ${JSON.stringify({ ...rest, role }, Object.keys({ ...rest }).sort())} ${JSON.stringify(n.place)} ${JSON.stringify(n.graces ?? [])}`
    })
    .sort()
}

/** Chords by what they are: names may be spelled otherwise. */
const plain = ({ chords, ...rest }: ReturnType<typeof contentOf>) => ({
  ...rest,
  chords: chords.map((c) => c.replaceAll('♭', 'b').replaceAll('♯', '#')),
})

describe('MusicXML', () => {
  let toolkit: VerovioToolkit
  beforeAll(async () => {
    const library = await createVerovioModule()
    // It has no picking fingers in tabs and says so of each.
    enableLog(LOG_OFF, library)
    toolkit = new VerovioToolkit(library)
  })

  it('of every style, of tunes alone, of songs and of all that hands do is valid by the published schema', () => {
    const song = tuneOf(
      'X:1\nT:A <b> & "c"\nC:Nobody\nM:3/4\nL:1/8\nK:Gm\nP:A\n|:"Gm"G2 {A}B2 (3ABA|"N.C."~c4 Td2|1 "D7/F#"d6:|2 "Hx"z6|]\nw:one two three- four five|six seven|eight\nP:B\n!segno!B6|!coda!A6!D.S.alcoda!|!coda!G6|]\n',
    )
    const texts = [...scores, TECHNIQUES, { tune: song }, ...CORPUS.map((tune) => ({ tune }))].map((score) =>
      writeMusicXml(score),
    )
    expect(schemaFaults(texts)).toEqual([])
  })

  it('that is damaged is found by the schema', () => {
    const text = writeMusicXml(scores[0]!).replace('<voice>1</voice>', '<voices>1</voices>')
    expect(schemaFaults([text]).join()).toContain("'voices'")
  })

  it.each(WAYS.map((_, i) => i))(
    'of arrangement %i sounds the same notes where another library plays it',
    (i) => {
      const { tune, arrangement } = scores[i]!
      const timeline = timelineOf(tune.measures)
      expect(toolkit.loadData(withoutRepeats(writeMusicXml(scores[i]!)))).toBeTruthy()
      const midi = parseMidi(Buffer.from(toolkit.renderToMIDI(), 'base64'))
      const heard = new Set<string>()
      for (const track of midi.tracks) {
        let at = 0
        for (const event of track) {
          at += event.deltaTime
          if (event.type === 'noteOn' && event.velocity > 0)
            heard.add(`${Math.round((4 * at) / midi.header.ticksPerBeat!)} ${event.noteNumber}`)
        }
      }
      const played = arrangement.base.notes.filter((n) => n.attack !== 'muted')
      for (const n of played) {
        // That library gives grace notes time of their own, and spreads what is rolled or brushed.
        if (n.graces || n.rolled || n.attack === 'brush') continue
        const at = Math.round((4 * ticksAt(timeline, n.pos)) / QUARTER)
        expect(heard).toContain(`${at} ${pitchAt(arrangement.setup, n.place)}`)
      }
    },
  )

  it.each(WAYS.map((_, i) => i))('of arrangement %i reads back as the same tab over the same tune', (i) => {
    const back = readBack(writeMusicXml(scores[i]!))
    expect(back.problems.filter((p) => p.severity !== 'note')).toEqual([])
    const { tune, arrangement } = back
    expect(tabOf({ tune: tune!, arrangement: arrangement! })).toEqual(tabOf(scores[i]!))
    const { setup, transposed } = scores[i]!.arrangement
    expect(arrangement!.setup.tuning).toEqual(setup.tuning)
    expect(arrangement!.setup.capo).toEqual(setup.capo)
    if (transposed === 0)
      expect(plain(contentOf(tune!)).chords).toEqual(plain(contentOf(scores[i]!.tune)).chords)
  })

  it('carries all that hands do', () => {
    const { tune, arrangement } = readBack(writeMusicXml(TECHNIQUES))
    expect(tabOf({ tune: tune!, arrangement: arrangement! })).toEqual(tabOf(TECHNIQUES))
  })

  it('of any tune reads back as the same tune', () => {
    fc.assert(
      fc.property(randomTune, (abc) => {
        const tune = tuneOf(abc)
        const back = readBack(writeMusicXml({ tune })).tune!
        expect(plain(contentOf(back))).toEqual(plain(contentOf(tune)))
      }),
      { numRuns: 100 },
    )
  })

  it('of a tune without chords says that they are implied, and reads back without', () => {
    const tune = tuneOf('X:1\nT:x\nM:4/4\nL:1/8\nK:C\n|:z8:|C8|G8|\n')
    expect(tune.chords.every((c) => c.origin === 'suggested')).toBe(true)
    const text = writeMusicXml({ tune })
    expect(text.match(/<harmony /g)).toHaveLength(tune.chords.length)
    expect(text.match(/<harmony type="implied"/g)).toHaveLength(tune.chords.length)
    expect(contentOf(readBack(text).tune!)).toEqual(contentOf(tune))
  })

  it('writes every accidental that the key does not say', () => {
    const tune = tuneOf('X:1\nT:x\nM:4/4\nL:1/4\nK:D\nF=F^FF|=c^cBc|\n')
    const signs = [...writeMusicXml({ tune }).matchAll(/<accidental>(\w+)</g)].map((m) => m[1])
    expect(signs).toEqual(['natural', 'sharp', 'natural', 'sharp'])
    expect(tune.events.map((e) => midiOf(e.pitch!))).toEqual([66, 65, 66, 66, 72, 73, 71, 73])
  })
})

/** Read straight through: whether a library unfolds repeats is not what is asked. */
const withoutRepeats = (text: string): string =>
  text
    .replace(/<repeat [^>]*\/>/g, '')
    .replace(/<ending [^>]*(?:\/>|>[^<]*<\/ending>)/g, '')
    .replace(/<sound (?:dacapo|dalsegno|fine|tocoda|coda|segno)[^>]*\/>/g, '')
