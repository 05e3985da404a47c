import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { QUARTER } from '../../../src/music/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { feelMarks, timelineOf, unfold, type Feel, type TuneDoc } from '../../../src/document/index.ts'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { scoreOf, Sequencer, type Performance } from '../../../src/output/sound/index.ts'
import { finish } from '../../../src/turns.ts'
import { tuneOfMusic } from '../../support/tunes.ts'

const setup = guitarSetup()

function played(tune: TuneDoc, feel?: Feel): Performance {
  const regions = wholeTune(tune, 'melody-bass', 2).map((r) => (feel ? { ...r, feel } : r))
  const { layer, plan } = finish(arranging(tune, setup, regions))
  return scoreOf(tune, setup, layer, plan.timeline, unfold(tune.measures), [], regions)
}

/** Seconds from the beginning to a tick, from the tempos alone. */
function secondsAt({ tempos }: Performance, tick: number): number {
  let seconds = 0
  tempos.forEach(({ at, bpm }, i) => {
    const to = Math.min(tempos[i + 1]?.at ?? Infinity, tick)
    if (to > at) seconds += ((to - at) / QUARTER) * (60 / bpm)
  })
  return seconds
}

const EIGHTHS = tuneOfMusic('"C"cegc "F"fafc|"G"gdBd "C"c4|]', 'M:4/4\nL:1/8\nQ:1/4=60\nK:C')

describe('a feel', () => {
  it.each([
    ['light', 0.58],
    ['shuffle', 2 / 3],
  ] as const)('%s: the second half of a beat comes at %d of it, the beats where they were', (feel, share) => {
    const swung = played(EIGHTHS, feel)
    for (let beat = 0; beat < 6; beat++) {
      expect(secondsAt(swung, beat * QUARTER)).toBeCloseTo(beat, 6)
      expect(secondsAt(swung, (beat + 0.5) * QUARTER)).toBeCloseTo(beat + share, 6)
    }
    expect(secondsAt(swung, swung.length)).toBeCloseTo(secondsAt(played(EIGHTHS), swung.length), 6)
  })

  it('does not change the tab', () => {
    const places = (p: Performance) => p.notes.map((n) => `${n.at} ${n.string} ${n.hertz}`)
    expect(places(played(EIGHTHS, 'shuffle'))).toEqual(places(played(EIGHTHS)))
  })

  it('leaves triplets, and measures in threes, as they are', () => {
    const triplets = played(
      tuneOfMusic('"C"(3ceg c2 ec gc|"C"c8|]', 'M:4/4\nL:1/8\nQ:1/4=60\nK:C'),
      'shuffle',
    )
    expect(secondsAt(triplets, QUARTER / 3)).toBeCloseTo(1 / 3, 6)
    expect(secondsAt(triplets, 2.5 * QUARTER)).toBeCloseTo(2 + 2 / 3, 6)
    const jig = tuneOfMusic('"C"ceg gec|"C"c6|]', 'M:6/8\nL:1/8\nQ:3/8=60\nK:C')
    expect(played(jig, 'shuffle').tempos).toEqual(played(jig).tempos)
  })

  it('is counted in with even beats', () => {
    const swung = played(EIGHTHS, 'shuffle')
    const sequencer = new Sequencer(1000)
    sequencer.load(swung)
    sequencer.play(0, true)
    const clicks: number[] = []
    for (let block = 0; block < 400; block++)
      for (const e of sequencer.advance(10)) if (e.kind === 'click') clicks.push(block * 10 + e.frame)
    const gaps = clicks.slice(1, swung.countIn).map((c, i) => c - clicks[i]!)
    expect(gaps.every((g) => Math.abs(g - 1000) <= 10)).toBe(true)
  })

  it('is marked where it begins and where it ends, by sections', () => {
    const tune = tuneOfMusic('c4|c4|c4|c4|]')
    const [a, b, c, d] = tune.measures.map((m) => m.id)
    const region = wholeTune(tune, 'melody-bass', 1)[0]!
    const regions = [
      { ...region, to: a! },
      { ...region, from: b!, to: c!, feel: 'light' as const },
      { ...region, from: d!, to: d! },
    ]
    expect([...feelMarks(tune, regions)]).toEqual([
      [b, 'light'],
      [d, 'straight'],
    ])
    expect([...feelMarks(tune, [region])]).toEqual([])
  })

  it('gives every beat its time, whatever is struck in it', () => {
    const music = fc.array(fc.constantFrom('c4', 'c2e2', 'cege', '(3ceg c2', 'c3e', 'c/e/g/c/ e2'), {
      minLength: 2,
      maxLength: 8,
    })
    fc.assert(
      fc.property(music, fc.constantFrom('light', 'shuffle'), (beats, feel) => {
        const measures = beats.flatMap((b, i) =>
          i % 2 === 0 && beats[i + 1] ? [`"C"${b} ${beats[i + 1]!}`] : [],
        )
        const tune = tuneOfMusic(`${measures.join('|')}|]`, 'M:4/4\nL:1/8\nQ:1/4=60\nK:C')
        const swung = played(tune, feel)
        for (let beat = 0; beat * QUARTER <= timelineOf(tune.measures).length; beat++)
          expect(secondsAt(swung, beat * QUARTER)).toBeCloseTo(beat, 6)
      }),
      { numRuns: 25 },
    )
  })
})

describe('the end of a tune', () => {
  const closed = (close?: 'slower') => {
    const regions = wholeTune(EIGHTHS, 'arpeggio', 3).map((r) => (close ? { ...r, close } : r))
    return finish(arranging(EIGHTHS, setup, regions)).layer.notes
  }

  it('is slower and held where that is asked for, and nothing else is another', () => {
    const [plain, slower] = [closed(), closed('slower')]
    expect(plain.some((n) => n.pace ?? n.fermata)).toBe(false)
    expect(slower.filter((n) => n.pace === 'rit')).toHaveLength(1)
    const held = slower.filter((n) => n.fermata)
    expect(held.length).toBeGreaterThan(0)
    expect(held.every((n) => n.pos.measure === 'm2')).toBe(true)
    expect(slower.map(({ pace: _, fermata: __, ...n }) => n)).toEqual(plain)
  })
})
