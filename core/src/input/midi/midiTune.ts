import type { Id } from '../../document/ids.ts'
import { cutTo, LIMITS, METRE_UNITS } from '../../document/limits.ts'
import {
  TUNE_SCHEMA,
  type ChordMark,
  type Measure,
  type TempoMark,
  type TuneDoc,
} from '../../document/tune.ts'
import { posAt, timelineOf } from '../../document/form/timeline.ts'
import { message, type Message } from '../../messages/message.ts'
import { readChordSymbol } from '../../music/harmony/chordSymbol.ts'
import { keyOfSignature, spellInKey, type Key } from '../../music/pitch/key.ts'
import { measureLength, type Metre } from '../../music/time/metre.ts'
import { USUAL_TEMPO } from '../../music/time/tempo.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { voiceInTime, type NoteInTime } from '../../output/notation/voiceInTime.ts'
import { likelyKey } from '../likelyKey.ts'
import type { Problem } from '../problem.ts'
import { chordsHeard } from '../chordsHeard.ts'
import type { MidiContent, MidiVoice, RecordedNote } from './midiVoices.ts'
import type { MidiChoices } from './midiChoices.ts'
import { likelyPickup, PICKUP_STEP } from './likelyPickup.ts'
import { asVoice, quantised, type Quantising, type Quantised } from './quantise.ts'

/** Voices beside the melody that are kept. */
const MOST_VOICES = 40

/** Two hours of playing at most: a file may hold silences of days. */
const MOST_MEASURES = 4000

/** What a file holds as a tune: its measures, voices, chords and tempos. */
export class MidiTune {
  /** Ticks before the first bar line. */
  readonly pickup: Ticks
  readonly firstMetre: Metre
  /** Ticks of the file at which the first measure begins. */
  private readonly origin: Ticks
  private readonly ids = new Map<string, number>()

  constructor(
    private readonly content: MidiContent,
    private readonly voices: readonly MidiVoice[],
    private readonly melody: MidiVoice,
    private readonly drawn: Quantised,
    choices: MidiChoices,
    private readonly quantising: Quantising,
  ) {
    this.firstMetre = this.metreAt(0)
    const measure = measureLength(this.firstMetre)
    const first = Math.min(...voices.map((v) => (v === melody ? drawn.notes : v.notes)[0]!.from))
    const from = Math.floor((first + QUARTER / 16) / PICKUP_STEP) * PICKUP_STEP
    const all = voices.flatMap((v) => v.notes).sort((a, b) => a.from - b.from)
    const likely = likelyPickup(all, from, measure, this.firstKey())
    const asked = choices.pickup === undefined ? likely : Math.round(choices.pickup * QUARTER)
    this.pickup = asked > 0 && asked < measure ? asked : 0
    // Empty measures before the first note are a count-in; a rest that begins the first measure is one.
    const isWritten = choices.pickup === undefined && this.pickup === 0
    this.origin = isWritten ? Math.floor(from / measure) * measure : from
  }

  tune(
    id: Id,
    title: string,
    report: (severity: Problem['severity'], says: Message<'reading'>) => void,
  ): TuneDoc {
    const key = this.firstKey()
    const measures = this.measures(key)
    if (measures.length >= MOST_MEASURES)
      report('warning', message('reading.tooManyMeasures', { most: MOST_MEASURES }))
    const timeline = timelineOf(measures)
    const others = this.voices.filter((v) => v !== this.melody)
    if (others.length >= MOST_VOICES)
      report('note', message('reading.voicesLeft', { count: others.length + 1 - MOST_VOICES }))
    const newId = (prefix: string) => {
      const n = (this.ids.get(prefix) ?? 0) + 1
      this.ids.set(prefix, n)
      return prefix + String(n)
    }
    const written = [this.melody, ...others.slice(0, MOST_VOICES - 1)].map((voice, v) => {
      const drawn = voice === this.melody ? this.drawn : quantised(voice.notes, this.quantising)
      const struck = asVoice(drawn.notes, QUARTER / this.quantising.finest)
      const notes = struck.flatMap(({ from, to, midis }): NoteInTime[] => {
        const [begins, ends] = [Math.max(0, from - this.origin), Math.min(to - this.origin, timeline.length)]
        if (ends <= begins) return []
        const lyric = v === 0 ? this.lyricAt(voice, from) : undefined
        return [
          {
            from: begins,
            to: ends,
            pitches: midis.map((m) => spellInKey(m, key)),
            ...(lyric === undefined ? {} : { lyric }),
          },
        ]
      })
      return voiceInTime(measures, notes, v, newId)
    })
    const pos = (at: Ticks) =>
      posAt(measures, timeline, Math.max(0, Math.min(at - this.origin, timeline.length - 1)))
    const named = this.content.texts.flatMap(({ at, text }): ChordMark[] => {
      const reading = readChordSymbol(text)
      if (reading.kind !== 'chord' || text.length > LIMITS.chordSymbol) return []
      return [{ id: newId('c'), pos: pos(at), symbol: text, parsed: reading.chord, origin: 'given' }]
    })
    if (named.length === 0) report('note', message('reading.chordsGuessed'))
    const all = this.voices.flatMap((v) => v.notes).map((n) => this.shifted(n))
    const tempos = this.content.tempos
      .filter(({ bpm }) => bpm >= LIMITS.slowest && bpm <= LIMITS.fastest)
      .map(({ at, bpm }): TempoMark => ({ pos: pos(at), bpm: Math.round(bpm * 100) / 100, stated: true }))
    const last = new Map(tempos.map((t) => [`${t.pos.measure} ${t.pos.tick}`, t]))
    const first = { measure: measures[0]!.id, tick: 0 }
    const begins = tempos.some((t) => t.pos.measure === first.measure && t.pos.tick === 0)
    if (!begins) report('note', message('reading.noTempo', { bpm: USUAL_TEMPO }))
    return {
      schema: TUNE_SCHEMA,
      id,
      rev: 1,
      title: cutTo(title, LIMITS.title).text,
      measures,
      events: written.flatMap((w) => w.events),
      chords: named.length > 0 ? named : this.voices.length > 1 ? chordsHeard(measures, all, newId) : [],
      tuplets: written.flatMap((w) => w.tuplets),
      sections: [],
      tempos: [...(begins ? [] : [{ pos: first, bpm: USUAL_TEMPO, stated: false }]), ...last.values()],
    }
  }

  private shifted(n: RecordedNote): RecordedNote {
    return { ...n, from: n.from - this.origin, to: n.to - this.origin }
  }

  /** The key that is stated, unless it is the one that programs write where nobody chose one and the notes say otherwise. */
  private firstKey(): Key {
    const stated = this.content.keys[0]
    const midis = this.melody.notes.map((n) => n.midi)
    const own = stated && keyOfSignature(stated.fifths, stated.minor ? 'minor' : 'major')
    return own && own.fifths !== 0 ? own : likelyKey({ midis }, undefined, 0)
  }

  private metreAt(at: Ticks): Metre {
    const known = this.content.metres.findLast((m) => m.at <= at) ?? this.content.metres[0]
    const isWhole = known && known.num >= 1 && known.num <= LIMITS.metreBeats
    return isWhole && (METRE_UNITS as readonly number[]).includes(known.den)
      ? { num: known.num, den: known.den }
      : { num: 4, den: 4 }
  }

  private measures(key: Key): Measure[] {
    const end = Math.max(
      ...asVoice(this.drawn.notes, QUARTER / this.quantising.finest).map((n) => n.to),
      ...this.voices
        .filter((v) => v !== this.melody)
        .map((v) => Math.max(...v.notes.map((n) => n.to)) - QUARTER / 8),
    )
    const measures: Measure[] = []
    let at = this.origin
    while ((at < end || measures.length === 0) && measures.length < MOST_MEASURES) {
      const metre = this.metreAt(at + QUARTER / 16)
      const nominal = measureLength(metre)
      const isPickup = measures.length === 0 && this.pickup > 0
      const length = isPickup ? this.pickup : nominal
      at += length
      measures.push({
        id: `m${measures.length + 1}`,
        nominal,
        length,
        metre,
        key,
        repeatStart: false,
        repeatEnd: 1,
        barline: at >= end ? 'final' : 'single',
        endings: [],
        provenance: 'source',
      })
    }
    return measures
  }

  /** The syllable that is sung where a note of the grid was recorded. */
  private lyricAt(voice: MidiVoice, from: Ticks): string | undefined {
    if (this.content.lyrics.length === 0) return undefined
    const index = this.drawn.notes.findIndex((n) => n.from === from)
    const recorded = voice.notes[index]?.from ?? from
    const sung = this.content.lyrics.find((l) => Math.abs(l.at - recorded) < QUARTER / 8)
    return sung === undefined || sung.text === '' ? undefined : cutTo(sung.text, LIMITS.lyric).text
  }
}
