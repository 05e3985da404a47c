import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { midiOf, QUARTER } from '../../../src/music/index.ts'
import { timelineOf, unfold, type TuneDoc } from '../../../src/document/index.ts'
import { decodeSource } from '../../../src/input/index.ts'
import { abcBlocks } from '../../../src/input/abc/abcBlocks.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'
import { splitBook } from '../../../src/input/abc/splitBook.ts'
import { readTuneDoc } from '../../../src/schema/index.ts'
import { heardByAbc2midi } from '../../support/abc2midi.ts'

/** Example files of Debian's packages abcm2ps and abcmidi: every corner of ABC, by other hands. */
const FOLDERS = ['/usr/share/doc/abcm2ps/examples', '/usr/share/doc/abcmidi/examples']

/** Tunes in which another number of notes, or other ones, are heard, and why that is right. By file and place in it. */
const KNOWN: Readonly<Record<string, string>> = {
  'accordion.abc 1': 'the second part begins without a repeat sign: readers go back to different places',
  'deco.abc 1': 'single letters are redefined as decorations in the file',
  'sample2.abc 8': 'decorations of a second voice stand on lines of their own (d:)',
  'sample4.abc 1': 'remarks inside the music ([r:…]) and lengths in an older way of writing',
  'sample4.abc 2': 'pitches moved by clef names that only the drawing program knows',
  'sample4.abc 5': 'tablature letters (i, j, k, l) written as notes of a voice without staff',
  'baym_rebin.abc 1': 'K:C^f^c^a without spaces: abc2midi does not take the first accidental',
  'demo.abc 5': 'an order of parts (P:) is kept and said, and not followed',
  'temperament.abc 1': 'microtones (_1/4) are no notes of an instrument with frets; each is said',
  'temperament.abc 2': 'microtones (_1/4) are no notes of an instrument with frets; each is said',
}

/** Tunes with the same notes at other times, and why. */
const OTHER_TIMES: Readonly<Record<string, string>> = {
  'demo.abc 2': 'R:hornpipe makes abc2midi swing',
  'demo.abc 6': 'R:hornpipe makes abc2midi swing',
  'chinese.abc 1': 'abc2midi sounds the second note of a chord a forty-eighth of a quarter late',
  'detune.abc 2': 'changes of temperament between the lines move what abc2midi plays',
  'sample2.abc 7': 'M:none: abc2midi spreads an arpeggio in time',
}

interface Heard {
  readonly onset: number
  readonly midi: number
}

/** All notes of all voices in played order, ties joined. */
function played(tune: TuneDoc): Heard[] {
  const timeline = timelineOf(tune.measures)
  const tied = new Set(tune.events.flatMap((e) => e.tieTo ?? []))
  return unfold(tune.measures).order.flatMap((o) =>
    tune.events
      .filter((e) => timeline.indexOf.get(e.pos.measure) === o.measure && e.pitch && !tied.has(e.id))
      .flatMap((e) =>
        [e.pitch!, ...e.chordTones].map((p) => ({
          onset: (o.startTick + e.pos.tick) / QUARTER,
          midi: midiOf(p),
        })),
      ),
  )
}

/** The music alone: what only programs that draw or sound it more richly know is taken out for both readers. */
function musicOf(text: string): string {
  const lines = text.split('\n')
  const blocks = abcBlocks(lines)
  return lines
    .filter(
      (l, i) => !blocks.some((b) => i >= b.from && i <= b.to) && !/^(%%(?!score|staves)|[UwW]:)/.test(l),
    )
    .map((l) =>
      /^[A-Za-z]:/.test(l)
        ? l
        : l
            .replace(/\{[^}]*\}|"[^"]*"|![^!]*!/g, '')
            .replace(/[~HLMOPSTuvRJ.](?=[~HLMOPSTuvRJ.]*[\^_=]*[A-Ga-g[(])/g, ''),
    )
    .join('\n')
}

const pitches = (notes: readonly Heard[]) => notes.map((n) => n.midi).sort((a, b) => a - b)
const times = (notes: readonly Heard[]) => {
  const first = Math.min(...notes.map((n) => n.onset))
  return notes.map((n) => `${Math.round((n.onset - first) * 24)}:${n.midi}`).sort()
}

/** One voice, no measure that does not sum: there times are compared too. */
const isPlain = (tune: TuneDoc) =>
  tune.events.every((e) => e.voice === 0) && tune.measures.every((m) => m.length <= m.nominal)

describe('the ABC files that Debian ships', () => {
  it('are there', () => {
    for (const folder of FOLDERS)
      expect(existsSync(folder), `${folder}: install abcm2ps and abcmidi with their documents`).toBe(true)
  })

  for (const folder of FOLDERS.filter((f) => existsSync(f)))
    for (const file of readdirSync(folder).filter((f) => f.endsWith('.abc'))) {
      const source = decodeSource(readFileSync(`${folder}/${file}`))
      if (!source.ok) throw new Error(`${file}: ${source.says.code}`)
      const tunes = splitBook(source.text).filter((t) => /^K:/m.test(t.text))

      it(`${file}: every tune is read, and can be stored`, () => {
        // A reader that hangs would never come back: no speed is asserted.
        const readings = readAbc(source.text, () => 'tune')
        for (const { tune, problems } of readings)
          if (tune) expect(readTuneDoc(JSON.parse(JSON.stringify(tune)))).toEqual(tune)
          else expect(problems.some((p) => p.severity === 'error')).toBe(true)
      })

      tunes.forEach(({ text }, i) => {
        const name = `${file} ${i + 1}`
        it(`${name} holds the notes that abc2midi finds${KNOWN[name] ? `, but: ${KNOWN[name]}` : ''}`, () => {
          const music = musicOf(text).replace(/^X:.*/m, 'X:1')
          const tune = readAbc(music, () => 'tune')[0]!.tune
          const [ours, theirs] = [tune ? played(tune) : [], heardByAbc2midi(music)]
          if (KNOWN[name]) return expect(pitches(ours)).not.toEqual(pitches(theirs))
          expect(pitches(ours)).toEqual(pitches(theirs))
          if (!tune || !isPlain(tune)) return
          if (OTHER_TIMES[name]) expect(times(ours)).not.toEqual(times(theirs))
          else expect(times(ours)).toEqual(times(theirs))
        })
      })
    }
})
