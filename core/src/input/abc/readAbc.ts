import { knownIn, present } from '../../invariant.ts'
import type { AbcElement, AbcStaff, AbcTune } from 'abcjs/src/api/abc_tunebook.js'
import { withCuts } from '../../document/form/cutMeasures.ts'
import { harmoniseIn } from '../../arrange/harmonise/harmonise.ts'
import type { Id } from '../../document/ids.ts'
import { durationOf } from '../../document/durationOf.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import {
  TUNE_SCHEMA,
  type Measure,
  type TempoMark,
  type TuneDoc,
  type TuneEvent,
} from '../../document/tune.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { isKnownOrnament } from '../../arrange/ornament/sourceOrnaments.ts'
import { measureLength } from '../../music/time/metre.ts'
import { USUAL_TEMPO } from '../../music/time/tempo.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { finish, mapInTurns, type Turns } from '../../turns.ts'
import { lineStarts } from '../lineStarts.ts'
import { message } from '../../messages/message.ts'
import { placesIn, type Problem } from '../problem.ts'
import type { Rewritten } from '../rewritten.ts'
import { plainLines } from '../sourceText.ts'
import { clefTranspose, readKey, readMetre } from './abcFields.ts'
import { abcSource } from './abcSource.ts'
import type { Propagation } from './accidentals.ts'
import { sungWords } from './lyricLines.ts'
import { parseAbc } from './parseAbc.ts'
import { quarterTempo, VoiceReader, type DraftMeasure, type VoiceReading } from './readVoice.ts'
import { readWarning } from './readWarnings.ts'
import { splitBook, type BookTune } from './splitBook.ts'

/** One tune of a text: the document, or nothing where no note could be read; and all that was odd. */
export interface TuneReading {
  readonly tune: TuneDoc | undefined
  readonly problems: readonly Problem[]
}

/**
 * Reads a text in ABC (standard 2.1), one result for each tune in it. Never throws: what cannot be read is a problem
 * with its line, its column and what was understood instead.
 */
export const readAbc = (text: string, newDocId: () => Id): TuneReading[] => finish(readingAbc(text, newDocId))

/** The same in turns, one a tune: books are long. */
export function* readingAbc(text: string, newDocId: () => Id): Turns<TuneReading[]> {
  const tunes = splitBook(plainLines(text))
  if (tunes.length === 0) {
    return [{ tune: undefined, problems: [noTune(message('reading.empty'))] }]
  }
  return yield* mapInTurns(tunes, (tune) => readOne(tune, newDocId), 1)
}

const noTune = (says: Problem['says']): Problem => ({ severity: 'error', line: 1, column: 1, says })

/** Most problems of one tune that are told one by one. */
const MOST_PROBLEMS = 200

function readOne(source: BookTune, newDocId: () => Id): TuneReading {
  const problems: Problem[] = []
  const refused = (says: Problem['says']): TuneReading => ({
    tune: undefined,
    problems: tidy([...problems, { ...noTune(says), line: source.lineOffset + 1 }]),
  })
  try {
    if (source.text.length > LIMITS.sourceText) return refused(message('reading.tooLong'))
    if (!/^[ \t]*K:/m.test(source.text) && !/[|]/.test(source.text)) return refused(message('reading.notAbc'))
    const tune = understand(source, newDocId, problems)
    return { tune, problems: tidy(problems) }
  } catch (error) {
    return refused(message('reading.unreadable', { reason: (error as Error).message }))
  }
}

function understand(source: BookTune, newDocId: () => Id, problems: Problem[]): TuneDoc | undefined {
  const { source: ready, remarks } = abcSource(source.text)
  const placeOf = placesIn(source.text)
  const reportIn: Report = (severity, offset, says) => {
    const { line, column } = placeOf(offset)
    problems.push({ severity, line: line + source.lineOffset, column, says })
  }
  for (const r of remarks) reportIn(r.severity, r.offset, r.says)
  if (!/^[ \t]*K:/m.test(source.text)) reportIn('warning', 0, message('reading.noKey'))
  const { raw, badLines } = parseAbc(ready.text)
  const lines = ready.text.split('\n')
  const starts = lineStarts(lines)
  const lineStart = (index: number) => starts[index] ?? ready.text.length
  for (const i of badLines) reportIn('warning', ready.toSource(lineStart(i)), message('reading.badLine'))
  if (!raw) {
    reportIn('error', 0, message('reading.unparsed'))
    return undefined
  }
  for (const w of raw.warnings ?? []) {
    const { line, column, says } = readWarning(w)
    reportIn('warning', ready.toSource(lineStart(line - 1) + column - 1), says)
  }
  return buildTune(raw, source, ready, newDocId, problems, reportIn)
}

type Report = (severity: Problem['severity'], offset: number, says: Problem['says']) => void

type TooLong = 'reading.longTitle' | 'reading.longComposer' | 'reading.longSource'

/** Joins problems of one kind that stand side by side, so that a line of rubbish is one message. */
function tidy(problems: readonly Problem[]): Problem[] {
  const sorted = [...problems].sort((a, b) => a.line - b.line || a.column - b.column)
  const kept = sorted.filter((p, i) => {
    const before = sorted[i - 1]
    return (
      !before || before.line !== p.line || before.says.code !== p.says.code || before.column < p.column - 1
    )
  })
  if (kept.length <= MOST_PROBLEMS) return kept
  const { line } = kept[MOST_PROBLEMS]!
  const more = kept.length - MOST_PROBLEMS
  return [
    ...kept.slice(0, MOST_PROBLEMS),
    {
      severity: 'warning',
      line,
      column: 1,
      says: message('reading.moreProblems', { count: more }),
    },
  ]
}

function buildTune(
  raw: AbcTune,
  source: BookTune,
  ready: Rewritten,
  newDocId: () => Id,
  problems: Problem[],
  reportIn: Report,
): TuneDoc | undefined {
  const report: Report = (severity, offset, says) => reportIn(severity, ready.toSource(offset), says)
  checkFields(source, problems)
  const counters = new Map<string, number>()
  const newId = (prefix: string): Id => {
    const n = (counters.get(prefix) ?? 0) + 1
    counters.set(prefix, n)
    return prefix + String(n)
  }
  const voices = readVoices(raw, source, report, newId)
  const melody = voices[0]
  const silent = !melody?.events.some((e) => e.pitch)
  // A page of rests with a metre is a tune that is still to be written.
  const blank = silent && Boolean(melody?.events.length) && /^M:/m.test(source.text)
  if (!melody || (silent && !blank && !melody.chords.some((c) => c.parsed))) {
    problems.push({
      ...noTune(message('reading.noNotes')),
      line: source.lineOffset + 1,
    })
    return undefined
  }
  if (silent && melody.chords.length > 0) report('note', 0, message('reading.noMelody'))
  else if (silent) report('note', 0, message('reading.onlyRests'))
  const drafts = withFurtherMeasures(voices, newId, report)
  const measures = withCuts(finishMeasures(drafts))
  reportMeasures(measures, drafts, report)
  reportKept(voices, report)
  if (raw.metaText.partOrder)
    report('note', 0, message('reading.partOrder', { parts: plainText(raw.metaText.partOrder) }))
  const stated = quarterTempo(raw.metaText.tempo)
  if (raw.metaText.tempo?.bpm && stated === undefined)
    report('warning', 0, message('reading.tempoBeyond', { slowest: LIMITS.slowest, fastest: LIMITS.fastest }))
  singWords(voices, ready, source, report, reportIn)
  const laidOver = otherVoicesPlaced(voices, drafts, report)
  const tempos = [...laidOver.tempos]
  const first = { measure: measures[0]!.id, tick: 0 }
  if (!tempos.some((t) => t.pos.measure === first.measure && t.pos.tick === 0)) {
    tempos.unshift({ pos: first, bpm: stated ?? USUAL_TEMPO, stated: stated !== undefined })
  }
  if (tempos.every((t) => !t.stated)) report('note', 0, message('reading.noTempo', { bpm: USUAL_TEMPO }))
  const within = (text: string, most: number, code: TooLong): string => {
    const { text: kept, cut } = cutTo(text, most)
    if (cut) report('warning', 0, message(code, { letters: text.length, most }))
    return kept
  }
  const { title, composer, source: from } = raw.metaText
  const tune: TuneDoc = {
    schema: TUNE_SCHEMA,
    id: newDocId(),
    rev: 1,
    title: within(plainText(title) || 'Untitled', LIMITS.title, 'reading.longTitle'),
    ...(composer ? { composer: within(plainText(composer), LIMITS.composer, 'reading.longComposer') } : {}),
    ...(from ? { source: within(plainText(from), LIMITS.source, 'reading.longSource') } : {}),
    measures,
    events: laidOver.events,
    chords: melody.chords,
    tuplets: voices.flatMap((v) => v.tuplets),
    sections: melody.sections,
    tempos,
    abc: {
      text: source.text,
      spans: voices.flatMap((v) =>
        v.spans.map(({ target, from, to }) => ({
          target,
          from: ready.toSource(from),
          to: ready.toSource(to),
        })),
      ),
    },
  }
  if (tune.chords.length > 0 || silent) return tune
  report('note', 0, message('reading.noChords'))
  return { ...tune, chords: [...tune.chords, ...harmoniseIn(tune, 'family').chords] }
}

/** Puts the words of the `w:` lines under the notes of the voices. */
function singWords(
  voices: readonly VoiceReading[],
  ready: Rewritten,
  source: BookTune,
  report: Report,
  reportIn: Report,
): void {
  if (!/^w:/m.test(source.text)) return
  const lines = source.text.split('\n')
  const placeOf = placesIn(source.text)
  const starts = lineStarts(lines)
  const sung = voices.flatMap((voice) => {
    const spans = new Map(voice.spans.map((s) => [s.target, s.from]))
    return voice.events.flatMap((e) => {
      const from = e.pitch && spans.get(e.id)
      return from === undefined
        ? []
        : [{ id: e.id, line: placeOf(ready.toSource(from)).line - 1, measure: e.pos.measure, from }]
    })
  })
  const { verses, left } = sungWords(lines, sung)
  const fromOf = new Map(sung.map((n) => [n.id, n.from]))
  for (const { line, words } of left)
    reportIn(
      'warning',
      starts[line]!,
      message('reading.syllablesLeft', { count: words.length, words: words.slice(0, 6).join(' ') }),
    )
  for (const voice of voices)
    voice.events.forEach((e, i) => {
      const own = verses.get(e.id)
      if (!own || own.every((v) => v === '' || v === '-')) return
      const [lyric = '', ...moreLyrics] = own.map((text) => {
        const { text: kept, cut } = cutTo(text, LIMITS.lyric)
        if (cut)
          report(
            'warning',
            knownIn(fromOf, e.id),
            message('reading.longSyllable', { letters: text.length, most: LIMITS.lyric }),
          )
        return kept
      })
      voice.events[i] = { ...e, lyric, ...(moreLyrics.some(Boolean) ? { moreLyrics } : {}) }
    })
}

/** A field of the head as one line; the parser gives some as lists of lines. */
const plainText = (field: unknown): string =>
  (typeof field === 'string' ? field : Array.isArray(field) ? field.join(' ') : '')
    .replace(/\s+/g, ' ')
    .trim()

/** The parser falls back silently on some impossible metres and unit lengths, so the fields are read again here. */
function checkFields(source: BookTune, problems: Problem[]): void {
  source.text.split('\n').forEach((line, i) => {
    const unit = /^L:\s*([^%]*?)\s*(%.*)?$/.exec(line)?.[1]
    if (unit !== undefined && unit !== '' && !/^(1|1?\/(1|2|4|8|16|32|64|128|256|512))$/.test(unit))
      problems.push({
        severity: 'warning',
        line: i + 1 + source.lineOffset,
        column: 3,
        says: message('reading.badUnit', { unit }),
      })
    const field = /^M:\s*([^%]*)/.exec(line)
    const value = field?.[1]?.trim() ?? ''
    if (!field || value === '' || /^(C\||C|none)$/.test(value)) return
    const fraction = /^\(?([\d+ ]+)\)?\/(\d+)$/.exec(value)
    if (fraction && readMetre({ type: 'specified', value: [{ num: fraction[1]!, den: fraction[2]! }] }))
      return
    problems.push({
      severity: 'warning',
      line: i + 1 + source.lineOffset,
      column: 3,
      says: message('reading.badMetre', { metre: value }),
    })
  })
}

function readVoices(
  raw: AbcTune,
  source: BookTune,
  report: Report,
  newId: (prefix: string) => Id,
): VoiceReading[] {
  const readers: VoiceReader[] = []
  const staves: AbcStaff[] = []
  const propagation = /^%%propagate-accidentals\s+(not|octave|pitch)/m.exec(source.text)?.[1] as
    Propagation | undefined
  for (const line of raw.lines) {
    let index = 0
    for (const staff of line.staff ?? []) {
      for (const voice of staff.voices) {
        const known = readers[index]
        if (!known) {
          readers[index] = new VoiceReader(
            {
              voice: index,
              metre: readMetre(staff.meter ?? staves[0]?.meter) ?? { num: 4, den: 4 },
              key: readKey(staff.key),
              signature: staff.key?.accidentals ?? [],
              transpose: clefTranspose(staff.clef),
              propagation: propagation ?? 'pitch',
            },
            report,
            newId,
          )
          staves[index] = staff
        } else known.newLine(staff)
        voice.forEach((element: AbcElement) => readers[index]!.read(element))
        index++
      }
    }
  }
  return readers.map((r) => r.finish())
}

/** Settles repeats once all endings of a group are known. */
function finishMeasures(drafts: readonly DraftMeasure[]): Measure[] {
  return drafts.map((d, i) => ({
    id: d.id,
    nominal: measureLength(d.metre),
    length: d.length,
    metre: d.metre,
    key: d.key,
    repeatStart: d.repeatStart,
    repeatEnd: d.repeats ? timesPlayed(drafts, i) : 1,
    barline: i === drafts.length - 1 && d.barline === 'none' ? 'single' : d.barline,
    endings: d.endings,
    ...(d.segno ? { segno: true } : {}),
    ...(d.coda ? { coda: true } : {}),
    ...(d.fine ? { fine: true } : {}),
    ...(d.jump ? { jump: d.jump } : {}),
    provenance: 'source',
  }))
}

/**
 * How often the passage that ends at this repeat sign is played: as often as its group of endings has passes. A lone
 * ending is followed by one more pass without it. A sign at the group's last pass only closes the group.
 */
function timesPlayed(drafts: readonly DraftMeasure[], at: number): number {
  const own = drafts[at]!.endings
  if (own.length === 0) return 2
  let from = at
  while (from > 0 && drafts[from - 1]!.endings.length > 0) from--
  let to = at
  while (to + 1 < drafts.length && drafts[to + 1]!.endings.length > 0) to++
  const group = drafts.slice(from, to + 1)
  const alone = group.every((m) => m.endings.join() === own.join())
  const last = Math.max(...group.flatMap((m) => m.endings))
  return alone ? last + 1 : last
}

function reportMeasures(measures: readonly Measure[], drafts: readonly DraftMeasure[], report: Report): void {
  const numbers = measureNumbers(measures)
  measures.forEach((m, i) => {
    const before = measures[i - 1]
    const after = measures[i + 1]
    const edge =
      !before ||
      !after ||
      m.repeatStart ||
      after.repeatStart ||
      m.repeatEnd > 1 ||
      before.repeatEnd > 1 ||
      m.barline !== 'single' ||
      before.barline !== 'single' ||
      after.endings.length !== m.endings.length
    if (m.length > m.nominal || (m.length < m.nominal && !edge)) {
      const values = { number: numbers[i]!, beats: beats(m.length), nominal: beats(m.nominal) }
      report('warning', drafts[i]!.from, message('reading.oddMeasure', values))
    }
  })
}

function beats(ticks: number): string {
  return String(Number((ticks / QUARTER).toFixed(3)))
}

function reportKept(voices: readonly VoiceReading[], report: Report): void {
  const first = voices[0]!
  const at = (id: Id | undefined) => first.spans.find((s) => s.target === id)?.from ?? 0
  const graces = first.events.filter((e) => e.graces.length > 0)
  const ornaments = first.events.filter((e) => e.ornaments.length > 0)
  const stacked = first.events.filter((e) => e.chordTones.length > 0)
  const unknown = ornaments.filter((e) => e.ornaments.some((o) => !isKnownOrnament(o)))
  if (graces.length > 0)
    report('note', at(graces[0]!.id), message('reading.graceNotes', { count: graces.length }))
  if (ornaments.length > unknown.length)
    report(
      'note',
      at(present(ornaments.find((e) => !unknown.includes(e))).id),
      message('reading.ornaments', { count: ornaments.length - unknown.length }),
    )
  if (unknown.length > 0)
    report('note', at(unknown[0]!.id), message('reading.otherOrnaments', { count: unknown.length }))
  if (stacked.length > 0)
    report('note', at(stacked[0]!.id), message('reading.notesUnderMelody', { count: stacked.length }))
  if (voices.length > 1) report('note', 0, message('reading.voices', { count: voices.length }))
}

/**
 * The melody's measures, and those that another voice has beyond them: there the melody rests.
 */
function withFurtherMeasures(
  voices: readonly VoiceReading[],
  newId: (prefix: string) => Id,
  report: Report,
): DraftMeasure[] {
  const melody = voices[0]!
  const drafts = [...melody.measures]
  voices.forEach((voice, v) => {
    for (const measure of voice.measures.slice(drafts.length)) {
      if (drafts.length === melody.measures.length)
        report('note', measure.from, message('reading.voiceGoesOn', { voice: v + 1 }))
      const id = newId('m')
      drafts.push({ ...measure, id })
      melody.events.push({
        id: newId('e'),
        voice: 0,
        pos: { measure: id, tick: 0 },
        dur: durationOf(measure.length),
        chordTones: [],
        graces: [],
        ornaments: [],
      })
    }
    if (v > 0)
      voice.measures.forEach((m, i) => {
        if (m.length > drafts[i]!.length)
          report('warning', m.from, message('reading.voiceLonger', { voice: v + 1 }))
        else if (m.length < drafts[i]!.length) {
          report('warning', m.from, message('reading.voiceShorter', { voice: v + 1 }))
          untie(voice, m)
        }
      })
  })
  return drafts
}

/** A note that is followed by a rest leads nowhere. */
function untie(voice: VoiceReading, measure: DraftMeasure): void {
  voice.events.forEach((e, i) => {
    if (e.tieTo === undefined || e.pos.measure !== measure.id || e.pos.tick + e.dur.ticks < measure.length)
      return
    const { tieTo: _, ...free } = e
    voice.events[i] = free
  })
}

/**
 * Events and tempos of all voices; those beyond the melody are laid over the melody's measures by their order. Voices that
 * hold nothing are not counted.
 */
function otherVoicesPlaced(
  voices: readonly VoiceReading[],
  measures: readonly DraftMeasure[],
  report: Report,
): { events: TuneEvent[]; tempos: TempoMark[] } {
  const events: TuneEvent[] = []
  const tempos: TempoMark[] = []
  const melodyEnd = new Map<Id, Ticks>()
  for (const { pos, dur } of voices[0]?.events ?? [])
    melodyEnd.set(pos.measure, Math.max(melodyEnd.get(pos.measure) ?? 0, pos.tick + dur.ticks))
  const heard = voices.filter((voice, v) => v === 0 || voice.events.length > 0)
  heard.forEach((voice, v) => {
    const place = new Map(voice.measures.map((m, i) => [m.id, v === 0 ? m.id : measures[i]!.id]))
    const placed = <T extends { readonly pos: TuneEvent['pos'] }>(x: T): T => ({
      ...x,
      pos: { ...x.pos, measure: place.get(x.pos.measure) ?? x.pos.measure },
    })
    for (const e of voice.events) events.push({ ...placed(e), voice: v })
    for (const tempo of voice.tempos.map(placed)) {
      const { measure, tick } = tempo.pos
      if (v > 0 && tick > 0 && tick >= (melodyEnd.get(measure) ?? 0)) {
        report(
          'warning',
          measures.find((m) => m.id === measure)?.from ?? 0,
          message('reading.tempoAfterMelody', { voice: v + 1 }),
        )
        continue
      }
      if (!tempos.some((t) => t.pos.measure === tempo.pos.measure && t.pos.tick === tempo.pos.tick))
        tempos.push(tempo)
    }
  })
  const order = new Map(measures.map((m, i) => [m.id, i]))
  tempos.sort(
    (a, b) => knownIn(order, a.pos.measure) - knownIn(order, b.pos.measure) || a.pos.tick - b.pos.tick,
  )
  return { events, tempos }
}
