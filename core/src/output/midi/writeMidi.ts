import { writeMidi as bytesOf, type MidiEvent } from 'midi-file'
import { timelineOf } from '../../document/form/timeline.ts'
import { bpmAt } from '../../document/form/tempoMap.ts'
import { unfold } from '../../document/form/unfold.ts'
import type { Score } from '../../document/score.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import { transposeKey } from '../../music/pitch/key.ts'
import { nameText, plainName } from '../../music/pitch/pitch.ts'
import { scoreOf } from '../sound/performance.ts'
import { FILE_QUARTER, fileTick, stringTrack, type TimedEvent } from './stringTrack.ts'

/** General MIDI's acoustic guitar with steel strings (program 26, counted from 1). */
const PROGRAM = 25

/** MIDI texts are bytes: UTF-8 as most readers take it, one byte a letter. */
const asBytes = (text: string): string =>
  [...new TextEncoder().encode(text)].map((byte) => String.fromCharCode(byte)).join('')

/**
 * An arrangement as a standard MIDI file of format 1, as it is played: repeats, endings and swing unfolded, a track and a channel for each
 * string, so that bends and strings survive. Tempo, metre, key, chord names (as texts) and words (as lyrics) stand in the first track.
 * Fingers, picking and where a note lies on its string are not carried.
 */
export function writeMidi({ tune, arrangement }: Required<Score>): Uint8Array {
  const { setup, base, variants, regions, transposed } = arrangement
  const timeline = timelineOf(tune.measures)
  const unfolded = unfold(tune.measures)
  const score = scoreOf(tune, setup, base, timeline, unfolded, variants, regions)
  const ticksASecond = (at: number) => (FILE_QUARTER * bpmAt(score.tempos, at + 0.5)) / 60
  const strings = setup.tuning.map((open, i) => {
    const own = score.notes.filter((n) => n.string === i + 1)
    return track([
      { at: 0, type: 'trackName', text: asBytes(`String ${i + 1} (${nameText(plainName(open, false))})`) },
      ...stringTrack(own, i, PROGRAM, ticksASecond),
    ])
  })
  const conductor: TimedEvent[] = [
    { at: 0, type: 'trackName', text: asBytes(tune.title) },
    ...score.tempos.map(({ at, bpm }): TimedEvent => ({
      at: fileTick(at),
      type: 'setTempo',
      microsecondsPerBeat: Math.round(60_000_000 / bpm),
    })),
    ...measureEvents(tune, unfolded.order, transposed),
    ...wordEvents(tune, unfolded.order),
  ]
  return Uint8Array.from(
    bytesOf({
      header: { format: 1, numTracks: strings.length + 1, ticksPerBeat: FILE_QUARTER },
      tracks: [track(conductor), ...strings],
    }),
  )
}

type Order = ReturnType<typeof unfold>['order']

/** Metre and key where they change, in played order. */
function measureEvents(tune: TuneDoc, order: Order, transposed: number): TimedEvent[] {
  const events: TimedEvent[] = []
  let [metre, key] = ['', '']
  for (const { measure, startTick } of order) {
    const m = tune.measures[measure]!
    const at = fileTick(startTick)
    const { num, den } = m.metre
    if (`${num}/${den}` !== metre)
      events.push({
        at,
        type: 'timeSignature',
        numerator: num,
        denominator: den,
        // Clocks between clicks of a metronome (24 a quarter), and 32nds in a quarter.
        metronome: den === 8 && num % 3 === 0 ? 36 : 96 / den,
        thirtyseconds: 8,
      })
    metre = `${num}/${den}`
    const { fifths, mode } = transposeKey(m.key, transposed)
    if (`${fifths} ${mode}` !== key)
      events.push({ at, type: 'keySignature', key: fifths, scale: mode === 'minor' ? 1 : 0 })
    key = `${fifths} ${mode}`
  }
  return events
}

/** Chord names and syllables, in played order: a pass sings its own verse. */
function wordEvents(tune: TuneDoc, order: Order): TimedEvent[] {
  return order.flatMap(({ measure, startTick, pass }) => {
    const { id } = tune.measures[measure]!
    const chords = tune.chords
      .filter((c) => c.pos.measure === id)
      .map((c): TimedEvent => ({
        at: fileTick(startTick + c.pos.tick),
        type: 'text',
        text: asBytes(c.parsed ? chordText(c.parsed) : c.symbol),
      }))
    const words = tune.events.flatMap((e): TimedEvent[] => {
      const verse = pass === 1 ? e.lyric : (e.moreLyrics?.[pass - 2] ?? e.lyric)
      if (e.pos.measure !== id || e.voice !== 0 || !verse) return []
      return [{ at: fileTick(startTick + e.pos.tick), type: 'lyrics', text: asBytes(verse) }]
    })
    return [...chords, ...words]
  })
}

/** What ends or moves at a moment comes before what begins there. */
const RANK: Readonly<Record<string, number>> = { noteOff: 0, pitchBend: 1, controller: 1, noteOn: 3 }

/** Events in order of time, each with the ticks since the one before it. */
function track(events: readonly TimedEvent[]): MidiEvent[] {
  const rank = (e: TimedEvent) => (e.at === 0 && e.type === 'trackName' ? -1 : (RANK[e.type] ?? 0.5))
  const inTime = events
    .map((event, i) => ({ event, i }))
    .sort((a, b) => a.event.at - b.event.at || rank(a.event) - rank(b.event) || a.i - b.i)
  let last = 0
  const timed = inTime.map(({ event: { at, ...event } }) => {
    const deltaTime = at - last
    last = at
    return { ...event, deltaTime }
  })
  return [...timed, { deltaTime: 0, type: 'endOfTrack' }]
}
