import book, { type AbcElement, type AbcStaff, type AbcTune } from 'abcjs/src/api/abc_tunebook.js'
import { withCuts } from '../../form/cutMeasures.ts'
import { harmoniseIn } from '../../harmony/harmonise.ts'
import type { Id } from '../../model/ids.ts'
import { TUNE_SCHEMA, type Measure, type TuneDoc } from '../../model/tune.ts'
import { measureNumbers } from '../../form/measureNumbers.ts'
import { isKnownOrnament } from '../../ornament/sourceOrnaments.ts'
import { measureLength } from '../../time/metre.ts'
import { USUAL_TEMPO } from '../../time/tempo.ts'
import { QUARTER } from '../../time/ticks.ts'
import { lineColumn, type Problem } from '../problem.ts'
import { plainLines } from '../sourceText.ts'
import { readKey, readMetre } from './abcFields.ts'
import type { Propagation } from './accidentals.ts'
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
export function readAbc(text: string, newDocId: () => Id): TuneReading[] {
  const tunes = splitBook(plainLines(text))
  if (tunes.length === 0) {
    return [{ tune: undefined, problems: [noTune('the text is empty', 'paste or open a tune in ABC')] }]
  }
  return tunes.map((tune) => readOne(tune, newDocId))
}

function noTune(message: string, understood: string): Problem {
  return { severity: 'error', line: 1, column: 1, message, understood }
}

function readOne(source: BookTune, newDocId: () => Id): TuneReading {
  const problems: Problem[] = []
  if (!/^K:/m.test(source.text)) {
    if (!/[|]/.test(source.text)) {
      return {
        tune: undefined,
        problems: [
          {
            ...noTune(
              'this does not look like a tune in ABC',
              'nothing was read; a tune needs a key (K:) and notes with bar lines',
            ),
            line: source.lineOffset + 1,
          },
        ],
      }
    }
    problems.push({
      severity: 'warning',
      line: source.lineOffset + 1,
      column: 1,
      message: 'there is no key (K:)',
      understood: 'read in C major',
    })
  }
  let raw: AbcTune | undefined
  try {
    raw = book.parseOnly(fieldsBeforeChords(source.text))[0]
  } catch {
    raw = undefined
  }
  if (!raw)
    return {
      tune: undefined,
      problems: [
        { ...noTune('the text could not be parsed', 'nothing was read'), line: source.lineOffset + 1 },
      ],
    }
  for (const w of raw.warnings ?? []) problems.push(readWarning(w, source.lineOffset))
  const tune = buildTune(raw, source, newDocId, problems)
  return { tune, problems: tidy(problems) }
}

/**
 * The parser takes a chord symbol that stands before an inline field for the start of a chord of notes. The two are
 * exchanged; the text keeps its length, so that places stay right to within the line.
 */
function fieldsBeforeChords(text: string): string {
  return text.replace(/((?:"[^"\n]*"[ \t]*)+)((?:\[[A-Za-z]:[^\]\n]*\][ \t]*)+)/g, '$2$1')
}

/** Joins problems of one kind that stand side by side, so that a line of rubbish is one message. */
function tidy(problems: readonly Problem[]): Problem[] {
  const sorted = [...problems].sort((a, b) => a.line - b.line || a.column - b.column)
  return sorted.filter((p, i) => {
    const before = sorted[i - 1]
    return (
      !before || before.line !== p.line || before.understood !== p.understood || before.column < p.column - 1
    )
  })
}

function buildTune(
  raw: AbcTune,
  source: BookTune,
  newDocId: () => Id,
  problems: Problem[],
): TuneDoc | undefined {
  const report = (severity: Problem['severity'], offset: number, message: string, understood: string) => {
    const place = lineColumn(source.text, offset)
    problems.push({
      severity,
      line: place.line + source.lineOffset,
      column: place.column,
      message,
      understood,
    })
  }
  checkMetreFields(source, problems)
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
      ...noTune('the tune holds no notes', 'nothing to arrange; write the melody after the K: line'),
      line: source.lineOffset + 1,
    })
    return undefined
  }
  if (silent && melody.chords.length > 0)
    report('note', 0, 'the tune has chords and no melody', 'it can be accompanied')
  else if (silent)
    report('note', 0, 'nothing but rests yet', 'notes can be written on the staff or in the tab')
  const measures = withCuts(finishMeasures(melody.measures))
  reportMeasures(measures, melody.measures, report)
  reportKept(voices, report)
  if (raw.metaText.partOrder)
    report(
      'note',
      0,
      `an order of parts (P:${raw.metaText.partOrder})`,
      'kept in the text; the tune is played as its repeats say',
    )
  const stated = quarterTempo(raw.metaText.tempo)
  const tempos = [...melody.tempos]
  const first = { measure: measures[0]!.id, tick: 0 }
  if (!tempos.some((t) => t.pos.measure === first.measure && t.pos.tick === 0)) {
    tempos.unshift({ pos: first, bpm: stated ?? USUAL_TEMPO, stated: stated !== undefined })
  }
  if (tempos.every((t) => !t.stated))
    report('note', 0, 'no tempo is given', `played at ${USUAL_TEMPO} quarter notes a minute`)
  const tune: TuneDoc = {
    schema: TUNE_SCHEMA,
    id: newDocId(),
    rev: 1,
    title: raw.metaText.title?.trim() || 'Untitled',
    ...(raw.metaText.composer ? { composer: raw.metaText.composer } : {}),
    ...(raw.metaText.source ? { source: raw.metaText.source } : {}),
    measures,
    events: otherVoicesPlaced(voices, measures),
    chords: melody.chords,
    tuplets: voices.flatMap((v) => v.tuplets),
    sections: melody.sections,
    tempos,
    abc: { text: source.text, spans: voices.flatMap((v) => v.spans) },
  }
  if (tune.chords.length > 0 || silent) return tune
  report('note', 0, 'no chords are given', 'a simple harmony of the key is suggested; change it as you like')
  return { ...tune, chords: [...tune.chords, ...harmoniseIn(tune, 'family').chords] }
}

/** The parser falls back silently on some impossible metres, so the fields are read again here. */
function checkMetreFields(source: BookTune, problems: Problem[]): void {
  source.text.split('\n').forEach((line, i) => {
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
      message: `"${value}" is an impossible metre`,
      understood: 'read in 4/4; measures keep the notes they have',
    })
  })
}

function readVoices(
  raw: AbcTune,
  source: BookTune,
  report: (severity: Problem['severity'], offset: number, message: string, understood: string) => void,
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
        if (!readers[index]) {
          readers[index] = new VoiceReader(
            {
              voice: index,
              metre: readMetre(staff.meter ?? staves[0]?.meter) ?? { num: 4, den: 4 },
              key: readKey(staff.key),
              signature: staff.key?.accidentals ?? [],
              transpose: clefTranspose(staff),
              propagation: propagation ?? 'pitch',
            },
            index === 0 ? report : () => undefined,
            newId,
          )
          staves[index] = staff
        }
        voice.forEach((element: AbcElement) => readers[index]!.read(element))
        index++
      }
    }
  }
  return readers.map((r) => r.finish())
}

function clefTranspose(staff: AbcStaff): number {
  const type = staff.clef?.type ?? ''
  const octave = type.endsWith('-8') ? -12 : type.endsWith('+8') ? 12 : 0
  return octave + (staff.clef?.transpose ?? 0)
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

function reportMeasures(
  measures: readonly Measure[],
  drafts: readonly DraftMeasure[],
  report: (severity: Problem['severity'], offset: number, message: string, understood: string) => void,
): void {
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
      const has = `${beats(m.length)} of ${beats(m.nominal)} quarter notes`
      report('warning', drafts[i]!.from, `measure ${numbers[i]} has ${has}`, 'kept as written')
    }
  })
}

function beats(ticks: number): string {
  return String(Number((ticks / QUARTER).toFixed(3)))
}

function reportKept(
  voices: readonly VoiceReading[],
  report: (severity: Problem['severity'], offset: number, message: string, understood: string) => void,
): void {
  const kept = 'kept in the tune and shown, not arranged yet'
  const first = voices[0]!
  const at = (id: Id | undefined) => first.spans.find((s) => s.target === id)?.from ?? 0
  const graces = first.events.filter((e) => e.graces.length > 0)
  const ornaments = first.events.filter((e) => e.ornaments.length > 0)
  const stacked = first.events.filter((e) => e.chordTones.length > 0)
  const unknown = ornaments.filter((e) => e.ornaments.some((o) => !isKnownOrnament(o)))
  if (graces.length > 0)
    report('note', at(graces[0]!.id), `grace notes on ${graces.length} notes`, 'played where the hand can')
  if (ornaments.length > unknown.length)
    report(
      'note',
      at(ornaments.find((e) => !unknown.includes(e))!.id),
      `ornaments on ${ornaments.length - unknown.length} notes`,
      'played where the hand can',
    )
  if (unknown.length > 0)
    report('note', at(unknown[0]!.id), `ornaments of other kinds on ${unknown.length} notes`, kept)
  if (stacked.length > 0)
    report(
      'note',
      at(stacked[0]!.id),
      `notes under the melody in ${stacked.length} places`,
      'the top note is the melody; the others are kept, not arranged yet',
    )
  if (voices.length > 1)
    report(
      'note',
      0,
      `${voices.length} voices`,
      'the first is the melody; the others are kept, not arranged yet',
    )
}

/** Events of all voices; those beyond the melody are laid over the melody's measures by their order. */
function otherVoicesPlaced(voices: readonly VoiceReading[], measures: readonly Measure[]): TuneDoc['events'] {
  return voices.flatMap((voice, v) => {
    if (v === 0) return voice.events
    const place = new Map(voice.measures.map((m, i) => [m.id, measures[i]?.id]))
    return voice.events.flatMap((e) => {
      const measure = place.get(e.pos.measure)
      return measure ? [{ ...e, pos: { ...e.pos, measure } }] : []
    })
  })
}
