import { unzipSync } from 'fflate'
import { parseMidi } from 'midi-file'
import { describe, expect, it } from 'vitest'
import { melodyOf, timelineOf, unfold, type TuneDoc } from '@velvet-porch/core/document'
import { readingMidi } from '@velvet-porch/core/input/midi'
import { midiOf } from '@velvet-porch/core/music'
import { finish } from '@velvet-porch/core/turns'
import { corpus } from '../../support/corpus.ts'

const SUITE = unzipSync(corpus('midi-suite.zip'))

/** Whole pieces as they were played or engraved, with ornaments finer than the grid: a grace note may fall together with its note. */
const FINER_THAN_THE_GRID = ['test03.mid', 'test04.mid', 'test09.mid']
const LEAST_SHARE = 0.99

const read = (bytes: Uint8Array, melody?: string) =>
  finish(
    readingMidi(bytes, { newId: () => 'x', title: 'New', choices: melody === undefined ? {} : { melody } }),
  )

function pitchesOf(tune: TuneDoc): number[] {
  const melody = melodyOf(tune, timelineOf(tune.measures))
  return unfold(tune.measures).order.flatMap(({ measure }) =>
    melody.filter((n) => n.measure === measure).map((n) => midiOf(n.pitch)),
  )
}

interface Struck {
  readonly ticks: number
  readonly midi: number
}

/** Every note that lasts, track by track and channel by channel, straight from the events of the file. */
function struck(bytes: Uint8Array): Struck[][] {
  return parseMidi(bytes).tracks.flatMap((events) => {
    const channels = new Map<number, Struck[]>()
    let ticks = 0
    for (const event of events) {
      ticks += event.deltaTime
      if (event.type !== 'noteOn' && event.type !== 'noteOff') continue
      const notes = channels.get(event.channel) ?? []
      channels.set(event.channel, notes)
      if (event.type === 'noteOn' && event.velocity > 0) notes.push({ ticks, midi: event.noteNumber })
      else {
        // Ended where it began: it never sounds.
        const last = notes.at(-1)
        if (last?.ticks === ticks && last.midi === event.noteNumber) notes.pop()
      }
    }
    return [...channels.values()].filter((notes) => notes.length > 0)
  })
}

/** The highest of the notes that are struck together: within a twelfth of a quarter. */
function highest(notes: readonly Struck[], quarter: number): number[] {
  const sorted = [...notes].sort((a, b) => a.ticks - b.ticks)
  const chords: Struck[][] = []
  for (const note of sorted) {
    const chord = chords.at(-1)
    if (chord && note.ticks - chord.at(-1)!.ticks <= quarter / 12) chord.push(note)
    else chords.push([note])
  }
  return chords.map((chord) => Math.max(...chord.map((n) => n.midi)))
}

/** The longest run of values that both have in the same order. */
function inCommon(a: readonly number[], b: readonly number[]): number {
  let row = new Array<number>(b.length + 1).fill(0)
  for (const x of a) {
    const next = [0]
    for (let j = 0; j < b.length; j++) next.push(x === b[j] ? row[j]! + 1 : Math.max(row[j + 1]!, next[j]!))
    row = next
  }
  return row[b.length]!
}

describe('MIDI files that others wrote', () => {
  it('are there', () => {
    expect(Object.keys(SUITE)).toHaveLength(21)
  })
  it.each(Object.keys(SUITE))(
    '%s: every voice that is offered has the notes of its events, the highest of each onset',
    (name) => {
      const bytes = SUITE[name]!
      const tracks = struck(bytes)
      const { voices, tune } = read(bytes)
      const offered = voices?.offered ?? []
      expect(tune).toBeDefined()
      expect(offered.map((v) => v.notes)).toEqual(tracks.map((notes) => notes.length))
      offered.forEach((voice, i) => {
        const own = pitchesOf(read(bytes, voice.id).tune!)
        const other = highest(tracks[i]!, parseMidi(bytes).header.ticksPerBeat!)
        if (FINER_THAN_THE_GRID.includes(name))
          expect(inCommon(own, other)).toBeGreaterThanOrEqual(LEAST_SHARE * other.length)
        else expect(own).toEqual(other)
      })
    },
  )
})
