import { harmoniseIn } from '../../arrange/harmonise/harmonise.ts'
import { withCuts } from '../../document/form/cutMeasures.ts'
import { ticksAt, timelineOf } from '../../document/form/timeline.ts'
import type { Id } from '../../document/ids.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import { TUNE_SCHEMA, type ChordMark, type Jump, type TempoMark, type TuneDoc } from '../../document/tune.ts'
import { message, type Message } from '../../messages/message.ts'
import { chordText, transposeChord } from '../../music/harmony/chordSymbol.ts'
import { transposeKey } from '../../music/pitch/key.ts'
import { midiOf } from '../../music/pitch/pitch.ts'
import { measureLength } from '../../music/time/metre.ts'
import { USUAL_TEMPO } from '../../music/time/tempo.ts'
import { chordsHeard, type SoundingNote } from '../chordsHeard.ts'
import { readEnding } from '../abc/abcFields.ts'
import type { Problem } from '../problem.ts'
import { finishMeasures, type MeasureDraft } from '../repeatedMeasures.ts'
import type { XmlMeasure, XmlNote } from './readMeasure.ts'
import type { XmlPart, XmlScore } from './readParts.ts'
import { voiceEvents } from './voiceEvents.ts'
import type { ScoreVoice } from './voices.ts'

/** Voices beside the melody that are kept. */
const MOST_VOICES = 40

/** Takes down a problem with the line of the file. */
export type Report = (severity: Problem['severity'], line: number, says: Message<'reading'>) => void

/** A tune of a score, and which of its events each note of the file is. */
export interface ScoreTune {
  readonly tune: TuneDoc
  readonly eventOf: ReadonlyMap<XmlNote, Id>
}

/**
 * The tune of a score with one of its voices as the melody; further voices are kept beside it.
 * @param tabbed the part that becomes a tab: its other voices stand there
 */
export function tuneOfScore(
  score: XmlScore,
  voices: readonly ScoreVoice[],
  melody: ScoreVoice,
  tabbed: XmlPart | undefined,
  id: Id,
  newTitle: string,
  report: Report,
): ScoreTune {
  const counters = new Map<string, number>()
  const newId = (prefix: string): Id => {
    const n = (counters.get(prefix) ?? 0) + 1
    counters.set(prefix, n)
    return prefix + String(n)
  }
  const { part } = melody
  const own = part.measures.slice(0, LIMITS.measures)
  if (part.measures.length > own.length)
    report(
      'warning',
      part.measures[own.length]!.line,
      message('reading.tooManyMeasures', { most: LIMITS.measures }),
    )
  for (const m of own)
    if (m.isCut)
      report('warning', m.line, message('reading.endlessMeasure', { wholes: LIMITS.measureWholes }))
  const drafts = draftsOf(score.parts, own, newId)
  const measures = withCuts(finishMeasures(drafts))
  const others = voices.filter((v) => v !== melody && v.part !== tabbed)
  const kept = [melody, ...others.filter((v) => v.part === part), ...others.filter((v) => v.part !== part)]
  if (kept.length > MOST_VOICES)
    report('note', 0, message('reading.voicesLeft', { count: kept.length - MOST_VOICES }))
  const read = kept.slice(0, MOST_VOICES).map((voice, v) => voiceEvents(voice, v, measures, newId))
  const ids = measures.map((m) => m.id)
  const tempos = temposOf(score.parts, ids)
  if (tempos.every((t) => !t.stated)) report('note', 0, message('reading.noTempo', { bpm: USUAL_TEMPO }))
  const bare: TuneDoc = {
    schema: TUNE_SCHEMA,
    id,
    rev: 1,
    title: cutTo(score.title || newTitle, LIMITS.title).text,
    ...(score.composer ? { composer: cutTo(score.composer, LIMITS.composer).text } : {}),
    ...(score.source ? { source: cutTo(score.source, LIMITS.source).text } : {}),
    ...(score.rights ? { rights: cutTo(score.rights, LIMITS.source).text } : {}),
    measures,
    events: read.flatMap((r) => r.events),
    chords: chordsOf(score.parts, part, ids, newId, report),
    tuplets: read.flatMap((r) => r.tuplets),
    sections: own.flatMap(({ rehearsal }, i) =>
      rehearsal === undefined
        ? []
        : [{ id: newId('s'), name: cutTo(rehearsal, LIMITS.sectionName).text, measure: ids[i]! }],
    ),
    tempos,
  }
  const eventOf = new Map(read.flatMap((r) => [...r.eventOf]))
  if (bare.chords.length > 0) return { tune: bare, eventOf }
  const heard = voices.length > 1 ? chordsHeard(measures, soundingIn(bare), newId) : []
  report('note', 0, message(heard.length > 0 ? 'reading.chordsGuessed' : 'reading.noChords'))
  return { tune: { ...bare, chords: heard.length > 0 ? heard : harmoniseIn(bare, 'family').chords }, eventOf }
}

/** Everything that sounds in a tune, on its written time line. */
function soundingIn(tune: TuneDoc): SoundingNote[] {
  const timeline = timelineOf(tune.measures)
  return tune.events.flatMap((e): SoundingNote[] => {
    const from = ticksAt(timeline, e.pos)
    const pitches = e.pitch ? [e.pitch, ...e.chordTones] : []
    return pitches.map((p) => ({ from, to: from + e.dur.ticks, midi: midiOf(p) }))
  })
}

/** Measures as long as the longest part has them, with the melody's metre, key and signs. */
function draftsOf(
  parts: readonly XmlPart[],
  own: readonly XmlMeasure[],
  newId: (prefix: string) => Id,
): MeasureDraft[] {
  let endings: readonly number[] = []
  // Some programs write repeats and signs in the first part alone.
  const all = (i: number) => parts.flatMap((p) => p.measures[i] ?? [])
  const hasFine = parts.some((p) => p.measures.some((m) => m.fine))
  const codas = own.filter((_, i) => all(i).some((m) => m.coda)).length
  return own.map((m, i) => {
    const here = all(i)
    const starts = here.find((x) => x.endingStarts !== undefined)?.endingStarts
    if (starts !== undefined) endings = readEnding(starts)
    const now = endings
    if (here.some((x) => x.endingEnds)) endings = []
    const longest = Math.max(...here.map((x) => x.length))
    const jump = here.find((x) => x.jump)?.jump
    const times = here.find((x) => x.times !== undefined)?.times
    return {
      id: newId('m'),
      length: longest > 0 ? longest : measureLength(m.metre),
      metre: m.metre,
      key: transposeKey(m.key, m.transpose),
      repeatStart: here.some((x) => x.repeatStart),
      repeats: here.some((x) => x.repeats),
      barline: m.barline,
      endings: now,
      segno: here.some((x) => x.segno),
      coda: here.some((x) => x.coda),
      fine: here.some((x) => x.fine),
      ...(times === undefined ? {} : { times }),
      ...(jump ? { jump: wholeJump(jump, hasFine, codas > 1) } : {}),
    }
  })
}

/** A bare jump leads to what the score has: a coda to come to, or Fine. */
function wholeJump(jump: Jump, hasFine: boolean, hasCoda: boolean): Jump {
  if (jump === 'daCapo') return hasCoda ? 'daCapoAlCoda' : hasFine ? 'daCapoAlFine' : jump
  if (jump === 'dalSegno') return hasCoda ? 'dalSegnoAlCoda' : hasFine ? 'dalSegnoAlFine' : jump
  return jump
}

function temposOf(parts: readonly XmlPart[], ids: readonly Id[]): TempoMark[] {
  const tempos: TempoMark[] = []
  ids.forEach((measure, i) => {
    for (const part of parts)
      for (const { tick, bpm } of part.measures[i]?.tempos ?? [])
        if (!tempos.some((t) => t.pos.measure === measure && t.pos.tick === tick))
          tempos.push({ pos: { measure, tick }, bpm, stated: true })
  })
  const first = ids[0]!
  const begins = tempos.some((t) => t.pos.measure === first && t.pos.tick === 0)
  const usual = { pos: { measure: first, tick: 0 }, bpm: USUAL_TEMPO, stated: false }
  return begins ? tempos : [usual, ...tempos]
}

/** The chord names of the melody's part, else of the first part that has any; as they sound. */
function chordsOf(
  parts: readonly XmlPart[],
  part: XmlPart,
  ids: readonly Id[],
  newId: (prefix: string) => Id,
  report: Report,
): ChordMark[] {
  const has = (p: XmlPart) => p.measures.some((m) => m.harmonies.length > 0)
  const from = has(part) ? part : parts.find(has)
  return ids.flatMap((measure, i) => {
    const read = from?.measures[i]
    if (!read) return []
    return read.harmonies.flatMap(({ tick, symbol, parsed, line, implied }): ChordMark[] => {
      if (tick >= Math.max(1, read.length)) return []
      if (!parsed && symbol !== 'N.C.')
        report('warning', line, message('reading.unknownChord', { chord: symbol }))
      const flats = transposeKey(read.key, read.transpose).fifths < 0
      const sounding = parsed && transposeChord(parsed, read.transpose, flats)
      return [
        {
          id: newId('c'),
          pos: { measure, tick },
          symbol: cutTo(sounding ? chordText(sounding) : symbol, LIMITS.chordSymbol).text,
          origin: implied ? 'suggested' : 'given',
          ...(sounding ? { parsed: sounding } : {}),
        },
      ]
    })
  })
}
