import { knownIn } from '../../invariant.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { Id } from '../../document/ids.ts'
import type { TabNote } from '../../document/tab.ts'
import type { TuneDoc, TuneEvent } from '../../document/tune.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { spellInKey, transposeKey, type Key } from '../../music/pitch/key.ts'
import { midiOf, type Pitch } from '../../music/pitch/pitch.ts'
import { inFullMeasure } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { tupletSpans, writtenParts, type TupletSpan, type WrittenPart } from '../notation/writtenSpans.ts'

/** A note of a sign: what sounds, and what it is in the tab or the tune. */
export interface Sounded {
  readonly pitch: Pitch
  readonly note?: TabNote
}

/** A note, chord or rest of one voice as it is written. */
export interface VoiceSign extends WrittenPart {
  /** Empty for a rest. */
  readonly sounded: readonly Sounded[]
  readonly tiedFrom: boolean
  readonly tiedTo: boolean
  /** The event of the tune that begins here, with its words and graces. */
  readonly event?: TuneEvent
}

/** A voice, measure by measure. */
export type VoiceMeasures = readonly (readonly VoiceSign[])[]

/** A voice of the tune as its source writes it, moved by semitones. */
export function tuneVoice(tune: TuneDoc, voice: number, transposed: number): VoiceMeasures {
  const spans = statedTuplets(tune, voice)
  const continued = new Set(tune.events.flatMap((e) => e.tieTo ?? []))
  return tune.measures.map((m) =>
    tune.events
      .filter((e) => e.voice === voice && e.pos.measure === m.id)
      .map((e): VoiceSign => {
        const { tupletId, ticks, base, dots } = e.dur
        const tuplet = tupletId === undefined ? undefined : spans.get(tupletId)
        const key = transposeKey(m.key, transposed)
        return {
          tick: e.pos.tick,
          ticks,
          base,
          dots,
          ...(tuplet ? { tuplet } : {}),
          sounded: (e.pitch ? [e.pitch, ...e.chordTones] : []).map((p) => ({
            pitch: moved(p, transposed, key),
          })),
          tiedFrom: continued.has(e.id),
          tiedTo: e.tieTo !== undefined,
          event: e,
        }
      }),
  )
}

/** A pitch of the tune, moved and spelled in the key that it comes to. */
export const moved = (pitch: Pitch, semitones: number, key: Key): Pitch =>
  semitones % 12 === 0
    ? { ...pitch, octave: pitch.octave + semitones / 12 }
    : spellInKey(midiOf(pitch) + semitones, key)

function statedTuplets(tune: TuneDoc, voice: number): ReadonlyMap<Id, TupletSpan> {
  const spans = new Map<Id, TupletSpan>()
  const ratios = new Map(tune.tuplets.map((t) => [t.id, t]))
  for (const e of tune.events) {
    const ratio = e.dur.tupletId === undefined ? undefined : ratios.get(e.dur.tupletId)
    if (e.voice !== voice || !ratio) continue
    const known = spans.get(ratio.id)
    spans.set(ratio.id, {
      from: known?.from ?? e.pos.tick,
      to: e.pos.tick + e.dur.ticks,
      actual: ratio.actual,
      normal: ratio.normal,
    })
  }
  return spans
}

/** Notes that begin together, and how long they are written in their voice. */
interface Moment {
  readonly from: Ticks
  readonly to: Ticks
  readonly notes: readonly TabNote[]
}

/** What the tab of a voice is written from. */
export interface TabVoice {
  readonly tune: TuneDoc
  readonly timeline: Timeline
  readonly setup: Setup
  readonly transposed: number
  readonly notes: readonly TabNote[]
}

/**
 * A voice of a tab: notes that begin together are a chord, each lasts until the next one of its voice at most. What plays the tune as it
 * stands is written in its values.
 * @param isTune true for the voice that has the tune: its gaps are rests
 */
export function tabVoice(
  { tune, timeline, setup, transposed, notes }: TabVoice,
  isTune: boolean,
): VoiceMeasures {
  const moments = momentsOf(notes, timeline)
  const chains = isTune ? chainsOf(tune, timeline) : new Map<Id, Chain>()
  const stated = isTune ? statedTuplets(tune, 0) : new Map<Id, TupletSpan>()
  const inMeasure = new Map<Id, TupletSpan[]>()
  if (isTune)
    for (const e of tune.events) {
      const span = e.dur.tupletId === undefined ? undefined : stated.get(e.dur.tupletId)
      const own = inMeasure.get(e.pos.measure) ?? []
      if (span && !own.includes(span)) inMeasure.set(e.pos.measure, [...own, span])
    }
  const events = new Map(tune.events.map((e) => [e.id, e]))
  return tune.measures.map((m, i) => {
    const start = timeline.starts[i]!
    const end = start + m.length
    const own = moments.filter((x) => x.from < end && x.to > start)
    const edges = own.flatMap((x) => [x.from, x.to]).filter((t) => t > start && t < end)
    const origin = -inFullMeasure(m, 0)
    const spans = tupletSpans(
      edges.map((t) => t - start),
      m.length,
      origin,
      inMeasure.get(m.id),
    )
    const key = transposeKey(m.key, transposed)
    const signs: VoiceSign[] = []
    const rest = (from: Ticks, to: Ticks) => {
      if (isTune)
        for (const part of writtenParts(from, to, spans))
          signs.push({ ...part, sounded: [], tiedFrom: false, tiedTo: false })
    }
    let at = 0
    for (const moment of own) {
      const from = Math.max(0, moment.from - start)
      const to = Math.min(m.length, moment.to - start)
      rest(at, from)
      at = to
      const sourceId = moment.notes[0]!.sourceId
      const event = sourceId === undefined ? undefined : events.get(sourceId)
      const chain = sourceId === undefined ? undefined : chains.get(sourceId)
      const isChain = chain !== undefined && chain.from === moment.from && chain.to === moment.to
      const parts = isChain
        ? chain.parts.filter((p) => p.measure === m.id).map((p) => p.part(stated))
        : writtenParts(from, to, spans)
      const sounded = moment.notes.map((note) => ({
        pitch: pitchOf(note, setup, key, event, transposed),
        note,
      }))
      parts.forEach((part, k) => {
        const first = k === 0 && moment.from >= start
        signs.push({
          ...part,
          sounded,
          tiedFrom: !first,
          tiedTo: k < parts.length - 1 || moment.to > end,
          ...(first && event ? { event } : {}),
        })
      })
    }
    if (isTune) rest(at, m.length)
    return signs
  })
}

/** The pitch of a note of the tab, spelled as the tune spells it where it is the tune's own. */
function pitchOf(
  note: TabNote,
  setup: Setup,
  key: Key,
  event: TuneEvent | undefined,
  transposed: number,
): Pitch {
  const midi = pitchAt(setup, note.place) + Math.round(note.bend ?? 0)
  if (event?.pitch && note.sourceId === event.id) {
    const own = moved(event.pitch, transposed, key)
    if (midiOf(own) === midi) return own
  }
  return spellInKey(midi, key)
}

function momentsOf(notes: readonly TabNote[], timeline: Timeline): Moment[] {
  const at = new Map<Ticks, TabNote[]>()
  for (const n of notes) {
    const tick = ticksAt(timeline, n.pos)
    at.set(tick, [...(at.get(tick) ?? []), n])
  }
  const starts = [...at.keys()].sort((a, b) => a - b)
  return starts.map((from, i) => {
    const own = [...knownIn(at, from)].sort((a, b) => b.place.string - a.place.string)
    const lasting = Math.max(...own.map((n) => n.dur.ticks))
    return { from, to: Math.min(from + lasting, starts[i + 1] ?? timeline.length), notes: own }
  })
}

/** A note of the tune with all that is tied to it, in its own values. */
interface Chain {
  readonly from: Ticks
  readonly to: Ticks
  readonly parts: readonly {
    readonly measure: Id
    readonly part: (spans: ReadonlyMap<Id, TupletSpan>) => WrittenPart
  }[]
}

function chainsOf(tune: TuneDoc, timeline: Timeline): ReadonlyMap<Id, Chain> {
  const events = new Map(tune.events.map((e) => [e.id, e]))
  const chains = new Map<Id, Chain>()
  for (const e of tune.events) {
    if (e.voice !== 0 || !e.pitch) continue
    const own: TuneEvent[] = [e]
    for (let next = e.tieTo; next !== undefined;) {
      const tied = events.get(next)
      if (!tied) break
      own.push(tied)
      next = tied.tieTo
    }
    const from = ticksAt(timeline, e.pos)
    chains.set(e.id, {
      from,
      to: from + own.reduce((sum, x) => sum + x.dur.ticks, 0),
      parts: own.map(({ pos, dur: { ticks, base, dots, tupletId } }) => ({
        measure: pos.measure,
        part: (spans) => {
          const tuplet = tupletId === undefined ? undefined : spans.get(tupletId)
          return { tick: pos.tick, ticks, base, dots, ...(tuplet ? { tuplet } : {}) }
        },
      })),
    })
  }
  return chains
}
