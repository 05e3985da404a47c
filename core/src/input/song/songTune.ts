import { isEqual, uniqWith } from 'es-toolkit'
import { durationOf } from '../../document/durationOf.ts'
import type { Id } from '../../document/ids.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import type { SongLine } from '../../document/song.ts'
import {
  TUNE_SCHEMA,
  type ChordMark,
  type Measure,
  type Section,
  type TuneDoc,
  type TuneEvent,
} from '../../document/tune.ts'
import { message } from '../../messages/message.ts'
import { chordText, transposeChord } from '../../music/harmony/chordSymbol.ts'
import { transposeKey, type Key } from '../../music/pitch/key.ts'
import { beatStarts, measureLength, type Metre } from '../../music/time/metre.ts'
import { USUAL_TEMPO } from '../../music/time/tempo.ts'
import { writingAbc } from '../../output/abc/writeAbc.ts'
import { finish } from '../../turns.ts'
import type { CapoMeaning } from '../capoMeaning.ts'
import type { Problem } from '../problem.ts'
import { bareChord, chordOf, namingOfChords } from './chordRow.ts'
import { likelyKey } from '../likelyKey.ts'
import type { ReadSong, WrittenLine, WrittenPart } from './readSong.ts'
import { barsFor, laidOnBars, usualBars } from './songBars.ts'
import { withCalledParts } from './calledParts.ts'

/** How a song becomes a tune where its text leaves it open. */
export interface SongChoices {
  readonly meaning?: CapoMeaning
  /** Bars that a line takes; absent: guessed. */
  readonly bars?: number
  /** The title where the text has none. */
  readonly title?: string
}

/** A song as a tune, and what of it is a guess. */
export interface SongTune {
  readonly tune: TuneDoc
  readonly capo: number
  readonly bars: number
  /** True where no bar lines say which chord falls on which beat. */
  readonly guessed: boolean
  readonly strum?: string
  readonly tuning?: string
  readonly problems: readonly Problem[]
}

/** Measures of a song at most. */
const MOST_MEASURES = 2000

/**
 * A song sheet: measures with chords and words and no melody, part by part in the order in which they are sung. Where the
 * text has no bar lines, how many bars a line takes is a guess, and marked so in its measures. The song has a line that is sung
 * or played.
 */
export function tuneOfSong(song: ReadSong, id: Id, choices: SongChoices = {}): SongTune {
  const metre = song.metre ?? { num: 4, den: 4 }
  const meaning = choices.meaning ?? 'shapes'
  const up = meaning === 'shapes' ? song.capo : 0
  const { parts, problems: called } = withCalledParts(song.parts)
  const lines = parts.flatMap((p) => p.lines)
  const naming = namingOfChords(lines.flatMap((l) => l.chords.map((c) => c.symbol)))
  const symbols = lines.flatMap((l) => l.chords)
  const readings = symbols.map((c) => chordOf(c.symbol, naming))
  const shapeKey = likelyKey(
    { chords: readings.flatMap((r) => (r.kind === 'chord' ? [r.chord] : [])) },
    song.key,
    -up,
  )
  const key = transposeKey(shapeKey, up)
  const bars = choices.bars ?? usualBars(lines)
  const made = new SheetMaker(metre, key, bars, (symbol) => {
    const reading = chordOf(symbol, naming)
    if (reading.kind !== 'chord') return undefined
    return transposeChord(reading.chord, up, key.fifths < 0)
  })
  for (const part of parts) made.part(part)
  const problems = [...song.problems, ...called, ...made.problems]
  const title = cutTo(song.title ?? choices.title ?? 'Song', LIMITS.title).text
  const bare: TuneDoc = {
    schema: TUNE_SCHEMA,
    id,
    rev: 1,
    title,
    ...(song.artist ? { composer: cutTo(song.artist, LIMITS.composer).text } : {}),
    measures: made.measures.map((m, i) => (i === made.measures.length - 1 ? { ...m, barline: 'final' } : m)),
    events: made.measures.map((m, i): TuneEvent => ({
      id: `e${i + 1}`,
      voice: 0,
      pos: { measure: m.id, tick: 0 },
      dur: durationOf(m.length),
      chordTones: [],
      graces: [],
      ornaments: [],
    })),
    chords: made.chords,
    tuplets: [],
    sections: made.sections,
    tempos: [
      {
        pos: { measure: 'm1', tick: 0 },
        bpm: song.bpm ?? USUAL_TEMPO,
        stated: song.bpm !== undefined,
      },
    ],
    // Shapes are for the tuning that the song is played in: a song in another says no strings.
    ...(song.shapes.length > 0 && song.tuning === undefined
      ? { pins: song.shapes.map((shape, i) => ({ id: `p${i + 1}`, ...shape })) }
      : {}),
    song: { lines: made.lines },
  }
  const guessed = made.measures.some((m) => m.provenance === 'guessed')
  const first = lines.find((l) => l.kind === 'sung')?.line ?? 1
  if (guessed)
    problems.push({ severity: 'note', line: first, column: 1, says: message('reading.songBars', { bars }) })
  if (song.capo > 0)
    problems.push({
      severity: 'note',
      line: first,
      column: 1,
      says: message(meaning === 'shapes' ? 'reading.songShapes' : 'reading.songSound', { capo: song.capo }),
    })
  return {
    tune: { ...bare, abc: { text: finish(writingAbc(bare)), spans: [] } },
    capo: song.capo,
    bars,
    guessed,
    ...(song.strum === undefined ? {} : { strum: song.strum }),
    ...(song.tuning === undefined ? {} : { tuning: song.tuning }),
    problems: uniqWith(problems, isEqual).toSorted((a, b) => a.line - b.line),
  }
}

/** Puts measures, chords and lines of words down, part after part. */
class SheetMaker {
  readonly measures: Measure[] = []
  readonly chords: ChordMark[] = []
  readonly sections: Section[] = []
  readonly lines: SongLine[] = []
  readonly problems: Problem[] = []
  private readonly metre: Metre
  private readonly key: Key
  private readonly usual: number
  private readonly sounding: (symbol: string) => ChordMark['parsed']

  constructor(metre: Metre, key: Key, usual: number, sounding: (symbol: string) => ChordMark['parsed']) {
    this.metre = metre
    this.key = key
    this.usual = usual
    this.sounding = sounding
  }

  part(part: WrittenPart): void {
    const from = this.measures.length
    for (const line of part.lines) if (line.kind === 'sung') this.sung(line)
    const to = this.measures.length
    if (to > from) {
      this.sections.push({
        id: `s${this.sections.length + 1}`,
        name: cutTo(part.name, LIMITS.sectionName).text,
        measure: this.measures[from]!.id,
      })
      this.repeat(from, to - 1, part.times, part.line)
    }
    this.remarks(part, from)
  }

  /** Remarks of a part stand beneath the measure before them. */
  private remarks(part: WrittenPart, from: number): void {
    let line = this.lines.length - part.lines.filter((l) => l.kind === 'sung').length
    for (const written of part.lines) {
      if (written.kind === 'sung') {
        line++
        continue
      }
      const before = line === 0 ? undefined : this.lines[line - 1]
      const measure =
        (from < this.measures.length ? before?.measures.at(-1) : undefined) ??
        this.measures[from]?.id ??
        this.measures.at(-1)?.id
      const text = cutTo(written.text.trimEnd(), LIMITS.songLine).text
      this.lines.splice(line++, 0, {
        id: `l${this.lines.length + 1}`,
        kind: 'remark',
        text,
        measures: measure === undefined ? [] : [measure],
      })
    }
  }

  private sung(line: WrittenLine): void {
    if (this.measures.length >= MOST_MEASURES) return
    const beats = beatStarts(this.metre).length
    const bars = line.bars ?? barsFor(line.chords.length, this.usual, beats)
    const length = measureLength(this.metre)
    const from = this.measures.length
    const given = line.bars !== undefined && !line.guessed
    for (let b = 0; b < bars; b++)
      this.measures.push({
        id: `m${from + b + 1}`,
        nominal: length,
        length,
        metre: this.metre,
        key: this.key,
        repeatStart: false,
        repeatEnd: 1,
        barline: 'single',
        endings: [],
        provenance: given ? 'source' : 'guessed',
      })
    const { chords, text: words } = line.like ?? line
    // Words that take the chords of a longer line have them laid on their own bars.
    const fit = chords.every((c) => (c.bar ?? 0) < bars)
    const laid = fit ? chords : chords.map(({ at, symbol }) => ({ at, symbol }))
    const timed = laidOnBars(laid, words.length, bars, beats)
    // Two chords at one moment cannot be: the later one is kept there, and the other said.
    const changes: number[] = []
    for (const { chord, bar, share } of timed) {
      const measure = `m${from + bar + 1}`
      const tick = Math.round(share * length)
      const symbol = bareChord(chord.symbol).slice(0, LIMITS.chordSymbol)
      const parsed = this.sounding(chord.symbol)
      if (!parsed && !/^n\.?\s*c\.?$/i.test(symbol))
        this.problems.push({
          severity: 'warning',
          line: line.line,
          column: chord.at + 1,
          says: message('reading.songChord', { symbol }),
        })
      changes.push(chord.at)
      this.chords.push({
        id: `c${this.chords.length + 1}`,
        pos: { measure, tick },
        symbol: parsed ? chordText(parsed) : symbol,
        origin: 'given',
        ...(parsed ? { parsed } : {}),
      })
    }
    const { text, cut } = cutTo(line.text, LIMITS.songLine)
    if (cut)
      this.problems.push({
        severity: 'warning',
        line: line.line,
        column: 1,
        says: message('reading.songLongLine', { most: LIMITS.songLine }),
      })
    this.lines.push({
      id: `l${this.lines.length + 1}`,
      kind: 'sung',
      text,
      ...(changes.length > 0 && !line.like ? { changes } : {}),
      measures: Array.from({ length: bars }, (_, b) => `m${from + b + 1}`),
      ...(line.singer ? { singer: cutTo(line.singer, LIMITS.singer).text } : {}),
    })
    for (const r of line.repeats ?? []) this.repeat(from + r.from, from + r.to, r.times, line.line)
    this.repeat(from, this.measures.length - 1, line.times, line.line)
  }

  /** A repeat sign round measures; none inside another one, which is written out in their stead. */
  private repeat(from: number, to: number, times: number, line: number): void {
    if (times < 2 || to < from) return
    const inside = this.measures.slice(from, to + 1)
    if (inside.some((m) => m.repeatStart || m.repeatEnd > 1)) {
      if (from === to || !(this.measures[from]!.repeatStart && this.measures[to]!.repeatEnd > 1)) {
        this.problems.push({
          severity: 'warning',
          line,
          column: 1,
          says: message('reading.songRepeatInside', { times }),
        })
        return
      }
    }
    const most = Math.min(times, LIMITS.passes + 1)
    this.measures[from] = { ...this.measures[from]!, repeatStart: true }
    this.measures[to] = { ...this.measures[to]!, repeatEnd: most }
  }
}
