import { describe, expect, it } from 'vitest'
import { intervalOf, mod12, QUARTER } from '../../../src/music/index.ts'
import {
  guitarSetup,
  GUITAR,
  pitchAt,
  setupOf,
  tuningById,
  type Setup,
} from '../../../src/instrument/index.ts'
import {
  LEVELS,
  SOLO_STYLES,
  ticksAt,
  USUAL_SCHOOL,
  type Level,
  type School,
  type Style,
  type TuneDoc,
} from '../../../src/document/index.ts'
import { arranging, refusalOf, wholeTune } from '../../../src/arrange/index.ts'
import { finish } from '../../../src/turns.ts'
import { STYLE_RULES } from '../../../src/arrange/plan/styleRules.ts'
import { CORPUS, tuneOf, tuneOfMusic } from '../../support/tunes.ts'

const SONG = tuneOfMusic('"C"cdec|"F"f2c2|"G7"BdgB|"Am"c2A2|"Dm"d2f2|"G7"B2d2|"C"e2g2|"C"c4|]')

function arranged(
  tune: TuneDoc,
  style: Style,
  level: Level,
  { setup = guitarSetup(), school }: { setup?: Setup; school?: Partial<School> } = {},
) {
  const own = school ? { ...USUAL_SCHOOL, ...school } : undefined
  const { plan, layer } = finish(arranging(tune, setup, wholeTune(tune, style, level, own)))
  const at = (n: (typeof layer.notes)[number]) => ticksAt(plan.timeline, n.pos)
  const onsets = new Map<number, (typeof layer.notes)[number][]>()
  for (const n of layer.notes) onsets.set(at(n), [...(onsets.get(at(n)) ?? []), n])
  return { plan, layer, onsets, midi: (n: (typeof layer.notes)[number]) => pitchAt(setup, n.place) }
}

describe('what makes each style', () => {
  it('alternating bass: the thumb on every beat, never the same bass twice under one chord', () => {
    const { layer, plan } = arranged(SONG, 'alternating-bass', 3)
    const bass = layer.notes.filter((n) => n.role === 'bass')
    // All beats but those on which the tune comes to rest; the root of its last chord is one of them.
    expect(bass.length).toBeGreaterThanOrEqual(28)
    expect(bass.every((n) => n.right === 'p')).toBe(true)
    bass.forEach((n, i) => {
      const before = bass[i - 1]
      const start = ticksAt(plan.timeline, n.pos)
      if (!before || plan.harmony.some((h) => h.start === start)) return
      expect([n.place.string, n.place.fret]).not.toEqual([before.place.string, before.place.fret])
    })
  })

  it('arpeggio: something is struck on every half beat at level 3, the pattern under the melody where they meet', () => {
    const { onsets, midi } = arranged(SONG, 'arpeggio', 3)
    let filled = 0
    for (let t = 0; t < 8 * 40_320; t += 5_040) if (onsets.has(t)) filled++
    expect(filled / 64).toBeGreaterThan(0.85)
    for (const notes of onsets.values()) {
      const melody = notes.find((n) => n.role === 'melody')
      if (melody) for (const n of notes) expect(midi(n)).toBeLessThanOrEqual(midi(melody))
    }
  })

  it('chord melody: a voicing of three under each strong note, the root below where the chord changes', () => {
    const { plan, onsets, midi } = arranged(SONG, 'chord-melody', 3)
    for (const h of plan.harmony) {
      const notes = onsets.get(h.start)!
      expect(notes.length).toBeGreaterThanOrEqual(3)
      const lowest = Math.min(...notes.map(midi))
      expect(mod12(lowest)).toBe(mod12(midi(notes.find((n) => n.role === 'bass')!)))
      const top = notes.reduce((a, b) => (midi(b) > midi(a) ? b : a))
      expect(top.role).toBe('melody')
    }
  })

  it('drone: the bass is the tonic or its fifth and nothing else, open where the tuning has it', () => {
    const setup = setupOf('guitar', tuningById('guitar', 'dadgad'))
    const tune = tuneOf('X:1\nT:Test\nM:4/4\nL:1/4\nQ:1/4=100\nK:D\n"D"dfaf|"G"gbge|"A"aec\'a|"D"d4|]\n')
    const { layer, midi } = arranged(tune, 'drone', 3, { setup })
    const bass = layer.notes.filter((n) => n.role === 'bass')
    // On strong beats, and once where the tune comes to rest.
    expect(bass.length).toBe(7)
    for (const n of bass) expect([2, 9]).toContain(mod12(midi(n)))
    expect(bass.filter((n) => n.place.fret === 0).length).toBeGreaterThan(5)
  })

  it('cross-string: harmonics are offered, touched at their node and sounding the tune’s own pitch', () => {
    let harmonics = 0
    const setup = setupOf('guitar', tuningById('guitar', 'dadgad'))
    for (const tune of CORPUS.slice(0, 6)) {
      const { layer, plan, midi } = arranged(tune, 'cross-string', 5, { setup })
      const wanted = new Map(plan.melody.map((n, i) => [n.sourceId, plan.melodyMidi[i]!]))
      for (const n of layer.notes) {
        if (!n.place.harmonic) continue
        harmonics++
        // It needs a beat to be touched and to ring.
        expect(n.dur.ticks).toBeGreaterThanOrEqual(QUARTER)
        expect(midi(n)).toBe(wanted.get(n.sourceId!))
        // A string in two, three or four parts: frets 12, 7 and 5 (published: nodes of a vibrating string).
        expect(n.place.fret).toBe({ 2: 12, 3: 7, 4: 5 }[n.place.harmonic as 2])
      }
    }
    expect(harmonics).toBeGreaterThan(0)
  })

  it('double stops: thirds and sixths above all, below or above the tune as the school says', () => {
    for (const side of ['below', 'above'] as const) {
      const { onsets, midi } = arranged(SONG, 'double-stops', 4, { school: { harmony: side } })
      let pairs = 0
      let sweet = 0
      for (const notes of onsets.values()) {
        const melody = notes.find((n) => n.role === 'melody')
        const second = notes.find((n) => n.role === 'harmony')
        // The last chord is a chord.
        if (!melody || !second || notes.length > 2) continue
        pairs++
        if (side === 'below') expect(midi(second)).toBeLessThan(midi(melody))
        else expect(midi(second)).toBeGreaterThan(midi(melody))
        if ([3, 6].includes(intervalOf(midi(second) - midi(melody)).number)) sweet++
      }
      expect(pairs).toBeGreaterThan(15)
      expect(sweet / pairs).toBeGreaterThan(0.7)
    }
  })

  it('flatpicked lead: one note at a time up to level 2, every one with a stroke', () => {
    for (const level of [1, 2] as const) {
      const { onsets } = arranged(SONG, 'flatpicked-lead', level)
      const last = Math.max(...onsets.keys())
      for (const [at, notes] of onsets) {
        // From level 2 on the tune closes on its chord.
        if (at === last && level > 1) expect(notes.length).toBeGreaterThanOrEqual(3)
        else expect(notes).toHaveLength(1)
        for (const n of notes) expect(['down', 'up']).toContain(n.right)
      }
    }
  })
})

describe('schools', () => {
  const roots = (root: School['root']) => {
    const { plan, layer, midi } = arranged(SONG, 'melody-bass', 3, { school: { root } })
    return plan.harmony.filter((h) =>
      layer.notes.some(
        (n) =>
          n.role === 'bass' &&
          ticksAt(plan.timeline, n.pos) === h.start &&
          mod12(midi(n)) === mod12({ C: 0, F: 5, G: 7, A: 9, D: 2 }[h.symbol[0] as 'C']),
      ),
    ).length
  }

  it('roots always, never', () => {
    expect(roots('always')).toBe(8)
    // But the chord on which it comes to rest.
    expect(roots('never')).toBeLessThanOrEqual(1)
    expect(roots('sometimes')).toBeGreaterThan(0)
  })

  it('open strings more where they are wanted, fewer where the hand stays', () => {
    const open = (hand: School['hand']) =>
      arranged(SONG, 'flatpicked-lead', 2, { school: { hand } }).layer.notes.filter((n) => n.place.fret === 0)
        .length
    expect(open('open')).toBeGreaterThanOrEqual(open('free'))
    expect(open('position')).toBeLessThan(open('open'))
  })

  it('repeats alike by default, varied on request', () => {
    const tune = tuneOfMusic('"C"cegc|"C"cegc|"C"cegc|"C"cegc|"G7"B4|"C"c4|]')
    const measures = (repeats: School['repeats']) => {
      const { layer } = arranged(tune, 'alternating-bass', 4, { school: { repeats } })
      return [1, 2, 3].map((m) =>
        layer.notes
          .filter((n) => n.pos.measure === tune.measures[m]!.id)
          .map((n) => `${n.pos.tick}:${n.place.string}.${n.place.fret}`)
          .join(),
      )
    }
    expect(new Set(measures('alike')).size).toBe(1)
    expect(new Set(measures('varied')).size).toBeGreaterThan(1)
  })

  it('both parts: each note of the second is played at its pitch or listed', () => {
    const tune = tuneOf('X:1\nT:Two\nM:4/4\nL:1/4\nK:C\nV:1\n"C"cegc|"F"a2f2|"C"c4|]\nV:2\nC2E2|F2A,2|C4|]\n')
    const { layer, plan } = arranged(tune, 'melody-bass', 4, { school: { parts: 'both' } })
    const second = tune.events.filter((e) => e.voice === 1 && e.pitch)
    const kept = second.filter((e) => layer.notes.some((n) => n.sourceId === e.id))
    expect(kept.length).toBeGreaterThanOrEqual(second.length - 1)
    for (const e of kept) {
      const n = layer.notes.find((x) => x.sourceId === e.id)!
      expect(n.role).toBe('harmony')
      const steps = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }
      expect(pitchAt(guitarSetup(), n.place)).toBe(
        12 * (e.pitch!.octave + 1) + steps[e.pitch!.step] + e.pitch!.alter + plan.transposed,
      )
    }
  })
})

describe('the table of levels', () => {
  it('asks for as much or more at every step up, in every style', () => {
    const weight = { none: 0, chord: 1, measure: 1, strong: 2, beats: 3 } as const
    const voices = { changes: 1, strong: 2, beats: 3, halves: 4, all: 5 } as const
    for (const style of SOLO_STYLES)
      for (const level of LEVELS.slice(1)) {
        const [low, high] = [STYLE_RULES[style][(level - 1) as Level], STYLE_RULES[style][level]]
        const refused = refusalOf(style, (level - 1) as Level, GUITAR)
        if (refused) continue
        expect(weight[high.bass]).toBeGreaterThanOrEqual(weight[low.bass])
        expect(high.double ? voices[high.double] : 0).toBeGreaterThanOrEqual(
          low.double ? voices[low.double] : 0,
        )
        expect(high.chord ? voices[high.chord.at] : 0).toBeGreaterThanOrEqual(
          low.chord ? voices[low.chord.at] : 0,
        )
        if (low.fill) expect(high.fill!.gap).toBeLessThanOrEqual(low.fill.gap)
        expect(high.ring).toBe(low.ring)
      }
  })
})
