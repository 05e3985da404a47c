import { strToU8, zipSync } from 'fflate'
import { harmonyLine } from '../arrange/plan/harmonyLine.ts'
import { timelineOf } from '../document/form/timeline.ts'
import { unfold } from '../document/form/unfold.ts'
import { isSongAlone } from '../document/songAlone.ts'
import type { Score } from '../document/score.ts'
import { message, type Message } from '../messages/message.ts'
import type { TextKind } from '../input/any/kindOf.ts'
import { writingAbc } from '../output/abc/writeAbc.ts'
import { writeMidi } from '../output/midi/writeMidi.ts'
import { writeMusicXml } from '../output/musicxml/writeMusicXml.ts'
import { writeChordPro } from '../output/song/chordPro.ts'
import { bounce } from '../output/sound/bounce.ts'
import { scoreOf } from '../output/sound/performance.ts'
import { wavOf } from '../output/sound/wav.ts'
import { textTab } from '../output/text/textTab.ts'
import { TUNE_FILE_FORMAT, type TuneFile } from '../schema/backupSchema.ts'
import type { Turns } from '../turns.ts'
import { FEATURES, featuresOf, type Feature } from './features.ts'
import { writingTabAsAbc } from './tabAsAbc.ts'
import { tabSvg } from './tabSvg.ts'

/** What a format is written from: any tune, one with a tab, or a song with its words. */
export type WrittenOf = 'tune' | 'tab' | 'song'

/** A format: what its files are called, how they are read, what is written into them. */
export interface Format {
  readonly id: string
  /** As the standard calls it. */
  readonly name: string
  /** Endings of its files, the usual one first. */
  readonly endings: readonly string[]
  readonly mime: string
  /** What its files are recognised as; absent where they are not read. */
  readonly reads?: TextKind
  /** Absent where it is not written. */
  readonly writes?: FormatWriter
}

/** How a format is written, and what of a score it keeps. */
export interface FormatWriter {
  readonly of: WrittenOf
  readonly keeps: readonly Feature[]
  /** The content of a file. Long work gives its turn back. */
  readonly writing: (score: Score) => Turns<string | Uint8Array>
}

const OF_A_TUNE = [
  'notes',
  'otherVoices',
  'chords',
  'form',
  'words',
  'sections',
  'tempo',
  'ornaments',
  'slurs',
  'source',
] as const satisfies readonly Feature[]

/** A container of packed scores, as MusicXML 4.0 describes it. */
const MXL_CONTAINER =
  '<?xml version="1.0" encoding="UTF-8"?><container><rootfiles><rootfile full-path="score.musicxml" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>'

/** The earliest day that a zip file can say: files of one tune are the same whenever they are made. */
const NO_DAY = new Date(1980, 0, 1)

const MUSICXML_KEEPS = [
  ...OF_A_TUNE,
  'rights',
  'tuning',
  'places',
  'leftHand',
  'rightHand',
  'techniques',
  'marks',
  'remarks',
  'swing',
] as const satisfies readonly Feature[]

/** Every format that is read or written. PDF and PNG are drawn by a browser: see the interface and the command line. */
export const FORMATS: readonly Format[] = [
  {
    id: 'musicxml',
    name: 'MusicXML 4.0',
    endings: ['musicxml', 'xml'],
    mime: 'application/vnd.recordare.musicxml+xml',
    reads: 'musicxml',
    writes: { of: 'tune', keeps: MUSICXML_KEEPS, writing: (score) => atOnce(() => writeMusicXml(score)) },
  },
  {
    id: 'mxl',
    name: 'MusicXML 4.0, packed',
    endings: ['mxl'],
    mime: 'application/vnd.recordare.musicxml',
    reads: 'musicxml',
    writes: {
      of: 'tune',
      keeps: MUSICXML_KEEPS,
      writing: (score) =>
        atOnce(() =>
          zipSync(
            {
              'META-INF/container.xml': strToU8(MXL_CONTAINER),
              'score.musicxml': strToU8(writeMusicXml(score)),
            },
            { mtime: NO_DAY },
          ),
        ),
    },
  },
  {
    id: 'midi',
    name: 'MIDI',
    endings: ['mid', 'midi'],
    mime: 'audio/midi',
    reads: 'midi',
    writes: {
      of: 'tab',
      keeps: ['notes', 'chords', 'words', 'tempo', 'tuning', 'techniques', 'swing'],
      writing: (score) => atOnce(() => writeMidi(withTab(score))),
    },
  },
  {
    id: 'abc-places',
    name: 'ABC 2.1, with strings and frets',
    endings: ['places.abc'],
    mime: 'text/vnd.abc',
    reads: 'abc',
    writes: {
      of: 'tab',
      keeps: [
        'notes',
        'chords',
        'form',
        'words',
        'sections',
        'tempo',
        'source',
        'tuning',
        'places',
        'leftHand',
      ],
      writing: (score) => writingTabAsAbc(withTab(score)),
    },
  },
  {
    id: 'abc',
    name: 'ABC 2.1',
    endings: ['abc'],
    mime: 'text/vnd.abc',
    reads: 'abc',
    writes: { of: 'tune', keeps: OF_A_TUNE, writing: ({ tune }) => writingAbc(tune, tune.abc?.text ?? '') },
  },
  {
    id: 'chordpro',
    name: 'ChordPro',
    endings: ['cho', 'chopro', 'pro'],
    mime: 'text/plain',
    reads: 'song',
    writes: {
      of: 'song',
      keeps: ['chords', 'songWords', 'sections', 'tempo', 'source'],
      writing: ({ tune, arrangement }) =>
        atOnce(() =>
          writeChordPro(tune, {
            capo: arrangement?.setup.capo[0] ?? 0,
            transposed: arrangement?.transposed ?? 0,
          }),
        ),
    },
  },
  {
    id: 'text',
    name: 'Text tab',
    endings: ['txt', 'tab'],
    mime: 'text/plain',
    reads: 'tab',
    writes: {
      of: 'tab',
      keeps: ['notes', 'chords', 'form', 'tuning', 'places', 'leftHand', 'rightHand', 'techniques'],
      writing: (score) => atOnce(() => asTextTab(withTab(score))),
    },
  },
  {
    id: 'tune-file',
    name: 'Tune file',
    endings: ['json'],
    mime: 'application/json',
    reads: 'json',
    writes: { of: 'tune', keeps: FEATURES, writing: (score) => atOnce(() => asTuneFile(score)) },
  },
  {
    id: 'svg',
    name: 'SVG',
    endings: ['svg'],
    mime: 'image/svg+xml',
    writes: {
      of: 'tab',
      keeps: [
        'notes',
        'chords',
        'form',
        'words',
        'sections',
        'places',
        'leftHand',
        'rightHand',
        'techniques',
        'marks',
      ],
      writing: (score) => atOnce(() => tabSvg(withTab(score))),
    },
  },
  {
    id: 'wav',
    name: 'WAV',
    endings: ['wav'],
    mime: 'audio/wav',
    writes: {
      of: 'tab',
      keeps: ['notes', 'form', 'tempo', 'tuning', 'techniques', 'swing', 'marks'],
      writing: (score) => asSound(withTab(score)),
    },
  },
]

/**
 * The format of a file by its ending.
 * @example formatOf('ferry.mid')?.id // 'midi'
 */
export function formatOf(file: string): Format | undefined {
  const name = file.toLowerCase()
  return FORMATS.find((f) => f.endings.some((ending) => name.endsWith(`.${ending}`)))
}

/** True for a score that a format can be written from. */
export function canWrite({ writes }: Format, { tune, arrangement }: Score): boolean {
  if (!writes) return false
  if (writes.of === 'tab') return (arrangement?.base.notes.length ?? 0) > 0
  if (writes.of === 'song') return (tune.song?.lines.length ?? 0) > 0
  return !isSongAlone(tune) || writes.keeps.includes('songWords')
}

/** What a score has that a format does not keep. */
export function leftBehind({ writes }: Format, score: Score): Feature[] {
  const keeps: readonly Feature[] = writes?.keeps ?? []
  const has = featuresOf(score)
  return FEATURES.filter((f) => has.has(f) && !keeps.includes(f))
}

/** What a feature is called, for a person. */
export const featureMessage = (feature: Feature): Message<'features'> => message(`features.${feature}`)

/** Short work as work that could give its turn back. */
function* atOnce<T>(work: () => T): Turns<T> {
  yield
  return work()
}

/** A format of tabs is written from a tab: `canWrite` says so beforehand. */
function withTab({ tune, arrangement }: Score): Required<Score> {
  if (!arrangement) throw new TypeError('A tab is written from an arrangement.')
  return { tune, arrangement }
}

function asTextTab({ tune, arrangement }: Required<Score>): string {
  const { setup, base, transposed } = arrangement
  const timeline = timelineOf(tune.measures)
  const harmony = harmonyLine(tune, timeline, setup.capo[0]!, transposed)
  return textTab({ tune, timeline, setup, layer: base, harmony })
}

function asTuneFile({ tune, arrangement }: Score): string {
  const file: TuneFile = {
    format: TUNE_FILE_FORMAT,
    version: 1,
    tune,
    arrangements: arrangement ? [arrangement] : [],
  }
  return `${JSON.stringify(file, null, 1)}\n`
}

function* asSound({ tune, arrangement }: Required<Score>): Turns<Uint8Array> {
  const { setup, base, variants, regions } = arrangement
  const timeline = timelineOf(tune.measures)
  const score = scoreOf(tune, setup, base, timeline, unfold(tune.measures), variants, regions)
  return wavOf(yield* bounce(score, { tempo: 1 }))
}
