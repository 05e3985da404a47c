import type { AbcTune } from 'abcjs/src/api/abc_tunebook.js'
import { withCuts } from '../../document/form/cutMeasures.ts'
import { harmoniseIn } from '../../arrange/harmonise/harmonise.ts'
import type { Id } from '../../document/ids.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import { TUNE_SCHEMA, type TuneDoc } from '../../document/tune.ts'
import { USUAL_TEMPO } from '../../music/time/tempo.ts'
import { message } from '../../messages/message.ts'
import { type Problem } from '../problem.ts'
import type { Rewritten } from '../rewritten.ts'
import { quarterTempo } from './quarterTempo.ts'
import { type BookTune } from './splitBook.ts'
import type { Report } from './voiceReading.ts'
import { singWords } from './singWords.ts'
import { wordsOnRests } from './wordsOnRests.ts'
import { readVoices } from './readVoices.ts'
import { otherVoicesPlaced, withFurtherMeasures } from './voicesTogether.ts'
import { finishMeasures } from '../repeatedMeasures.ts'
import { checkFields, reportKept, reportMeasures } from './remarks.ts'
import type { GivenPlace } from './placeMarks.ts'
import { noTune } from './noTune.ts'

type TooLong = 'reading.longTitle' | 'reading.longComposer' | 'reading.longSource'

/** A tune, and where its notes are to be played, where the text says so. */
export interface PlacedTune {
  readonly tune: TuneDoc
  readonly places: ReadonlyMap<Id, readonly GivenPlace[]>
}

/** The tune of a parsed text; undefined, and said, where it holds no notes. */
export function buildTune(
  raw: AbcTune,
  source: BookTune,
  ready: Rewritten,
  newDocId: () => Id,
  problems: Problem[],
  reportIn: Report,
): PlacedTune | undefined {
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
  if (!silent) singWords(voices, ready, source, report, reportIn)
  const onRests = silent ? wordsOnRests(melody, ready, source) : []
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
    ...(onRests.length > 0 ? { song: { lines: onRests } } : {}),
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
  const places = new Map(voices.flatMap((v) => [...v.places]))
  if (tune.chords.length > 0 || silent) return { tune, places }
  report('note', 0, message('reading.noChords'))
  return { tune: { ...tune, chords: [...tune.chords, ...harmoniseIn(tune, 'family').chords] }, places }
}

/** A field of the head as one line; the parser gives some as lists of lines. */
const plainText = (field: unknown): string =>
  (typeof field === 'string' ? field : Array.isArray(field) ? field.join(' ') : '')
    .replace(/\s+/g, ' ')
    .trim()
