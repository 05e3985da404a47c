import { describe, expect, it } from 'vitest'
import { hertz, QUARTER } from '../../../src/music/index.ts'
import { guitarSetup, pitchAt, setupOf, type Setup } from '../../../src/instrument/index.ts'
import { lockOf, type Lock, type LockField, type LockValues } from '../../../src/document/index.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { finish } from '../../../src/turns.ts'
import {
  InstrumentVoice,
  PluckedString,
  scoreOf,
  Sequencer,
  type Performance,
} from '../../../src/output/sound/index.ts'
import { arrangeTune, CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const RATE = 48_000

function record(hz: number, seconds: number): Float32Array {
  const string = new PluckedString(RATE)
  string.pluck(hz, 1)
  const out = new Float32Array(Math.round(RATE * seconds))
  for (let i = 0; i < out.length; i += 128) string.render(out, i, Math.min(out.length, i + 128))
  return out
}

/** Frequency near an expected one: phase advance of its Fourier component between two windows, unwrapped. */
function measured(samples: Float32Array, near: number): number {
  const window = 16384
  const phase = (from: number) => {
    let re = 0
    let im = 0
    for (let i = 0; i < window; i++) {
      const hann = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / window)
      const angle = (2 * Math.PI * near * (from + i)) / RATE
      re += samples[from + i]! * hann * Math.cos(angle)
      im -= samples[from + i]! * hann * Math.sin(angle)
    }
    return Math.atan2(im, re)
  }
  const hop = 8192
  let turn = phase(4096 + hop) - phase(4096)
  turn -= 2 * Math.PI * Math.round(turn / (2 * Math.PI))
  return near + (turn * RATE) / (2 * Math.PI * hop)
}

describe('the string model', () => {
  it.each([40, 45, 50, 55, 59, 64, 69, 76])('note %i is in tune within a tenth of a cent', (midi) => {
    const hz = hertz(midi)
    const cents = 1200 * Math.log2(measured(record(hz, 1), hz) / hz)
    expect(Math.abs(cents)).toBeLessThan(0.1)
  })

  it('low strings ring longer than high ones, and a damped string is soon silent', () => {
    const level = (s: Float32Array, from: number) =>
      Math.sqrt(s.slice(from, from + 4800).reduce((sum, x) => sum + x * x, 0) / 4800)
    const fall = (midi: number) => {
      const s = record(hertz(midi), 2.2)
      return level(s, RATE * 2) / level(s, RATE * 0.2)
    }
    expect(fall(40)).toBeGreaterThan(fall(64))
    const string = new PluckedString(RATE)
    string.pluck(110, 1)
    const out = new Float32Array(RATE)
    string.render(out, 0, 4800)
    string.damp()
    for (let i = 4800; i < RATE; i += 128) string.render(out, i, Math.min(RATE, i + 128))
    expect(level(out, RATE - 4800)).toBeLessThan(level(out, 0) / 1000)
    expect(string.sounding).toBe(false)
  })
})

const tune = tuneOfMusic('"C"cdef|"G"g4|"C"c4|]', 'M:4/4\nL:1/4\nQ:1/4=120\nK:C')

function scoreFor(music = tune): Performance {
  const { layer, plan } = arrangeTune(music, 'melody-bass', 2)
  return scoreOf(music, guitarSetup(), layer, plan.timeline, plan.unfolded)
}

/** All events of a run, with their times in seconds. */
function run(sequencer: Sequencer, seconds: number): { at: number; kind: string }[] {
  const events: { at: number; kind: string }[] = []
  for (let frame = 0; frame < seconds * RATE; frame += 128) {
    for (const e of sequencer.advance(128)) events.push({ at: (frame + e.frame) / RATE, kind: e.kind })
  }
  return events
}

describe('the sequencer', () => {
  it('plays each note of the score once, on time to the sample, at the written tempo', () => {
    const score = scoreFor()
    const s = new Sequencer(RATE)
    s.load(score)
    s.play(0, false)
    const plucks = run(s, 7)
      .filter((e) => e.kind === 'pluck')
      .map((e) => e.at)
    expect(plucks).toHaveLength(score.notes.length)
    score.notes.forEach((n, i) => expect(Math.abs(plucks[i]! - (n.at / QUARTER) * 0.5)).toBeLessThan(0.002))
    expect(s.playing).toBe(false)
  })

  it('half tempo takes twice as long; the metronome clicks on every beat', () => {
    const s = new Sequencer(RATE)
    s.load(scoreFor())
    s.set({ tempo: 0.5, balance: { metronome: 'full' } })
    s.play(0, false)
    const clicks = run(s, 13)
      .filter((e) => e.kind === 'click')
      .map((e) => e.at)
    expect(clicks).toHaveLength(12)
    clicks.forEach((at, i) => expect(at).toBeCloseTo(i, 2))
  })

  it('counts a measure in before the first note', () => {
    const s = new Sequencer(RATE)
    s.load(scoreFor())
    s.play(0, true)
    const events = run(s, 4)
    expect(events.filter((e) => e.kind === 'click')).toHaveLength(4)
    expect(events.find((e) => e.kind === 'pluck')!.at).toBeCloseTo(2, 2)
  })

  it('repeats a loop and nothing else', () => {
    const s = new Sequencer(RATE)
    const score = scoreFor()
    s.load(score)
    s.set({ tempo: 1, loop: { from: 4 * QUARTER, to: 8 * QUARTER } })
    s.play(4 * QUARTER, false)
    const inLoop = score.notes.filter((n) => n.at >= 4 * QUARTER && n.at < 8 * QUARTER).length
    expect(run(s, 5.9).filter((e) => e.kind === 'pluck')).toHaveLength(inLoop * 3)
    expect(s.playing).toBe(true)
  })

  it('follows repeats and a tempo change', () => {
    const twice = tuneOfMusic('|:"C"c4:|[Q:1/4=60]"G"g4|]', 'M:4/4\nL:1/4\nQ:1/4=120\nK:C')
    const s = new Sequencer(RATE)
    s.load(scoreFor(twice))
    s.play(0, false)
    const starts = [
      ...new Set(
        run(s, 9)
          .filter((e) => e.kind === 'pluck')
          .map((e) => Math.round(e.at * 10) / 10),
      ),
    ]
    expect(starts).toEqual(expect.arrayContaining([0, 2, 4]))
    expect(s.playing).toBe(false)
  })
})

describe('the instrument', () => {
  it('bounces the corpus without a click over full scale and with sound wherever notes are', () => {
    for (const t of CORPUS.slice(0, 3)) {
      const voice = new InstrumentVoice(RATE)
      const score = scoreFor(t)
      voice.sequencer.load(score)
      voice.sequencer.play(0, false)
      const block = new Float32Array(128)
      let peak = 0
      let loud = 0
      let blocks = 0
      while (voice.sequencer.playing) {
        voice.render(block)
        const p = block.reduce((m, x) => Math.max(m, Math.abs(x)), 0)
        peak = Math.max(peak, p)
        if (p > 0.001) loud++
        blocks++
      }
      expect(peak).toBeLessThanOrEqual(1)
      expect(peak).toBeGreaterThan(0.1)
      expect(loud / blocks).toBeGreaterThan(0.95)
    }
  })
})

describe('a tremolo', () => {
  it('is struck again and again for as long as it is written, and only on doubled strings', () => {
    const tune = tuneOfMusic('g8|]', 'M:4/4\nL:1/4\nQ:1/4=60\nK:C')
    const heard = (setup: Setup) => {
      const { layer, plan } = finish(arranging(tune, setup, wholeTune(tune, 'flatpicked-lead', 1)))
      expect(layer.notes).toHaveLength(1)
      const score = scoreOf(tune, setup, layer, plan.timeline, plan.unfolded)
      return { attack: layer.notes[0]!.attack, strokes: score.notes }
    }
    const mandolin = heard(setupOf('mandolin'))
    expect(mandolin.attack).toBe('tremolo')
    expect(mandolin.strokes.length).toBe(64)
    mandolin.strokes.forEach((n, i) => i > 0 && expect(n.at).toBe(mandolin.strokes[i - 1]!.until))
    expect(heard(guitarSetup()).strokes).toHaveLength(1)
  })
})

describe('strokes over several strings', () => {
  const accompanied = (text: string) => {
    const tune = tuneOfMusic('"C"CEGc|CEGc|]', 'M:4/4\nL:1/4\nQ:1/4=60\nK:C')
    const setup = guitarSetup()
    const pattern = { metre: { num: 4, den: 4 }, perBeat: 1, text }
    const regions = wholeTune(tune, 'strum', 1).map((r) => ({ ...r, pattern }))
    const { layer, plan } = finish(arranging(tune, setup, regions))
    return scoreOf(tune, setup, layer, plan.timeline, plan.unfolded)
  }

  it('sound one after the other: from the low string down, from string 1 up, within a twentieth of a second', () => {
    const { notes } = accompanied('D . U .')
    const stroke = (from: number) => notes.filter((n) => n.at >= from && n.at < from + QUARTER)
    const down = stroke(0)
    expect(down.map((n) => n.string)).toEqual([5, 4, 3, 2, 1])
    expect(stroke(2 * QUARTER).map((n) => n.string)).toEqual([1, 2, 3, 4])
    const spread = (down.at(-1)!.at - down[0]!.at) / QUARTER
    expect(spread).toBeGreaterThan(0.03)
    expect(spread).toBeLessThan(0.06)
    expect(new Set(down.map((n) => n.at)).size).toBe(5)
  })

  it('muted strokes click and are gone, a palm shortens, an accent is louder: measured in the bounce', () => {
    const loudness = (text: string, from: number, to: number) => {
      const voice = new InstrumentVoice(RATE)
      voice.sequencer.load(accompanied(text))
      voice.sequencer.play(0, false)
      let sum = 0
      const block = new Float32Array(128)
      for (let i = 0; i < to * RATE; i += 128) {
        voice.render(block)
        if (i >= from * RATE) sum += block.reduce((s, x) => s + x * x, 0)
      }
      return Math.sqrt(sum / ((to - from) * RATE))
    }
    const open = loudness('D . . .', 0.6, 0.9)
    // A muted stroke also stops what rang before it.
    expect(loudness('D . D* .', 2.3, 2.9)).toBeLessThan(loudness('D . . .', 2.3, 2.9) / 20)
    expect(loudness('D_ . . .', 0.6, 0.9)).toBeLessThan(open / 10)
    // Each stroke is a new burst of noise: the mean of several is compared.
    const mean = (text: string) => {
      const some = Array.from({ length: 8 }, () => loudness(text, 0, 0.3))
      return some.reduce((sum, x) => sum + x, 0) / some.length
    }
    expect(mean('D! . . .')).toBeGreaterThan(1.1 * mean('D . . .'))
  })
})

describe('what the fretting hand sounds alone', () => {
  const bounce = (music: string, locks: Lock[] = []) => {
    const tune = tuneOfMusic(music, 'M:4/4\nL:1/4\nQ:1/4=60\nK:D')
    const setup = guitarSetup()
    const { layer, plan } = finish(arranging(tune, setup, wholeTune(tune, 'flatpicked-lead', 2), { locks }))
    const voice = new InstrumentVoice(RATE)
    voice.sequencer.load(scoreOf(tune, setup, layer, plan.timeline, plan.unfolded))
    voice.sequencer.play(0, false)
    const out = new Float32Array(4 * RATE)
    for (let i = 0; i < out.length; i += 128) voice.render(out.subarray(i, i + 128))
    const midis = layer.notes.map((n) => pitchAt(setup, n.place))
    return { out, layer, hz: midis.map(hertz) }
  }

  /** Pitch in a window by the lag of the strongest likeness of the signal to itself. */
  const pitchIn = (out: Float32Array, from: number, to: number): number => {
    const a = Math.round(from * RATE)
    const n = Math.round((to - from) * RATE)
    let best = { lag: 1, sum: -Infinity }
    const at = (lag: number) => {
      let sum = 0
      for (let i = 0; i < n; i++) sum += out[a + i]! * out[a + i + lag]!
      return sum
    }
    for (let lag = 60; lag < 500; lag++) {
      const sum = at(lag)
      if (sum > best.sum) best = { lag, sum }
    }
    const [l, m, r] = [at(best.lag - 1), best.sum, at(best.lag + 1)]
    return RATE / (best.lag + (l - r) / (2 * (l - 2 * m + r)))
  }
  const cents = (a: number, b: number) => 1200 * Math.abs(Math.log2(a / b))

  it.each([
    ['a hammer-on', '"D"(de) f2|]', 'hammer'],
    ['a pull-off', '"D"(ed) f2|]', 'pull'],
  ])('%s arrives on its beat at its pitch, without a stroke: measured in the bounce', (_, music, attack) => {
    const { out, layer, hz } = bounce(music)
    expect(layer.notes[1]).toMatchObject({ attack, right: 'none' })
    expect(cents(pitchIn(out, 0.4, 0.6), hz[0]!)).toBeLessThan(8)
    expect(cents(pitchIn(out, 1.2, 1.4), hz[1]!)).toBeLessThan(8)
    // The pitch turns at the beat, to a fiftieth of a second.
    const turns = (t: number) => cents(pitchIn(out, t, t + 0.02), hz[1]!) < 60
    expect(turns(0.95)).toBe(false)
    expect(turns(1.02)).toBe(true)
  })

  it('a slide glides into its beat', () => {
    const plain = bounce('"D"d e f2|]').layer.notes
    const lock = <F extends LockField>(i: number, field: F, value: LockValues[F]): Lock =>
      lockOf(field, `${i}${field}`, plain[i]!.id, value)
    const place = { string: 2, fret: 3 }
    const { out, layer, hz } = bounce('"D"d e f2|]', [
      lock(1, 'attack', 'slide'),
      lock(0, 'place', place),
      lock(1, 'place', { string: 2, fret: 5 }),
      lock(0, 'left', 1),
      lock(1, 'left', 1),
    ])
    expect(layer.notes[1]!.attack).toBe('slide')
    expect(cents(pitchIn(out, 1.02, 1.2), hz[1]!)).toBeLessThan(10)
    const between = pitchIn(out, 0.945, 0.965)
    expect(between).toBeGreaterThan(hz[0]! * 1.01)
    expect(between).toBeLessThan(hz[1]! * 0.995)
  })

  it('a bend rises into its beat and is let back', () => {
    const plain = bounce('"D"d e d2|]').layer.notes
    const lock = <F extends LockField>(i: number, field: F, value: LockValues[F]): Lock =>
      lockOf(field, `${i}${field}`, plain[i]!.id, value)
    const { out, layer, hz } = bounce('"D"d e d2|]', [
      lock(1, 'attack', 'bend'),
      ...[0, 1, 2].flatMap((i) => [
        lock(i, 'place', { string: 2, fret: i === 1 ? 5 : 3 }),
        lock(i, 'left', 3),
      ]),
    ])
    expect(layer.notes.slice(0, 3).map((n) => n.attack)).toEqual(['pluck', 'bend', 'release'])
    const up = hz[0]! * 2 ** (2 / 12)
    expect(cents(pitchIn(out, 0.4, 0.6), hz[0]!)).toBeLessThan(8)
    expect(cents(pitchIn(out, 1.05, 1.3), up)).toBeLessThan(10)
    const rising = pitchIn(out, 0.91, 0.93)
    expect(rising).toBeGreaterThan(hz[0]! * 1.02)
    expect(rising).toBeLessThan(up * 0.985)
    expect(cents(pitchIn(out, 2.05, 2.3), hz[0]!)).toBeLessThan(10)
  })

  it('grace notes come first and the note after them, in its time', () => {
    const { out, layer, hz } = bounce('"D"{e}d4|d4|]')
    const grace = layer.notes.find((n) => n.graces)!.graces![0]!
    expect(cents(pitchIn(out, 0.015, 0.05), hertz(pitchAt(guitarSetup(), grace.place)))).toBeLessThan(40)
    expect(cents(pitchIn(out, 0.2, 0.5), hz[0]!)).toBeLessThan(8)
  })
})
