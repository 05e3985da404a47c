import { describe, expect, it } from 'vitest'
import { timelineOf, unfold, type Style, type TuneDoc } from '../../../src/document/index.ts'
import {
  expectedNotes,
  latencyOf,
  secondsFrom,
  takeCheck,
  type ExpectedNote,
  type TakeReading,
} from '../../../src/input/audio/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { hertz, QUARTER } from '../../../src/music/index.ts'
import { bounce, scoreOf, type Mistake, type Performance } from '../../../src/output/sound/index.ts'
import { finish } from '../../../src/turns.ts'
import { additiveString, seeded } from '../../support/otherStrings.ts'
import { takeOf } from '../../support/otherTakes.ts'
import { arrangedScore } from '../../support/score.ts'
import { CORPUS } from '../../support/tunes.ts'

const RATE = 44_100
const TEMPO = 0.7

/** Four measures of a tune, as a student practises them. */
function loopOf(tune: TuneDoc, style: Style, level: 2 | 3 | 4): readonly ExpectedNote[] {
  const { order } = unfold(tune.measures)
  const from = order[Math.min(2, order.length - 5)]!.startTick
  const to = order[Math.min(6, order.length - 1)]!.startTick
  const { setup, base } = arrangedScore(tune, style, level).arrangement
  const score = scoreOf(tune, setup, base, timelineOf(tune.measures), unfold(tune.measures))
  return expectedNotes(score, { from, to }, TEMPO, setup)
}

/** Slips planted in about one note of nine, never two in one moment. */
function slipsIn(expected: readonly ExpectedNote[], random: () => number): Map<number, Mistake> {
  const slips = new Map<number, Mistake>()
  const taken = new Set<number>()
  expected.forEach((n, i) => {
    const moment = Math.round(n.seconds * 20)
    if (random() > 0.12 || taken.has(moment)) return
    taken.add(moment)
    const by = [1, -1, 2][Math.floor(3 * random())]!
    slips.set(i, random() < 0.45 ? { kind: 'missed' } : { kind: 'fret', by })
  })
  return slips
}

const roomOf = (random: () => number) => ({
  random,
  overNoise: 15 + 10 * random(),
  echo: 0.25 + 0.4 * random(),
  cents: 40 * (random() - 0.5),
  latency: 0.08,
})

const listen = (samples: Float32Array, expected: readonly ExpectedNote[], latencyMs = 80): TakeReading =>
  finish(takeCheck(samples, RATE, expected, latencyMs))

const WAYS: readonly (readonly [Style, 2 | 3 | 4])[] = [
  ['melody-bass', 2],
  ['arpeggio', 3],
  ['chord-melody', 3],
  ['alternating-bass', 3],
]

describe('a take on other strings, with slips, in a room with noise', () => {
  const takes = CORPUS.flatMap((tune, t) =>
    WAYS.filter((_, w) => w % 2 === t % 2).map(([style, level]) => {
      const random = seeded(10 * t + level)
      const expected = loopOf(tune, style, level)
      const slips = slipsIn(expected, random)
      const reading = listen(takeOf(expected, slips, RATE, roomOf(random)), expected)
      return { expected, slips, reading }
    }),
  )
  const notes = takes.flatMap(({ expected, slips, reading }) =>
    reading.followed
      ? expected.map((n, i) => ({ note: n, slip: slips.get(i), heard: reading.notes[i]! }))
      : [],
  )
  const share = (of: typeof notes, which: (n: (typeof notes)[number]) => boolean) =>
    of.filter(which).length / of.length

  it('is followed', () => {
    expect(takes.every((t) => t.reading.followed)).toBe(true)
  })

  it('has its notes heard: 95 of 100 that are said to be there are, 93 of 100 that are there are said to be', () => {
    const heard = notes.filter((n) => n.heard.verdict === 'heard')
    expect(share(heard, (n) => !n.slip)).toBeGreaterThanOrEqual(0.95)
    expect(
      share(
        notes.filter((n) => !n.slip),
        (n) => n.heard.verdict === 'heard',
      ),
    ).toBeGreaterThanOrEqual(0.93)
  })

  it('has its slips found as often', () => {
    const said = notes.filter((n) => n.heard.verdict !== 'heard')
    const slipped = notes.filter((n) => n.slip)
    expect(slipped.length).toBeGreaterThan(30)
    expect(share(said, (n) => n.slip !== undefined)).toBeGreaterThanOrEqual(0.95)
    expect(share(slipped, (n) => n.heard.verdict !== 'heard')).toBeGreaterThanOrEqual(0.93)
  })

  it('names the fret that was played where it names one, in 9 of 10', () => {
    const other = notes.filter((n) => n.slip?.kind === 'fret' && n.heard.verdict === 'otherFret')
    expect(other.length).toBeGreaterThan(10)
    expect(
      share(other, (n) => n.slip?.kind === 'fret' && n.heard.fretsOff === n.slip.by),
    ).toBeGreaterThanOrEqual(0.9)
  })

  it('is as late as it was: half within 15 ms, 95 of 100 within 30', () => {
    const off = notes
      .flatMap((n) => (n.slip || n.heard.lateMs === undefined ? [] : [Math.abs(n.heard.lateMs)]))
      .sort((a, b) => a - b)
    expect(off[off.length >> 1]!).toBeLessThan(15)
    expect(off[Math.floor(off.length * 0.95)]!).toBeLessThan(30)
  })
})

describe('what is no take of it', () => {
  const expected = loopOf(CORPUS[0]!, 'melody-bass', 3)
  const seconds = Math.ceil(expected.at(-1)!.seconds) + 2

  it('is not followed: noise alone, however loud, and silence', () => {
    for (let seed = 0; seed < 12; seed++) {
      const random = seeded(seed)
      const hiss = Float32Array.from({ length: seconds * RATE }, () => 0.02 * (seed + 1) * (2 * random() - 1))
      expect(listen(hiss, expected)).toEqual({ followed: false })
    }
    expect(listen(new Float32Array(seconds * RATE), expected)).toEqual({ followed: false })
    expect(listen(new Float32Array(0), expected)).toEqual({ followed: false })
    expect(listen(new Float32Array(RATE), [])).toEqual({ followed: false })
  })

  it('is not followed: another tune, and the tune at another tempo', () => {
    const random = seeded(5)
    const other = loopOf(CORPUS[3]!, 'arpeggio', 3).map((n) => ({ ...n, hertz: n.hertz * 2 ** (6 / 12) }))
    expect(listen(takeOf(other, new Map(), RATE, roomOf(random)), expected)).toEqual({ followed: false })
    const slower = expected.map((n) => ({ ...n, seconds: 1.45 * n.seconds }))
    expect(listen(takeOf(slower, new Map(), RATE, roomOf(random)), expected)).toEqual({ followed: false })
  })
})

describe('one note, struck over and over', () => {
  /** As a string that is tuned while the clicks count: two strokes a second, whatever is written. */
  const struck = (seconds: number, hertz: number, phase: number) =>
    Float32Array.from({ length: seconds * RATE }, (_, i) => {
      const since = (i / RATE + phase) % 0.5
      return [1, 2, 3, 4].reduce(
        (sum, n) => sum + (0.3 / n) * Math.exp(-7 * since) * Math.sin((2 * Math.PI * n * hertz * i) / RATE),
        0,
      )
    })

  it('is no take, whichever of the notes share its partials', () => {
    for (const [t, way] of [
      [0, 0],
      [0, 2],
      [1, 3],
      [6, 2],
    ] as const) {
      const expected = loopOf(CORPUS[t]!, ...WAYS[way]!)
      const seconds = Math.ceil(expected.at(-1)!.seconds) + 2
      for (const midi of [52, 55])
        for (const phase of [0.12, 0.3])
          expect(listen(struck(seconds, hertz(midi), phase), expected)).toEqual({ followed: false })
    }
  })
})

it('a take with the capo two frets too high is followed, and said to be so', () => {
  const expected = loopOf(CORPUS[0]!, 'melody-bass', 2)
  const higher = expected.map((n) => ({ ...n, hertz: n.hertz * 2 ** (2 / 12) }))
  const reading = listen(takeOf(higher, new Map(), RATE, { ...roomOf(seeded(3)), cents: 0 }), expected)
  if (!reading.followed) throw new Error('not followed')
  expect(reading.notes.filter((n) => n.fretsOff === 2).length).toBeGreaterThan(0.5 * expected.length)
})

it('a note that comes late is said to be late by as much', () => {
  const random = seeded(8)
  const expected = loopOf(CORPUS[1]!, 'melody-bass', 2)
  const late = expected.findIndex(
    (n, i) => i > 3 && expected.every((o) => o === n || Math.abs(o.seconds - n.seconds) > 0.4),
  )
  const slips = new Map<number, Mistake>([[late, { kind: 'late', seconds: 0.11 }]])
  const reading = listen(takeOf(expected, slips, RATE, { ...roomOf(random), cents: 0 }), expected)
  if (!reading.followed) throw new Error('not followed')
  expect(reading.notes[late]!.verdict).toBe('heard')
  expect(Math.abs(reading.notes[late]!.lateMs! - 110)).toBeLessThan(35)
})

describe('when a note is due', () => {
  it('follows every change of tempo, as a bounce of the same score sounds it', () => {
    const score: Performance = {
      notes: [0, 1, 2, 3].map((i) => ({
        at: 2 * i * QUARTER,
        until: (2 * i + 1) * QUARTER,
        string: 1,
        hertz: hertz(64 + i),
        role: 'melody' as const,
        velocity: 1,
      })),
      clicks: [],
      tempos: [
        { at: 0, bpm: 120 },
        { at: 3 * QUARTER, bpm: 60 },
      ],
      length: 8 * QUARTER,
      beat: QUARTER,
      countIn: 4,
    }
    const due = expectedNotes(score, { from: 0, to: 8 * QUARTER }, 0.8, guitarSetup()).map((n) => n.seconds)
    const second = secondsFrom(score, 0, 0.8)
    expect(second(3 * QUARTER)).toBeCloseTo(1.875, 9)
    const { samples } = finish(bounce(score, { tempo: 0.8 }, RATE))
    for (const at of due.slice(1)) {
      const i = Math.round(at * RATE)
      const loud = (from: number) =>
        samples.slice(from, from + 441).reduce((most, x) => Math.max(most, Math.abs(x)), 0)
      expect(loud(i + 44)).toBeGreaterThan(4 * loud(i - 600) + 10)
    }
  })
})

describe('how late a device is', () => {
  const clicks = Array.from({ length: 8 }, (_, i) => 0.5 + 0.75 * i)
  const plucks = (late: (i: number) => number | undefined): Float32Array => {
    const random = seeded(6)
    const out = new Float32Array(8 * RATE)
    clicks.forEach((click, i) => {
      const by = late(i)
      if (by === undefined) return
      const tone = additiveString(hertz(59), RATE, RATE / 2, { random, stiffness: 1e-4 })
      const from = Math.round((click + by) * RATE)
      tone.forEach((x, k) => (out[from + k] = (out[from + k] ?? 0) + x))
    })
    return out.map((x) => x + 0.002 * (2 * random() - 1))
  }

  it('is found within 10 ms from strings struck with the clicks, uneven as players are', () => {
    const random = seeded(12)
    for (const latency of [-0.03, 0.02, 0.12, 0.3]) {
      const found = finish(
        latencyOf(
          plucks(() => latency + 0.03 * (random() - 0.5)),
          RATE,
          clicks,
        ),
      )
      expect(Math.abs(found!.latencyMs - 1000 * latency)).toBeLessThan(15)
      expect(found!.unevenMs).toBeLessThan(20)
    }
  })

  it('is not said where strokes are missing or agree on nothing', () => {
    const random = seeded(13)
    expect(
      finish(
        latencyOf(
          plucks((i) => (i < 4 ? 0.1 : undefined)),
          RATE,
          clicks,
        ),
      ),
    ).toBeUndefined()
    expect(
      finish(
        latencyOf(
          plucks(() => 0.4 * random()),
          RATE,
          clicks,
        ),
      ),
    ).toBeUndefined()
    expect(finish(latencyOf(new Float32Array(8 * RATE), RATE, clicks))).toBeUndefined()
  })
})
