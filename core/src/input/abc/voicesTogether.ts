import { knownIn } from '../../invariant.ts'
import type { Id } from '../../document/ids.ts'
import { durationOf } from '../../document/durationOf.ts'
import { type TempoMark, type TuneEvent } from '../../document/tune.ts'
import { type Ticks } from '../../music/time/ticks.ts'
import { message } from '../../messages/message.ts'
import type { DraftMeasure, VoiceReading } from './voiceReading.ts'
import type { Report } from './voiceReading.ts'

/**
 * The melody's measures, and those that another voice has beyond them: there the melody rests.
 */
export function withFurtherMeasures(
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
export function otherVoicesPlaced(
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
