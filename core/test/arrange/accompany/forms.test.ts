import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  chordPitchClasses,
  mod12,
  pitchClass,
  readChordSymbol,
  type NoteName,
} from '../../../src/music/index.ts'
import { guitarSetup, pitchAt } from '../../../src/instrument/index.ts'
import { USUAL_SCHOOL, type Level, type Style, type TuneDoc } from '../../../src/document/index.ts'
import {
  arranging,
  TWELVE_BAR_FORMS,
  twelveBarAbc,
  wholeTune,
  type TwelveBarForm,
} from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { descending } from '../../../src/arrange/accompany/phraseFill.ts'
import { readAbc } from '../../../src/input/abc/readAbc.ts'
import { chord } from '../../support/chords.ts'
import { tuneOf, tuneOfMusic } from '../../support/tunes.ts'
import { refusalWords } from '../../support/words.ts'

const setup = guitarSetup()

function accompanied(tune: TuneDoc, style: Style, level: Level, runs: 'never' | 'changes' = 'never') {
  const arranged = finish(arranging(tune, setup, wholeTune(tune, style, level, { ...USUAL_SCHOOL, runs })))
  const json = tabJson(tune, setup, arranged.plan, arranged.layer, [], 0)
  return { ...arranged, report: audit(finishedTabOf(json)) }
}

const pitchesIn = (tune: TuneDoc, layer: ReturnType<typeof accompanied>['layer'], m: number) =>
  layer.notes.filter((n) => n.pos.measure === tune.measures[m]!.id).map((n) => pitchAt(setup, n.place))

describe('twelve-bar forms (common practice, no source)', () => {
  const tonic = fc.constantFrom<NoteName>(
    { step: 'A', alter: 0 },
    { step: 'B', alter: -1 },
    { step: 'E', alter: 0 },
    { step: 'F', alter: 0 },
    { step: 'G', alter: 0 },
  )
  const form = fc.constantFrom(...(Object.keys(TWELVE_BAR_FORMS) as TwelveBarForm[]))

  it('are twelve measures of sevenths on the first, fourth and fifth, read back from their ABC', () => {
    fc.assert(
      fc.property(tonic, form, (key, name) => {
        const [reading] = readAbc(twelveBarAbc(key, name, 'Form', 100), () => 't')
        const { tune } = reading!
        expect(reading!.problems.filter((p) => p.severity === 'error')).toEqual([])
        expect(tune!.measures).toHaveLength(12)
        const degrees = tune!.chords.map((c) => {
          const read = readChordSymbol(c.symbol)
          if (read.kind !== 'chord') throw new Error(c.symbol)
          expect(read.chord.quality).toBe('7')
          return mod12(pitchClass(read.chord.root) - pitchClass(key))
        })
        expect(degrees).toEqual([...TWELVE_BAR_FORMS[name]])
        // Every form starts at home and stands on the fourth in its fifth measure.
        expect([degrees[0], degrees[4]]).toEqual([0, 5])
      }),
    )
  })

  it('without a melody are accompanied; to play a melody that is not there is refused with the way out', () => {
    const tune = tuneOf(twelveBarAbc({ step: 'A', alter: 0 }, 'slow', 'Form', 100))
    const { report } = accompanied(tune, 'shuffle', 3)
    expect([report.structural, report.rootsInBass]).toEqual([0, report.harmonyChanges])
    expect(refusalWords(() => accompanied(tune, 'melody-bass', 1))).toMatch(/choose a style that accompanies/)
  })

  it('text without notes and without chords is still no tune', () => {
    expect(readAbc('X:1\nT:Nothing\nK:C\nz4|', () => 't')[0]!.tune).toBeUndefined()
  })
})

describe('a turnaround', () => {
  const tune = tuneOf(twelveBarAbc({ step: 'A', alter: 0 }, 'slow', 'Form', 100))

  it('goes down from the octave by the flat seventh to the fifth, over the held root', () => {
    const { layer, report } = accompanied(tune, 'shuffle', 4)
    const line = pitchesIn(tune, layer, 10).filter((_, i) => i % 2 === 1)
    // Each beat is struck twice, as the shuffle before it.
    expect(line).toEqual([57, 57, 55, 55, 54, 54, 53, 53])
    expect(pitchesIn(tune, layer, 10).filter((_, i) => i % 2 === 0)).toEqual(Array(8).fill(45))
    expect(report.structural).toBe(0)
  })

  it('has a simpler version, and below that none', () => {
    expect(pitchesIn(tune, accompanied(tune, 'shuffle', 3).layer, 10)).toEqual(
      Array.from({ length: 16 }, (_, i) => (i % 2 === 0 ? 45 : 52)),
    )
    expect(pitchesIn(tune, accompanied(tune, 'shuffle', 2).layer, 10)).toEqual(
      pitchesIn(tune, accompanied(tune, 'shuffle', 2).layer, 0),
    )
  })
})

describe('fills between sung phrases', () => {
  const tune = tuneOfMusic('"C"EGc z|z4|"G"BdB z|z4|"C"c4|', 'M:4/4\nL:1/4\nQ:1/4=90\nK:C')

  it('stand where the singer rests, and nowhere else, down to a tone of the chord', () => {
    const { layer, plan } = accompanied(tune, 'picking', 5)
    const fills = layer.notes.filter((n) => n.role === 'fill')
    expect(fills.length).toBeGreaterThan(4)
    for (const n of fills) {
      const at = plan.timeline.starts[plan.timeline.indexOf.get(n.pos.measure)!]! + n.pos.tick
      const sung = plan.sung.some((s) => s.start <= at && s.start + s.duration > at)
      expect(sung).toBe(false)
      expect(n.optional).toBe(true)
    }
    const last = fills.filter((n) => n.pos.measure === tune.measures[1]!.id).at(-1)!
    expect(chordPitchClasses(chord('C'))).toContain(mod12(pitchAt(setup, last.place)))
  })

  it('are the fullest level’s alone', () => {
    for (const level of [1, 3, 4] as const)
      expect(accompanied(tune, 'picking', level).layer.notes.some((n) => n.role === 'fill')).toBe(false)
  })

  it('run through the pentatonic scale of the chord in the first position', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('C', 'G', 'D', 'A', 'E', 'F', 'Am', 'Em', 'Dm', 'A7', 'Bm'),
        fc.integer({ min: 2, max: 12 }),
        (symbol, count) => {
          const own = chord(symbol)
          const line = descending(setup, own, count)
          expect(line).toHaveLength(count)
          const steps = own.intervals.includes(3) ? [0, 3, 5, 7, 10] : [0, 2, 4, 7, 9]
          for (const place of line) {
            expect(place.fret).toBeLessThanOrEqual(4)
            expect(steps).toContain(mod12(pitchAt(setup, place) - pitchClass(own.root)))
          }
          expect(chordPitchClasses(own)).toContain(mod12(pitchAt(setup, line.at(-1)!)))
          line.slice(1).forEach((p, i) => expect(pitchAt(setup, p)).not.toBe(pitchAt(setup, line[i]!)))
        },
      ),
    )
  })
})
