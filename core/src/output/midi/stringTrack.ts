import type { MidiEvent } from 'midi-file'
import { QUARTER } from '../../music/time/ticks.ts'
import type { ScoreNote } from '../sound/performance.ts'

/** An event at a tick of the file. */
export type TimedEvent = { readonly at: number } & WithoutDelta<MidiEvent>
type WithoutDelta<E> = E extends unknown ? Omit<E, 'deltaTime'> : never

/** Ticks of a quarter in a file. */
export const FILE_QUARTER = 480

/** A tick of the app as one of a file. */
export const fileTick = (at: number): number => Math.round((at * FILE_QUARTER) / QUARTER)

/** Semitones that a full pitch bend is, to both sides: an octave, so that slides are bends too. */
const BEND_RANGE = 12

/** Controllers (MIDI 1.0, control change messages; RPN 0 is the range of the pitch bend). */
const CONTROL = { modulation: 1, dataEntry: 6, rpnLow: 100, rpnHigh: 101 }
const VIBRATO = 64

/** What is left of a velocity where the fretting hand sounds a note alone. No source. */
const ARRIVAL_VELOCITY = 0.6

/** Pitch bends in a second of a glide. */
const STEPS_A_SECOND = 60

const semitonesOf = (hertz: number): number => 69 + 12 * Math.log2(hertz / 440)

/** A bend of so many semitones, −8192 to 8191. */
const bendOf = (semitones: number): number =>
  Math.max(-8192, Math.min(8191, Math.round((8192 * semitones) / BEND_RANGE)))

/**
 * What one string plays, as events of a channel of its own: plucks are notes, what the fretting hand sounds alone is a softer note, bends and
 * slides move the pitch of the note that sounds.
 * @param notes of this string, in order of time
 * @param ticksASecond of the file, at a tick of the app
 */
export function stringTrack(
  notes: readonly ScoreNote[],
  channel: number,
  program: number,
  ticksASecond: (at: number) => number,
): TimedEvent[] {
  const events: TimedEvent[] = [
    { at: 0, type: 'programChange', channel, programNumber: program },
    { at: 0, type: 'controller', channel, controllerType: CONTROL.rpnHigh, value: 0 },
    { at: 0, type: 'controller', channel, controllerType: CONTROL.rpnLow, value: 0 },
    { at: 0, type: 'controller', channel, controllerType: CONTROL.dataEntry, value: BEND_RANGE },
  ]
  let sounding: { key: number; until: number; bend: number } | undefined
  let bent = 0
  let trembles = false
  const bendTo = (at: number, bend: number) => {
    if (bend !== bent) events.push({ at, type: 'pitchBend', channel, value: bend })
    bent = bend
  }
  const end = (at: number) => {
    if (sounding) events.push({ at, type: 'noteOff', channel, noteNumber: sounding.key, velocity: 0 })
    sounding = undefined
  }
  for (const note of notes) {
    const at = fileTick(note.at)
    const until = Math.max(at + 1, fileTick(note.until))
    const exact = semitonesOf(note.hertz)
    const glides = note.glide !== undefined && note.glide > 0
    if (sounding && sounding.until < at) end(sounding.until)
    if (sounding && glides && Math.abs(exact - sounding.key) <= BEND_RANGE) {
      // The string goes on: its pitch moves.
      const target = bendOf(exact - sounding.key)
      const length = Math.max(1, Math.round((note.glide ?? 0) * ticksASecond(note.at)))
      const steps = Math.max(1, Math.min(length, Math.round((note.glide ?? 0) * STEPS_A_SECOND)))
      const from = bent
      for (let k = 1; k <= steps; k++)
        bendTo(at + Math.round((length * k) / steps), Math.round(from + ((target - from) * k) / steps))
      sounding.until = Math.max(until, at + length)
      continue
    }
    end(at)
    const key = Math.round(exact)
    bendTo(at, bendOf(exact - key))
    if (trembles !== (note.vibrato === true)) {
      trembles = note.vibrato === true
      const value = trembles ? VIBRATO : 0
      events.push({ at, type: 'controller', channel, controllerType: CONTROL.modulation, value })
    }
    const hard = note.velocity * (note.arrival ? ARRIVAL_VELOCITY : 1)
    const velocity = Math.max(1, Math.min(127, Math.round(127 * Math.min(1, hard))))
    events.push({ at, type: 'noteOn', channel, noteNumber: key, velocity })
    sounding = { key, until, bend: bent }
  }
  if (sounding) end(sounding.until)
  return events
}
