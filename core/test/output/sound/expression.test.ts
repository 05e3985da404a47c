import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { timelineOf, unfold, type Layer, type TabNote } from '../../../src/document/index.ts'
import { InstrumentVoice, scoreOf, type Performance } from '../../../src/output/sound/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { arrangeTune, tuneOfMusic } from '../../support/tunes.ts'

const tune = tuneOfMusic('"C"cdec|"G"g2f2|"F"fedc|"C"c4|]', 'M:4/4\nL:1/4\nQ:1/4=120\nK:C')
const { layer } = arrangeTune(tune, 'melody-bass', 2)
const timeline = timelineOf(tune.measures)

const melody = layer.notes.filter((n) => n.role === 'melody')

/** The tab with something said at some of its melody notes. */
const phrasing = (at: Readonly<Record<number, Partial<TabNote>>>): Layer => ({
  ...layer,
  notes: layer.notes.map((n) => ({ ...n, ...at[melody.indexOf(n)] })),
})

const play = (of: Layer): Performance => scoreOf(tune, guitarSetup(), of, timeline, unfold(tune.measures))

/** Seconds from the start until a tick, by the score's own tempos. */
function secondsAt({ tempos }: Performance, tick: number): number {
  let seconds = 0
  tempos.forEach(({ at, bpm }, i) => {
    const to = Math.min(tempos[i + 1]?.at ?? Infinity, tick)
    if (to > at) seconds += ((to - at) / 10080) * (60 / bpm)
  })
  return seconds
}

const lasts = (score: Performance) => secondsAt(score, score.length)
const heard = (score: Performance, i: number) => score.notes.filter((n) => n.role === 'melody')[i]!

describe('what is said of a note is heard', () => {
  it('nothing said, nothing changes', () => {
    expect(play(phrasing({}))).toEqual(play(layer))
    expect(lasts(play(layer))).toBeCloseTo(8, 9)
  })

  it('a dynamic holds until the next one, louder words being louder', () => {
    const order = ['pp', 'p', 'mp', 'mf', 'f', 'ff'] as const
    const levels = order.map((dynamic) => heard(play(phrasing({ 0: { dynamic } })), 5).velocity)
    expect([...levels].sort((a, b) => a - b)).toEqual(levels)
    expect(new Set(levels).size).toBeGreaterThan(4)
    const score = play(phrasing({ 0: { dynamic: 'pp' }, 4: { dynamic: 'f' } }))
    expect(heard(score, 3).velocity).toBe(heard(score, 0).velocity)
    expect(heard(score, 6).velocity).toBeGreaterThan(heard(score, 3).velocity)
  })

  it('a note cut short stops before half of it', () => {
    const plain = heard(play(layer), 4)
    const short = heard(play(phrasing({ 4: { staccato: true } })), 4)
    expect(short.at).toBe(plain.at)
    expect(short.until - short.at).toBeLessThan(melody[4]!.dur.ticks / 2)
  })

  it('a fermata holds its note twice as long, and nothing else', () => {
    const score = play(phrasing({ 4: { fermata: true } }))
    expect(lasts(score) - lasts(play(layer))).toBeCloseTo((melody[4]!.dur.ticks / 10080) * 0.5, 9)
  })

  it('a rit. slows down step by step until the tempo is taken up again', () => {
    const score = play(phrasing({ 4: { pace: 'rit' }, 6: { pace: 'aTempo' } }))
    const bpms = score.tempos.map((t) => t.bpm)
    expect(bpms[0]).toBe(120)
    expect(bpms.at(-1)).toBe(120)
    const slow = bpms.slice(1, -1)
    expect(slow.length).toBeGreaterThan(3)
    expect([...slow].sort((a, b) => b - a)).toEqual(slow)
    expect(Math.min(...slow)).toBeGreaterThan(60)
  })

  it('wherever a rit. and fermatas stand, no time runs backwards and the tune only grows longer', () => {
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.integer({ min: 0, max: melody.length - 1 }).map(String),
          fc.record(
            { fermata: fc.constant(true as const), pace: fc.constantFrom('rit' as const, 'aTempo' as const) },
            { requiredKeys: [] },
          ),
        ),
        (at) => {
          const score = play(phrasing(at))
          expect(
            score.tempos.every((t, i) => t.bpm > 0 && (i === 0 || t.at >= score.tempos[i - 1]!.at)),
          ).toBe(true)
          expect(lasts(score)).toBeGreaterThanOrEqual(8 - 1e-9)
        },
      ),
    )
  })

  it('touch and place reach the string: a nail at the bridge is brighter than flesh at the neck', () => {
    // A pluck begins with noise: the mean of many says what the touch does.
    const PLUCKS = 24
    const bright = (said: Partial<TabNote>) => {
      const score = play(phrasing({ 0: said }))
      let sum = 0
      for (let pluck = 0; pluck < PLUCKS; pluck++) {
        const voice = new InstrumentVoice(44100)
        voice.sequencer.load(score)
        voice.sequencer.play(0, false)
        const out = new Float32Array(4096)
        voice.render(out)
        // Energy of the differences against the energy: a measure of brightness.
        let steps = 0
        let all = 0
        for (let i = 1; i < out.length; i++) {
          steps += (out[i]! - out[i - 1]!) ** 2
          all += out[i]! ** 2
        }
        sum += steps / all
      }
      return sum / PLUCKS
    }
    expect(bright({ touch: 'nail', pluckAt: 'bridge' })).toBeGreaterThan(
      1.15 * bright({ touch: 'flesh', pluckAt: 'neck' }),
    )
  })
})
