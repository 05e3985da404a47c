import { Midi } from '@tonejs/midi'
import fc from 'fast-check'
import { writeMidi, type MidiEvent } from 'midi-file'
import { describe, expect, it } from 'vitest'
import { melodyOf, timelineOf, unfold, type TuneDoc } from '@velvet-porch/core/document'
import { readingMidi, type MidiChoices } from '@velvet-porch/core/input/midi'
import { midiOf, QUARTER } from '@velvet-porch/core/music'
import { writeMidi as midiOfScore } from '@velvet-porch/core/output/midi'
import { finish } from '@velvet-porch/core/turns'
import { madeByAbc2midi } from '../../support/abc2midi.ts'
import { arrangedScore } from '../../support/score.ts'
import { CORPUS, CORPUS_TEXT } from '../../support/tunes.ts'

const read = (bytes: Uint8Array, choices: MidiChoices = {}) =>
  finish(readingMidi(bytes, { newId: () => 'x', title: 'New', choices }))

/** The melody as it is played, repeats unfolded: onset, length, pitch. */
function played(tune: TuneDoc): string[] {
  const timeline = timelineOf(tune.measures)
  const melody = melodyOf(tune, timeline)
  return unfold(tune.measures).order.flatMap(({ measure, startTick }) =>
    melody
      .filter((n) => n.measure === measure)
      .map((n) => `${startTick + n.start - timeline.starts[measure]!} ${n.duration} ${midiOf(n.pitch)}`),
  )
}

/** A file of one track from notes in quarters. */
function fileOf(
  notes: readonly { readonly from: number; readonly to: number; readonly midi: number }[],
  head: readonly object[] = [],
): Uint8Array {
  const events = notes
    .flatMap(({ from, to, midi }) => [
      { at: Math.round(from * 480), type: 'noteOn', velocity: 80, noteNumber: midi },
      { at: Math.round(to * 480), type: 'noteOff', velocity: 0, noteNumber: midi },
    ])
    .sort((a, b) => a.at - b.at || (a.type === 'noteOff' ? -1 : 1))
  let last = 0
  const timed = events.map(({ at, ...event }) => {
    const deltaTime = Math.max(0, at - last)
    last = Math.max(last, at)
    return { deltaTime, channel: 0, ...event }
  })
  const track = [...head, ...timed, { deltaTime: 0, type: 'endOfTrack', meta: true }] as MidiEvent[]
  return Uint8Array.from(
    writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [track] }),
  )
}

const numbers = [...CORPUS_TEXT.matchAll(/^X:\s*(\d+)/gm)].map((m) => m[1]!)

describe('a MIDI file', () => {
  it.each(CORPUS.map((tune, i) => [tune.title, i] as const))(
    '%s, as another program makes it, is the same tune: every note, the pickup, the chords',
    (_, i) => {
      const { tune, problems } = read(madeByAbc2midi(CORPUS_TEXT, numbers[i]))
      const own = CORPUS[i]!
      expect(problems.filter((p) => p.severity === 'error')).toEqual([])
      const [heard, written] = [played(tune!), played(own)]
      expect(heard).toHaveLength(written.length)
      // A short rest behind a note is read as a way of playing it.
      const same = written.filter((n) => heard.includes(n)).length
      expect(same).toBeGreaterThanOrEqual(written.length - 2)
      expect(tune!.measures[0]!.length).toBe(own.measures[0]!.length)
      expect(tune!.measures.at(-1)!.metre.num).toBe(own.measures.at(-1)!.metre.num)
    },
  )

  it('has its chords guessed from what sounds together: nine beats of ten as the source names them', () => {
    let [right, all] = [0, 0]
    CORPUS.forEach((own, i) => {
      const { tune } = read(madeByAbc2midi(CORPUS_TEXT, numbers[i]))
      const changes = (t: TuneDoc) => {
        const timeline = timelineOf(t.measures)
        return unfold(t.measures).order.flatMap((o) =>
          t.chords
            .filter((c) => timeline.indexOf.get(c.pos.measure) === o.measure)
            .map((c) => ({ at: o.startTick + c.pos.tick, chord: c.parsed })),
        )
      }
      const [heard, named] = [changes(tune!), changes(own)]
      expect(tune!.chords.every((c) => c.origin === 'suggested')).toBe(true)
      const at = (list: typeof heard, tick: number) => {
        const chord = list.findLast((c) => c.at <= tick)?.chord
        return chord && `${chord.root.step}${chord.root.alter} ${chord.intervals[1]}`
      }
      for (let tick = 0; tick < unfold(own.measures).length; tick += QUARTER) {
        all++
        if (at(heard, tick) === at(named, tick)) right++
      }
    })
    expect(right / all).toBeGreaterThan(0.9)
  })

  it('that we write has the melody, chords and words again', () => {
    const score = arrangedScore(CORPUS[0]!, 'melody-bass', 1)
    const bytes = midiOfScore(score)
    const file = new Midi(bytes)
    const { voices, tune } = read(bytes)
    expect(voices!.offered.map((v) => v.notes)).toEqual(
      file.tracks.filter((t) => t.notes.length > 0).map((t) => t.notes.length),
    )
    expect(tune!.chords.every((c) => c.origin === 'given')).toBe(true)
    expect(tune!.title).toBe(CORPUS[0]!.title)
    expect(tune!.tempos[0]!.stated).toBe(true)
  })

  it('that a hand played, early and late, short and overlapping, is drawn to what was meant', () => {
    const rhythm = fc.constantFrom(
      [1],
      [0.5, 0.5],
      [0.25, 0.25, 0.5],
      [0.5, 0.25, 0.25],
      [1 / 3, 1 / 3, 1 / 3],
      [2],
    )
    fc.assert(
      fc.property(
        fc.array(rhythm, { minLength: 8, maxLength: 24 }),
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 200, maxLength: 200 }),
        (beats, noise) => {
          let at = 0
          const meant = beats.flat().map((length, i) => {
            const note = { from: at, to: at + length, midi: 60 + ((i * 5) % 12) }
            at += length
            return note
          })
          // At 100 a minute a twenty-fifth of a quarter is 24 ms.
          const file = fileOf(
            meant.map((n, i) => ({
              ...n,
              from: Math.max(0, n.from + noise[i]! / 25),
              to: n.from + (n.to - n.from) * 0.92 + noise[i + 90]! / 25,
            })),
          )
          const heard = played(read(file, { pickup: 0 }).tune!)
          const wanted = meant.map((n) => `${Math.round(n.from * QUARTER)} ${n.midi}`)
          const got = heard.map((h) => `${h.split(' ')[0]} ${h.split(' ')[2]}`)
          expect(got).toEqual(wanted)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('that swings is written in even halves, and as it is where that is asked for', () => {
    const swung = Array.from({ length: 16 }, (_, i) => {
      const from = Math.floor(i / 2) + (i % 2 === 0 ? 0 : 0.64)
      return { from, to: from + 0.3, midi: 60 + i }
    })
    const even = read(fileOf(swung), { pickup: 0 })
    expect(even.quantised!.swing).toBeCloseTo(0.64, 2)
    const onsets = (r: typeof even) => played(r.tune!).map((n) => Number(n.split(' ')[0]) / QUARTER)
    expect(onsets(even)).toEqual(swung.map((_, i) => i / 2))
    const late = onsets(read(fileOf(swung), { pickup: 0, straighten: false }))
    expect(late[1]).toBeCloseTo(2 / 3, 3)
  })

  it('is drawn as coarsely or finely as asked for', () => {
    const notes = [0, 0.25, 0.5, 1, 1.125, 2].map((from) => ({ from, to: from + 0.1, midi: 60 + from * 8 }))
    const onsets = (choices: MidiChoices) =>
      played(read(fileOf(notes), { pickup: 0, ...choices }).tune!).map(
        (n) => Number(n.split(' ')[0]) / QUARTER,
      )
    expect(onsets({ finest: 8 })).toEqual([0, 0.25, 0.5, 1, 1.125, 2])
    expect(onsets({ finest: 2, triplets: false }).every((o) => Number.isInteger(o * 2))).toBe(true)
  })

  it('begins where it is asked to', () => {
    const notes = Array.from({ length: 9 }, (_, i) => ({ from: i, to: i + 1, midi: 60 + (i % 3) }))
    const { tune, quantised } = read(fileOf(notes), { pickup: 1 })
    expect(tune!.measures[0]!.length).toBe(QUARTER)
    expect(quantised!.pickup).toBe(1)
    expect(tune!.measures).toHaveLength(3)
  })

  it('of format 0 is parted by channel', () => {
    const channel = (c: number, midi: number) => [
      { deltaTime: 0, type: 'noteOn', channel: c, noteNumber: midi, velocity: 80 },
      { deltaTime: 480, type: 'noteOff', channel: c, noteNumber: midi, velocity: 0 },
    ]
    const bytes = fileOf([], [...channel(0, 72), ...channel(1, 48), ...channel(9, 36)])
    const { voices, problems, tune } = read(bytes)
    expect(voices!.offered).toHaveLength(2)
    expect(problems.map((p) => p.says.code)).toContain('reading.drumsLeft')
    expect(midiOf(tune!.events.find((e) => e.voice === 0 && e.pitch)!.pitch!)).toBe(72)
  })
})

describe('what is no MIDI file', () => {
  const whole = midiOfScore(arrangedScore(CORPUS[0]!, 'melody-bass', 1))
  const codeOf = (bytes: Uint8Array) => read(bytes).problems[0]?.says.code

  it('is refused wherever it is cut', () => {
    for (let cut = 0; cut < whole.length; cut += 13) {
      const { tune, problems } = read(whole.slice(0, cut))
      expect(tune).toBeUndefined()
      expect(problems[0]!.severity).toBe('error')
    }
  })

  it('is never read for ever, whatever bytes it has', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { maxLength: 12 }), (changes) => {
        const bytes = Uint8Array.from(whole)
        for (const [at, value] of changes) bytes[at] = value
        const { tune, problems } = read(bytes)
        expect(tune !== undefined || problems.some((p) => p.severity === 'error')).toBe(true)
      }),
      { numRuns: 150 },
    )
  })

  it('counts in seconds, holds songs, is too large, or has notes that never end: said in words', () => {
    const smpte = Uint8Array.from(whole)
    smpte.set([0xe7, 0x28], 12)
    expect(codeOf(smpte)).toBe('reading.midiInSeconds')
    const songs = Uint8Array.from(whole)
    songs[9] = 2
    expect(codeOf(songs)).toBe('reading.midiOfSongs')
    const large = new Uint8Array(6_000_000)
    large.set(whole.slice(0, 14))
    expect(codeOf(large)).toBe('reading.midiTooLarge')
    const hanging = fileOf(
      [],
      [
        { deltaTime: 0, type: 'noteOn', channel: 0, noteNumber: 60, velocity: 80 },
        { deltaTime: 960, type: 'text', meta: true, text: 'x' },
      ],
    )
    const { tune, problems } = read(hanging)
    expect(problems.map((p) => p.says.code)).toContain('reading.hangingNotes')
    expect(tune!.events.filter((e) => e.pitch).reduce((sum, e) => sum + e.dur.ticks, 0)).toBe(2 * QUARTER)
  })
})
