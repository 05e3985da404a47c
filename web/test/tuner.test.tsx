// @vitest-environment jsdom
import { LISTENED, stringPitch, type TunedString } from '@velvet-porch/core/input/audio'
import { act, cleanup, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { MicrophoneError } from '../src/score/hearing/microphone.ts'
import { microphone } from '../src/features/tuner/microphone.ts'
import { simulatedString } from '../src/features/tuner/simulatedString.ts'
import { LOOK_MS } from '../src/features/tuner/soundSource.ts'
import { useTunedStrings } from '../src/features/tuner/useTunedStrings.ts'

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  cleanup()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const inTune = (string: number): TunedString => ({ string, wanted: 40, cents: 0.4, turn: 'inTune' })
const flat = (string: number): TunedString => ({ string, wanted: 40, cents: -12, turn: 'tightenALittle' })

/** Looks at the sound one after the other; each is another one. */
function looking(of = 'standard') {
  const first: { of: string; reading: TunedString | undefined; look: object } = {
    of,
    reading: undefined,
    look: {},
  }
  const hook = renderHook((p) => useTunedStrings(p.of, 6, p.reading, p.look), { initialProps: first })
  return {
    see: (reading: TunedString | undefined, tuning = of) => hook.rerender({ of: tuning, reading, look: {} }),
    again: (reading: TunedString) => {
      const same = { of, reading, look: {} }
      for (let i = 0; i < 9; i++) hook.rerender(same)
    },
    now: () => hook.result.current,
  }
}

describe('strings that count as tuned', () => {
  it('are those of which four readings in a row agree', () => {
    const tuner = looking()
    for (const reading of [inTune(6), inTune(6), inTune(6)]) tuner.see(reading)
    expect(tuner.now().strings).toEqual([])
    tuner.see(inTune(6))
    expect(tuner.now().strings).toEqual([6])
    for (let i = 0; i < 4; i++) tuner.see(inTune(5))
    expect(tuner.now().strings).toEqual([6, 5])
  })

  it('are none whose readings are broken by one that is off, by silence, or by another string', () => {
    for (const between of [flat(6), undefined, inTune(5)]) {
      const tuner = looking()
      for (const reading of [inTune(6), inTune(6), inTune(6), between, inTune(6), inTune(6), inTune(6)])
        tuner.see(reading)
      expect(tuner.now().strings).toEqual([])
    }
  })

  it('are counted by looks at the sound: a page that is drawn again has heard nothing new', () => {
    const tuner = looking()
    tuner.again(inTune(6))
    expect(tuner.now().strings).toEqual([])
  })

  it('are none any more after the tuning or the capo has changed, and that is said until each is tuned again', () => {
    const tuner = looking()
    for (let i = 0; i < 4; i++) tuner.see(inTune(6))
    expect(tuner.now()).toMatchObject({ strings: [6], again: false })
    tuner.see(inTune(6), 'capo 2')
    expect(tuner.now()).toMatchObject({ strings: [], again: true })
    for (let i = 0; i < 4; i++) tuner.see(inTune(6), 'capo 2')
    expect(tuner.now()).toMatchObject({ strings: [6], again: true })
    for (const string of [5, 4, 3, 2]) for (let i = 0; i < 4; i++) tuner.see(inTune(string), 'capo 2')
    expect(tuner.now()).toMatchObject({ strings: [6, 5, 4, 3, 2], again: true })
    for (let i = 0; i < 4; i++) tuner.see(inTune(1), 'capo 2')
    expect(tuner.now()).toMatchObject({ strings: [6, 5, 4, 3, 2, 1], again: false })
  })
})

describe('a simulated string', () => {
  it('is heard where it was put, through noise, and anew where it is put elsewhere; it ends when it is asked to', async () => {
    let string = { hertz: 110, noise: 0 }
    const heard: (number | undefined)[] = []
    const end = await simulatedString(() => string)((samples, rate) => {
      expect(samples).toHaveLength(LISTENED)
      heard.push(stringPitch(samples, rate)?.hertz)
    })
    const pass = (looks: number) => act(() => vi.advanceTimersByTimeAsync(looks * LOOK_MS))
    await pass(8)
    expect(1200 * Math.log2(heard.at(-1)! / 110)).toBeCloseTo(0, 0)
    string = { hertz: 147.5, noise: 0.01 }
    await pass(8)
    expect(Math.abs(1200 * Math.log2(heard.at(-1)! / 147.5))).toBeLessThan(2)
    end()
    const before = heard.length
    await pass(5)
    expect(heard).toHaveLength(before)
  })
})

describe('a microphone that cannot be had', () => {
  const asked = async (devices: unknown) => {
    vi.stubGlobal('navigator', { mediaDevices: devices })
    const error: unknown = await microphone(() => undefined).catch((e: unknown) => e)
    return error instanceof MicrophoneError ? error.fault : error
  }
  const failing = (name: string) => ({ getUserMedia: () => Promise.reject(new DOMException('', name)) })

  it.each([
    ['NotAllowedError', 'refused'],
    ['SecurityError', 'refused'],
    ['NotFoundError', 'none'],
    ['NotReadableError', 'taken'],
    ['AbortError', 'taken'],
    ['SomethingElse', 'none'],
  ])('%s is %s', async (name, fault) => {
    expect(await asked(failing(name))).toBe(fault)
  })

  it('is not offered under an address that is not safe', async () => {
    expect(await asked(undefined)).toBe('notOffered')
  })
})

describe('a microphone', () => {
  it('is asked for without what is done to speech, sends what it hears, and is let go', async () => {
    const stop = vi.fn()
    const close = vi.fn()
    const getUserMedia = vi.fn(() => Promise.resolve({ getTracks: () => [{ stop }] }))
    vi.stubGlobal('navigator', { mediaDevices: { getUserMedia } })
    const resume = vi.fn()
    vi.stubGlobal(
      'AudioContext',
      class {
        state = 'suspended'
        sampleRate = 44_100
        resume = resume
        close = close
        createAnalyser = () => ({ fftSize: 0, getFloatTimeDomainData: (out: Float32Array) => out.fill(0.25) })
        createMediaStreamSource = () => ({ connect: vi.fn() })
      },
    )
    const heard: [number, number, number][] = []
    const end = await microphone((samples, rate) => heard.push([samples.length, samples[0]!, rate]))
    expect(getUserMedia).toHaveBeenCalledWith({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    })
    await vi.advanceTimersByTimeAsync(2 * LOOK_MS)
    expect(heard).toEqual([
      [LISTENED, 0.25, 44_100],
      [LISTENED, 0.25, 44_100],
    ])
    // A page that was hidden is woken.
    expect(resume).toHaveBeenCalled()
    end()
    expect(stop).toHaveBeenCalledOnce()
    expect(close).toHaveBeenCalledOnce()
  })
})
