import { describe, expect, it } from 'vitest'
import {
  countedAloud,
  COUNTED_TO,
  InstrumentVoice,
  OWN_PARTS,
  ownPartOf,
  scoreOf,
  Sequencer,
  withOwnPart,
  type Balance,
} from '../../../src/output/sound/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { arrangeTune, tuneOfMusic } from '../../support/tunes.ts'

const RATE = 16_000

/** The strength of a sound near a frequency: one bin of a discrete Fourier transform. */
function levelAt(sound: Float32Array, hertz: number): number {
  let [re, im] = [0, 0]
  sound.forEach((x, i) => {
    re += x * Math.cos((2 * Math.PI * hertz * i) / RATE)
    im += x * Math.sin((2 * Math.PI * hertz * i) / RATE)
  })
  return Math.hypot(re, im) / sound.length
}

/** The mean strength in a band. */
function bandOf(sound: Float32Array, from: number, to: number): number {
  let sum = 0
  for (let hertz = from; hertz < to; hertz += 10) sum += levelAt(sound, hertz)
  return sum / ((to - from) / 10)
}

describe('a number counted aloud', () => {
  const words = Array.from({ length: COUNTED_TO }, (_, i) => countedAloud(i + 1, RATE))

  it('is over before the next beat at 150 beats a minute, and begins at once', () => {
    for (const word of words) {
      expect(word.length / RATE).toBeLessThan(0.4)
      const first = word.findIndex((x) => Math.abs(x) > 0.01)
      expect(first / RATE).toBeLessThan(0.08)
    }
  })

  it('has the resonances of its vowel (Peterson and Barney 1952, from memory): two is dark, three is bright', () => {
    const vowel = (word: Float32Array) =>
      word.slice(Math.floor(word.length * 0.55), Math.floor(word.length * 0.9))
    const brightness = (word: Float32Array) =>
      bandOf(vowel(word), 2000, 3200) / bandOf(vowel(word), 700, 1000)
    expect(brightness(words[2]!)).toBeGreaterThan(3 * brightness(words[1]!))
    // An open mouth has its first resonance higher: one against two.
    const open = (word: Float32Array) => bandOf(vowel(word), 550, 800) / bandOf(vowel(word), 220, 400)
    const one = words[0]!.slice(Math.floor(0.07 * RATE), Math.floor(0.16 * RATE))
    expect(bandOf(one, 550, 800) / bandOf(one, 220, 400)).toBeGreaterThan(2 * open(words[1]!))
  })

  it('no two are alike', () => {
    for (const [i, a] of words.entries())
      for (const b of words.slice(i + 1)) {
        const length = Math.min(a.length, b.length)
        let [dot, aa, bb] = [0, 0, 0]
        for (let k = 0; k < length; k++) {
          dot += a[k]! * b[k]!
          aa += a[k]! ** 2
          bb += b[k]! ** 2
        }
        expect(Math.abs(dot) / Math.sqrt(aa * bb)).toBeLessThan(0.9)
      }
  })
})

describe('beside the notes', () => {
  const tune = tuneOfMusic('"C"c3|"G"g3|', 'M:3/4\nL:1/4\nQ:1/4=120\nK:C')
  const { layer, plan } = arrangeTune(tune, 'melody-bass', 2)
  const score = scoreOf(tune, guitarSetup(), layer, plan.timeline, plan.unfolded)
  const eventsOf = (balance: Balance) => {
    const sequencer = new Sequencer(RATE)
    sequencer.load(score)
    sequencer.set({ tempo: 1, balance })
    sequencer.play(0, false)
    const all = []
    while (sequencer.playing) all.push(...sequencer.advance(128))
    return all
  }

  it('beats are counted from one in every measure, softly where that is asked for', () => {
    const counts = eventsOf({ counting: 'soft' }).flatMap((e) => (e.kind === 'count' ? [e] : []))
    expect(counts.map((e) => e.number)).toEqual([1, 2, 3, 1, 2, 3])
    expect(new Set(counts.map((e) => e.gain))).toEqual(new Set([0.35]))
  })

  it('nothing clicks or counts unless it is asked for', () => {
    expect(eventsOf({}).every((e) => e.kind === 'pluck' || e.kind === 'stop')).toBe(true)
    expect(eventsOf({ metronome: 'full' }).filter((e) => e.kind === 'click')).toHaveLength(6)
  })

  it('what is counted is heard', () => {
    const loudness = (balance: Balance) => {
      const voice = new InstrumentVoice(RATE)
      voice.sequencer.load({ ...score, notes: [] })
      voice.sequencer.set({ tempo: 1, balance })
      voice.sequencer.play(0, false)
      const out = new Float32Array(RATE)
      for (let at = 0; at < RATE; at += 128) voice.render(out.subarray(at, Math.min(RATE, at + 128)))
      return Math.sqrt(out.reduce((sum, x) => sum + x * x, 0))
    }
    expect(loudness({})).toBe(0)
    expect(loudness({ counting: 'full' })).toBeGreaterThan(2 * loudness({ counting: 'soft' }))
  })

  it('one’s own part is silent, the other is heard, and the metronome stays as it was', () => {
    for (const own of OWN_PARTS) {
      const balance = withOwnPart({ metronome: 'soft', bass: 'soft' }, own)
      expect(ownPartOf(balance)).toBe(own)
      expect(balance.metronome).toBe('soft')
      const roles = new Set(eventsOf(balance).flatMap((e) => (e.kind === 'pluck' ? [e.role] : [])))
      expect(roles.has('melody')).toBe(own !== 'tune')
      expect(roles.has('bass')).toBe(own !== 'rest')
    }
    expect(ownPartOf({ melody: 'off', bass: 'off' })).toBeUndefined()
  })
})
