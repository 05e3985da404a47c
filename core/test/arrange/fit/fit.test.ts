import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Interval, Note, Chord } from 'tonal'
import { chordText, midiOf, pitchClass, readPitch } from '../../../src/music/index.ts'
import { guitarSetup, kindSpans, tuningById, withShift } from '../../../src/instrument/index.ts'
import { melodyOf, opening, timelineOf } from '../../../src/document/index.ts'
import { effortOf, handFault, pressedOf, tuneEffort } from '../../../src/hand/index.ts'
import {
  ALL_SHIFTS,
  arranging,
  arrangementOf,
  bestTradeOffs,
  capoTaper,
  choiceId,
  complaints,
  estimateFamily,
  estimating,
  familiesOf,
  finalists,
  fitFigures,
  gapOf,
  comparableEstimates,
  makePlan,
  narrowVoice,
  partnerParts,
  PARTNERS,
  ranked,
  readRange,
  setupWith,
  sungFit,
  sweep,
  UNFELT,
  USUAL_PREFERENCES,
  weigh,
  wholeTune,
  PRIORITIES,
  workOut,
  type FitChoice,
  type FitOption,
  type FitQuestion,
  type Preferences,
} from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { readArrangementDoc } from '../../../src/schema/index.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const setup = guitarSetup()
const question = (over: Partial<FitQuestion> = {}): FitQuestion => ({
  tune: CORPUS[0]!,
  regions: wholeTune(CORPUS[0]!, 'melody-bass', 2),
  setup,
  tunings: [tuningById('guitar', 'standard'), tuningById('guitar', 'dropD')],
  shifts: ALL_SHIFTS,
  capos: [0, 1, 2, 3, 4, 5],
  wanted: 0,
  ...over,
})

describe('a tune in another key', () => {
  /** Traditional tunes, long out of copyright, from memory. */
  it('keeps every interval of its melody, and its chords move along (against tonal)', () => {
    for (const shift of ALL_SHIFTS)
      for (const tune of CORPUS.slice(0, 2)) {
        const moved = withShift(setup, shift)
        const { layer, plan } = finish(arranging(tune, moved, wholeTune(tune, 'melody-bass', 2)))
        expect(Math.abs((plan.transposed - shift) % 12)).toBe(0)
        const report = audit(finishedTabOf(tabJson(tune, moved, plan, layer, [], 0)))
        expect([report.structural, report.melodyKept]).toEqual([0, report.melodyNotes])
        plan.harmony.forEach((h, i) => {
          const given = tune.chords[i]!.parsed!
          const wanted = Note.transpose(
            chordText(given).replace(/^([A-G][#b]*).*/, '$1'),
            Interval.fromSemitones(shift),
          )
          expect(pitchClass(h.sounding!.root)).toBe(Note.chroma(wanted))
        })
      }
  })

  it('is kept in storage', () => {
    const tune = CORPUS[0]!
    const moved = withShift(guitarSetup(3), -4)
    const regions = wholeTune(tune, 'melody-bass', 1)
    const { layer, plan } = finish(arranging(tune, moved, regions))
    const doc = arrangementOf('a', 'A', tune, moved, regions, { layer, transposed: plan.transposed })
    expect(readArrangementDoc(JSON.parse(JSON.stringify(doc)))).toEqual(doc)
    expect(withShift(moved, 0)).toEqual(guitarSetup(3))
  })

  it('goes into the octave that is asked for where it lies there whole, and into the best where it does not', () => {
    const tune = CORPUS[0]!
    const regions = wholeTune(tune, 'melody-bass', 1)
    const movedTo = (octave: number | undefined) => {
      const planned = makePlan(tune, withShift(setup, 0, octave), regions)
      return planned.ok ? planned.plan.transposed : NaN
    }
    const own = movedTo(undefined)
    expect(movedTo(own / 12 + 1)).toBe(own + 12)
    expect(movedTo(-2)).toBe(own)
    const asked = withShift(guitarSetup(2), 3, 1)
    const made = finish(arranging(tune, asked, regions))
    const kept = { layer: made.layer, transposed: made.plan.transposed }
    const doc = arrangementOf('a', 'A', tune, asked, regions, kept)
    expect(readArrangementDoc(JSON.parse(JSON.stringify(doc))).setup).toEqual(asked)
  })
})

describe('the choices', () => {
  it('are every tuning with every key, capo and octave that fits, once, in families of one height', () => {
    const q = question()
    const pitches = melodyOf(q.tune, timelineOf(q.tune.measures)).map((n) => midiOf(n.pitch))
    const all = familiesOf(q).flatMap((f) => f.choices)
    expect(new Set(all.map(choiceId)).size).toBe(all.length)
    const settings = new Map<string, FitChoice[]>()
    for (const c of all) {
      const at = `${c.tuning.join()} ${c.shift} ${c.capo}`
      settings.set(at, [...(settings.get(at) ?? []), c])
      // Every note lies between the lowest open string and the highest fret.
      const moved = pitches.map((p) => p + c.shift + 12 * c.octave!)
      expect(Math.min(...moved)).toBeGreaterThanOrEqual(Math.min(...c.tuning) + c.capo)
      expect(Math.max(...moved)).toBeLessThanOrEqual(Math.max(...c.tuning) + setup.instrument.frets)
    }
    expect(settings.size).toBe(2 * 12 * 6)
    for (const choices of settings.values()) {
      // What the arranger would take by itself is among them.
      const { octave: _, ...free } = choices[0]!
      const planned = makePlan(q.tune, setupWith(setup, free), q.regions)
      const own = planned.ok ? planned.plan.transposed : NaN
      expect(choices.map((c) => c.shift + 12 * c.octave!)).toContain(own)
    }
    expect([...settings.values()].filter((c) => c.length > 1).length).toBeGreaterThan(20)
    for (const { tuning, choices } of familiesOf(q)) {
      expect(new Set(choices.map((c) => c.shift + 12 * c.octave! - c.capo)).size).toBe(1)
      for (const c of choices) expect(c.tuning).toBe(tuning)
    }
  })

  it('a tune that is sung has no octaves on the instrument', () => {
    const q = question({ regions: wholeTune(CORPUS[0]!, 'strum', 2) })
    const all = familiesOf(q).flatMap((f) => f.choices)
    expect(all.length).toBe(2 * 12 * 6)
    for (const c of all) expect(c.octave).toBeUndefined()
    for (const { choices } of familiesOf(q))
      expect(new Set(choices.map((c) => (c.shift - c.capo + 24) % 12)).size).toBe(1)
  })

  it('are arranged in their octave, and measured by how far beyond its range the melody lies', () => {
    const q = question({ capos: [0, 2] })
    const twice = familiesOf(q).filter(({ choices }) => choices.some((c) => c.octave !== 0))
    expect(twice.length).toBeGreaterThan(3)
    for (const { choices } of twice.slice(0, 6)) {
      const { option } = finish(workOut(q, choices[0]!))!
      const { shift, octave } = option.choice
      expect(option.transposed).toBe(shift + 12 * octave!)
      // By hand: G3 to A4 in standard tuning and drop D, from the capo; below counts a fifth more; weighed by length.
      const [low, high] = [55 + option.choice.capo, 69 + option.choice.capo]
      let [sum, whole] = [0, 0]
      for (const n of melodyOf(q.tune, timelineOf(q.tune.measures))) {
        const midi = midiOf(n.pitch) + option.transposed
        sum += (1.2 * Math.max(0, low - midi) + Math.max(0, midi - high)) * n.duration
        whole += n.duration
      }
      expect(option.beyond).toBeCloseTo(sum / whole, 9)
    }
  })

  it('nothing allowed is said by its name', () => {
    expect(gapOf(question({ tunings: [] }))).toBe('tunings')
    expect(gapOf(question({ shifts: [] }))).toBe('shifts')
    expect(gapOf(question({ capos: [] }))).toBe('capos')
    expect(gapOf(question())).toBeUndefined()
  })
})

describe('what an option costs', () => {
  it('is measured on its own arrangement, with its own capo’s millimetres', () => {
    const q = question()
    for (const capo of [0, 3, 5]) {
      const choice = { tuning: q.tunings[0]!, shift: capo, capo }
      const { option, layer } = finish(workOut(q, choice))!
      const on = setupWith(setup, choice)
      const own = tuneEffort(effortOf(q.tune, on, layer, timelineOf(q.tune.measures)))
      expect(option.figures.effort).toBe(own.mean)
      expect(option.figures.hardest).toEqual({ measure: own.hardest!.measure, effort: own.hardest!.effort })
      expect(option.figures).toEqual(fitFigures(q.tune, on, layer, option.transposed))
    }
  })

  it('a capo at fret n makes every stretch of the same shapes smaller, as the frets shrink', () => {
    const q = question({ shifts: [0, 1, 2, 3, 4, 5] })
    const family = familiesOf(q).find((f) => f.choices.some((c) => c.shift === 0 && c.capo === 0))!
    const byCapo = finish(estimateFamily(q, family)).sort((a, b) => a.choice.capo - b.choice.capo)
    expect(byCapo.length).toBeGreaterThan(3)
    byCapo
      .slice(1)
      .forEach((o, i) => expect(o.figures.stretch.mm).toBeLessThanOrEqual(byCapo[i]!.figures.stretch.mm))
    expect(byCapo.at(-1)!.figures.stretch.mm).toBeLessThan(byCapo[0]!.figures.stretch.mm)
  })

  it('open roots are counted as by hand: in G the roots of G, C and D on the open strings E A D', () => {
    const tune = tuneOfMusic('"G"G4|"C"c4|"D"d4|"Em"e4|"A"e4|', 'M:4/4\nL:1/4\nK:G')
    const q = question({ tune, regions: wholeTune(tune, 'melody-bass', 1) })
    const at = (id: 'standard' | 'dropD', shift: number, capo: number) =>
      finish(workOut(q, { tuning: tuningById('guitar', id), shift, capo }))!.option.figures
    // E, A, D open: D, Em and A have theirs.
    expect(at('standard', 0, 0)).toMatchObject({ changes: 5, openRoots: 3 })
    // D, A, D open: D and A.
    expect(at('dropD', 0, 0)).toMatchObject({ changes: 5, openRoots: 2 })
    // A capo at 2 behind shapes two frets lower: F, Bb, C, Dm, G: only Dm.
    expect(at('standard', 0, 2)).toMatchObject({ changes: 5, openRoots: 1 })
  })
})

describe('the ranking', () => {
  /** Traditional tunes, long out of copyright, from memory. */
  it('after the estimate has the same five first as working out every choice', () => {
    for (const tune of CORPUS.slice(0, 1)) {
      const q = question({
        tune,
        regions: wholeTune(tune, 'alternating-bass', 3),
        tunings: [tuningById('guitar', 'standard')],
        capos: [0, 2, 4],
      })
      const all = familiesOf(q)
        .flatMap((f) => f.choices)
        .flatMap((c) => finish(workOut(q, c))?.option ?? [])
      const five = (list: readonly FitOption[]) =>
        ranked(list, USUAL_PREFERENCES)
          .slice(0, 5)
          .map((o) => o.id)
      const swept = finish(sweep(q, USUAL_PREFERENCES))
      expect(swept.worked.length).toBeLessThan(all.length)
      expect(five(swept.worked.map((w) => w.option))).toEqual(five(all))
    }
  })

  it('weighs what matters and nothing else; a wish that does not matter changes nothing', () => {
    const q = question({ voice: { low: 55, high: 72 } })
    const options = familiesOf(q)
      .slice(0, 8)
      .flatMap((f) => finish(estimateFamily(q, f)))
    expect(options.length).toBeGreaterThan(20)
    const none = Object.fromEntries(PRIORITIES.map((w) => [w, 0])) as Preferences
    for (const priority of PRIORITIES) {
      const only: Preferences = { ...none, [priority]: 2 }
      const order = ranked(options, only)
      order.slice(1).forEach((o, i) => {
        expect(complaints(o)[priority]).toBeGreaterThanOrEqual(complaints(order[i]!)[priority])
        expect(weigh(o, none)).toBe(0)
      })
    }
  })

  it('the best trade-offs are those that nothing else beats: as comparing every pair finds', () => {
    const q = question()
    const options = familiesOf(q).flatMap((f) => finish(estimateFamily(q, f)))
    const best = bestTradeOffs(options, USUAL_PREFERENCES)
    expect(best.length).toBeGreaterThan(0)
    expect(best.length).toBeLessThan(options.length)
    const traded = ['easy', 'noBarre', 'nearKey', 'openRoots', 'littleRetuning'] as const
    const beats = (a: FitOption, b: FitOption) =>
      traded.every((w) => complaints(a)[w] <= complaints(b)[w] + UNFELT) &&
      traded.some((w) => complaints(a)[w] < complaints(b)[w] - UNFELT)
    for (const o of options) expect(options.some((p) => beats(p, o))).toBe(!best.includes(o))
  })

  it('estimates are likened to what is worked out: order kept, the median share', () => {
    const q = question({ capos: [0, 2] })
    const estimates = familiesOf(q).flatMap((f) => finish(estimateFamily(q, f)))
    const worked = estimates.slice(0, 5).map((e) => ({
      ...e,
      estimated: false,
      figures: { ...e.figures, effort: 3 * e.figures.effort },
    }))
    const like = comparableEstimates(estimates, worked)
    expect(like.map((o) => o.id)).toEqual(estimates.slice(5).map((o) => o.id))
    like.forEach((o, i) => expect(o.figures.effort).toBeCloseTo(3 * estimates[i + 5]!.figures.effort, 1))
    expect(comparableEstimates(estimates, [])).toEqual(estimates)
  })

  it('estimates do not depend on which families were estimated before, in one key behind several capos either', () => {
    // Without chords nothing but the pitches tells the capos apart.
    const bare = { ...CORPUS[0]!, chords: [] }
    const line = { tune: bare, regions: wholeTune(bare, 'flatpicked-lead', 1) }
    for (const over of [{ shifts: [2] }, { shifts: [0, 3] }, {}, { shifts: [2], ...line }]) {
      const q = question({ ...over, capos: [0, 1, 2, 5] })
      const families = familiesOf(q)
      const alone = families.map((f) => finish(estimateFamily(q, f)))
      const together = (list: typeof families) =>
        [...estimating(q, list)].filter((found) => found !== undefined)
      expect(together(families)).toEqual(alone)
      expect(together([...families].reverse()).reverse()).toEqual(alone)
    }
  })

  it('every tuning has a finalist', () => {
    const q = question()
    const options = familiesOf(q).flatMap((f) => finish(estimateFamily(q, f)))
    const tunings = new Set(
      finalists(options, { ...USUAL_PREFERENCES, littleRetuning: 3 }).map((o) => o.choice.tuning),
    )
    expect(tunings.size).toBe(2)
  })
})

describe('a singer', () => {
  // Do re mi fa so in C: C4 to G4.
  const tune = tuneOfMusic('"C"C D E F|G4|]')

  it('has each note counted as by hand', () => {
    expect(sungFit(tune, 0, { low: 60, high: 67 })).toMatchObject({
      octave: 0,
      lowest: 60,
      highest: 67,
      outside: [],
    })
    // Two up: D4 to A4; F#4 is the third note of five.
    expect(sungFit(tune, 2, { low: 60, high: 66 })?.outside).toEqual([
      { measure: 0, midi: 67 },
      { measure: 1, midi: 69 },
    ])
    // A low voice takes it an octave lower: C3 to G3.
    expect(sungFit(tune, 0, { low: 45, high: 57 })).toMatchObject({ octave: -1, lowest: 48, highest: 55 })
  })

  it('ranges are read, and what is upside down or no range is said', () => {
    expect(readRange('A3-D5')).toEqual({ range: { low: 57, high: 74 } })
    expect(readRange('Bb2 – F#4')).toEqual({ range: { low: 46, high: 66 } })
    expect(readRange('D5-A3')).toEqual({ fault: { kind: 'upsideDown', low: 'D5', high: 'A3' } })
    expect(readRange('high')).toEqual({ fault: { kind: 'unreadable', text: 'high' } })
    fc.assert(
      fc.property(
        fc.constantFrom(...'ABCDEFG'),
        fc.constantFrom('', '#', 'b'),
        fc.integer({ min: 0, max: 7 }),
        (s, a, o) => {
          expect(midiOf(readPitch(`${s}${a}${o}`)!)).toBe(Note.midi(`${s}${a}${o}`))
        },
      ),
    )
  })

  it('who is narrower than the melody gets the key that leaves the fewest notes outside', () => {
    const narrow = narrowVoice(tune, { low: 60, high: 64 })!
    expect(narrow.missing).toBe(3)
    const least = Math.min(...ALL_SHIFTS.map((s) => sungFit(tune, s, { low: 60, high: 64 })!.outside.length))
    expect(narrow.nearest.outside).toBe(least)
    expect(sungFit(tune, narrow.nearest.shift, { low: 60, high: 64 })!.outside.length).toBe(least)
    expect(narrowVoice(tune, { low: 60, high: 67 })).toBeUndefined()
  })
})

describe('the capo taper', () => {
  const tune = tuneOfMusic('"F"F4|"C"c4|]')
  const grips = [
    {
      id: 'g',
      pos: { measure: tune.measures[0]!.id, tick: 0 },
      until: { measure: tune.measures[1]!.id, tick: 0 },
      pressed: [
        { string: 6, fret: 1, finger: 1 as const },
        { string: 1, fret: 4, finger: 4 as const },
      ],
      position: 1,
      costs: [],
    },
  ]

  it('finds the lowest capo at which each hard measure comes inside the hand, and goes down a fret a week', () => {
    const { measures, weeks } = capoTaper(tune, setup, { grips }, 'comfort')
    expect(measures).toHaveLength(1)
    const { capo, measure, mm, mmThere } = measures[0]!
    expect(measure).toBe(0)
    expect(mmThere!).toBeLessThan(mm)
    const at = (c: number) =>
      handFault(guitarSetup(c), kindSpans(setup.player.spans), pressedOf(grips[0]!.pressed))
    expect(at(capo!)).toBeUndefined()
    expect(at(capo! - 1)).toBeDefined()
    expect(weeks).toEqual(Array.from({ length: capo! + 1 }, (_, i) => capo! - i))
  })

  it('is empty for a hand that reaches everything', () => {
    expect(capoTaper(tune, setup, { grips: [] }, 'comfort')).toEqual({ measures: [], weeks: [] })
  })
})

describe('the partner sheet', () => {
  it('sounds the same pitches as the tune, whoever reads it (by MIDI numbers)', () => {
    for (const tune of CORPUS.slice(0, 6))
      for (const [transposed, capo] of [
        [0, 0],
        [-10, 3],
        [5, 2],
      ] as const) {
        const source = melodyOf(tune, timelineOf(tune.measures))
        for (const part of partnerParts(tune, transposed, capo, PARTNERS)) {
          part.notes.forEach((n, i) => {
            const sounds = midiOf(n.pitch) - part.written
            expect(Math.abs((sounds - midiOf(source[i]!.pitch) - transposed) % 12)).toBe(0)
          })
          if (part.notes.length > 0) expect(part.notes).toHaveLength(source.length)
          // Written chords, minus what is written higher, plus the capo, are the tune's.
          part.chords.forEach((c, i) => {
            const given = tune.chords[i]!.parsed!
            const sounds = pitchClass(c.chord.root) - part.written + part.capo
            expect((sounds - pitchClass(given.root) - transposed + 240) % 12).toBe(0)
            const known = Chord.get(chordText(c.chord))
            expect(known.empty).toBe(false)
          })
        }
      }
  })

  it('capo arithmetic as the trade has it: G, Em, C, D shapes at capo 3 sound B flat, G minor, E flat, F', () => {
    const tune = tuneOfMusic('"Bb"B4|"Gm"G4|"Eb"E4|"F"F4|', 'M:4/4\nL:1/4\nK:Bb')
    const [shapes, piano] = partnerParts(tune, 0, 3, ['piano'])
    expect(shapes!.chords.map((c) => chordText(c.chord))).toEqual(['G', 'Em', 'C', 'D'])
    expect(piano!.chords.map((c) => chordText(c.chord))).toEqual(['Bb', 'Gm', 'Eb', 'F'])
  })

  it('a second guitar plays familiar shapes of another family', () => {
    const tune = tuneOfMusic('"A"A4|"D"d4|"E"e4|"F#m"f4|', 'M:4/4\nL:1/4\nK:A')
    const [, second] = partnerParts(tune, 0, 0, ['secondGuitar'])
    expect(second!.capo).toBe(2)
    expect(second!.chords.map((c) => chordText(c.chord))).toEqual(['G', 'C', 'D', 'Em'])
  })
})

describe('the opening of a tune', () => {
  it('has its first measures whole and can be arranged', () => {
    for (const tune of CORPUS) {
      const cut = opening(tune, 4)
      expect(cut.measures).toEqual(tune.measures.slice(0, 4))
      const ids = new Set(cut.measures.map((m) => m.id))
      expect(cut.events).toHaveLength(tune.events.filter((e) => ids.has(e.pos.measure)).length)
      expect(makePlan(cut, setup, wholeTune(cut, 'melody-bass', 1)).ok).toBe(true)
    }
    expect(opening(CORPUS[0]!, 999)).toBe(CORPUS[0]!)
  })
})
