import { describe, expect, it } from 'vitest'
import { guitarSetup, namedTunings, pitchAt, type Setup } from '../../../src/instrument/index.ts'
import {
  ACCOMPANIMENTS,
  LEVELS,
  splitRegion,
  USUAL_SCHOOL,
  withChoice,
  type PatternText,
  type Region,
  type School,
  type TuneDoc,
} from '../../../src/document/index.ts'
import { handFault, THUMB } from '../../../src/hand/index.ts'
import { accompany, arranging, remarkMessages, wholeTune } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { CORPUS, tuneOf, tuneOfMusic } from '../../support/tunes.ts'
import { refusalWords, say } from '../../support/words.ts'

/** What makes an accompaniment less comfortable, not wrong. */
const COMFORT = new Set(['bassCut', 'pickRepeat', 'hop', 'pickCross', 'pickGap'])

const FOUR = { num: 4, den: 4 }

function accompanied(tune: TuneDoc, regions: readonly Region[], setup: Setup = guitarSetup()) {
  const arranged = finish(arranging(tune, setup, regions))
  const json = tabJson(tune, setup, arranged.plan, arranged.layer, [], 0)
  return { ...arranged, json, report: audit(finishedTabOf(json)) }
}

const withPattern = (tune: TuneDoc, text: string, perBeat = 2, school: Partial<School> = {}): Region[] =>
  wholeTune(tune, text.includes('D') ? 'strum' : 'picking', 2, { ...USUAL_SCHOOL, ...school }).map((r) => ({
    ...r,
    pattern: { metre: FOUR, perBeat, text } satisfies PatternText,
  }))

/** Traditional tunes, long out of copyright, from memory: their chords, accompanied. */
describe('every accompaniment at every level', () => {
  it.each(ACCOMPANIMENTS.flatMap((s) => LEVELS.map((l) => [s, l] as const)))(
    '%s %i: by the audit of the finished tab no structural fault, the root of every chord, nothing beyond this hand',
    (style, level) => {
      for (let k = 0; k < 4; k++) {
        const tune = CORPUS[(level * 4 + k * 3) % CORPUS.length]!
        const setup = guitarSetup((level + k) % 4)
        const { report, json, layer, remarks } = accompanied(tune, wholeTune(tune, style, level), setup)
        expect(
          report.findings.filter((f) => !COMFORT.has(f.kind)),
          tune.title,
        ).toEqual([])
        expect(report.structural, tune.title).toBe(0)
        expect(report.rootsInBass, tune.title).toBe(report.harmonyChanges)
        expect(report.harmonyChanges).toBeGreaterThan(0)
        expect(json.source).toEqual([])
        expect(json.sung!.length).toBeGreaterThan(10)
        expect(remarks.filter((r) => r.kind === 'noShape')).toEqual([])
        for (const grip of layer.grips) {
          const pressed = grip.pressed.map((p) => ({ ...p, finger: p.finger === 'T' ? THUMB : p.finger }))
          // Shapes are measured from the nearest string of a barre; single fingers as they stand.
          const single = pressed.filter((p) => pressed.filter((q) => q.finger === p.finger).length === 1)
          expect(handFault(setup, setup.player.spans, single), JSON.stringify(grip.pressed)).toBeUndefined()
        }
      }
    },
  )

  it('in every named tuning: no structural fault, and what has no shape is said', () => {
    for (const { tuning, id } of namedTunings('guitar')) {
      const tune = CORPUS[3]!
      const setup = { ...guitarSetup(), tuning }
      for (const style of ACCOMPANIMENTS) {
        const { report, layer } = accompanied(tune, wholeTune(tune, style, 3), setup)
        expect(report.structural, `${id} ${style}`).toBe(0)
        expect(layer.notes.length).toBeGreaterThan(0)
      }
    }
  })

  it('plays equal measures alike', () => {
    const tune = tuneOfMusic('"C"CEGc|"G"GBdg|"C"CEGc|"G"GBdg|"C"C4|')
    const { layer } = accompanied(tune, wholeTune(tune, 'picking', 3))
    const of = (m: number) =>
      layer.notes
        .filter((n) => n.pos.measure === tune.measures[m]!.id)
        .map((n) => [n.pos.tick, n.place, n.left, n.right])
    expect(of(2)).toEqual(of(0))
    expect(of(3)).toEqual(of(1))
  })
})

describe('the school of an accompaniment', () => {
  const tune = tuneOfMusic('"C"CEGc|"G"GBdg|"Am"ABce|"F"FAcf|')

  it('always: a root where each chord begins, though the pattern has none there', () => {
    const { report } = accompanied(tune, withPattern(tune, '3 2 1 2 3 2 1 2'))
    expect([report.harmonyChanges, report.rootsInBass]).toEqual([4, 4])
  })

  it('sometimes: the pattern as it is', () => {
    const { layer } = accompanied(tune, withPattern(tune, '3 2 1 2 3 2 1 2', 2, { root: 'sometimes' }))
    const last = tune.measures.at(-1)!.id
    // But where it comes to rest.
    expect(layer.notes.some((n) => n.role === 'bass' && n.pos.measure !== last)).toBe(false)
  })

  it('never: no root in the bass of any chord', () => {
    const { layer, plan } = accompanied(tune, withPattern(tune, 'b 3 2 1 b 3 2 1', 2, { root: 'never' }))
    const setup = guitarSetup()
    for (const { start, sounding } of plan.harmony) {
      const measure = tune.measures[Math.floor(start / 40_320)]!.id
      const here = layer.notes.filter((n) => n.pos.measure === measure && n.pos.tick === 0)
      const lowest = Math.min(...here.map((n) => pitchAt(setup, n.place)))
      const roots = { C: 0, G: 7, A: 9, F: 5 } as const
      expect(lowest % 12).not.toBe(roots[sounding!.root.step as 'C'])
    }
  })

  it('bass runs lead by step into the next chord, and the pattern goes on above them', () => {
    const { layer } = accompanied(tune, withPattern(tune, 'b 3 2 1 b 3 2 1', 2, { runs: 'changes' }))
    const setup = guitarSetup()
    const last = (m: number) =>
      layer.notes.filter((n) => n.pos.measure === tune.measures[m]!.id && n.pos.tick >= 20_160)
    const basses = (m: number) => last(m).flatMap((n) => (n.role === 'bass' ? [pitchAt(setup, n.place)] : []))
    expect(basses(0)).toEqual([47, 45]) // C goes B A to G
    expect(last(0).length).toBeGreaterThan(2)
    // G to A is one step: nothing lies between, and the pattern goes on.
    expect(last(1).length).toBe(4)
  })

  it('where a repeat leads to different chords, a run is played only if all of them begin on one bass', () => {
    const setup = guitarSetup()
    const second = (music: string) => {
      const t = tuneOfMusic(music)
      const { layer } = accompanied(t, withPattern(t, 'b 3 2 1 b 3 2 1', 2, { runs: 'changes' }))
      const notes = layer.notes.filter((n) => n.pos.measure === t.measures[1]!.id && n.pos.tick >= 20_160)
      return notes.flatMap((n) => (n.role === 'bass' ? [pitchAt(setup, n.place)] : []))
    }
    // F goes back to C and on to C: A and B lead to it.
    expect(second('|:"C"CEGc|"F"FAcf:|"C"CEGc|')).toEqual([45, 47])
    expect(second('"G"GBdg|"F"FAcf|"C"CEGc|')).toEqual([45, 47])
    // Back to C, on to G: no one line leads to both, and the pattern goes on.
    expect(second('|:"C"CEGc|"F"FAcf:|"G"GBdg|')).toEqual([41])
    // The page shows C after F, but the first ending goes back to G.
    expect(second('|:"G"GBdg|1"F"FAcf:|2"C"CEGc|')).toEqual([41])
  })

  it('lift-off: before a fast change the last stroke falls on open strings; in a slow tune it does not', () => {
    const at = (bpm: number) => {
      const t = tuneOfMusic('"C"CEGc|"G"GBdg|"C"CEGc|', `M:4/4\nL:1/4\nQ:1/4=${bpm}\nK:C`)
      const { layer } = accompanied(t, withPattern(t, 'D . D U D . D U', 2, { liftOff: 'fast' }))
      const stroke = layer.notes.filter((n) => n.pos.measure === t.measures[0]!.id && n.pos.tick === 35_280)
      return stroke.map((n) => n.place.fret)
    }
    expect(at(140).every((fret) => fret === 0)).toBe(true)
    expect(at(60).some((fret) => fret > 0)).toBe(true)
  })
})

describe('what cannot be done as asked is said, with what is done instead', () => {
  const said = (tune: TuneDoc, regions: readonly Region[]) =>
    accompanied(tune, regions).remarks.map((r) =>
      remarkMessages(r, r.measure + 1)
        .map(say)
        .join(' '),
    )

  it('a pattern for another metre', () => {
    const tune = tuneOfMusic('"C"CEG|"G"GBd|', 'M:3/4\nL:1/4\nK:C')
    const [text] = said(tune, withPattern(tune, 'b 3 2 1 b 3 2 1'))
    expect(text).toBe(
      'Measure 1: the pattern is for 4/4, the measure has 3/4; the usual pattern of 3/4 is played.',
    )
  })

  it('a pattern that cannot be read', () => {
    const tune = tuneOfMusic('"C"CEGc|')
    expect(said(tune, withPattern(tune, 'b 3 2'))[0]).toMatch(
      /^Measure 1: the usual pattern is played\. Measure 1 of the pattern has 3 steps/,
    )
  })

  it('a string that the shape mutes', () => {
    const tune = tuneOfMusic('"D"DFAd|')
    expect(said(tune, withPattern(tune, 'b . 6 . 3 . 2 .'))[0]).toBe(
      'Measure 1: the shape of D mutes string 6; string 3 is plucked instead.',
    )
  })

  it('more strings than the shape has', () => {
    const tune = tuneOfMusic('"D"DFAd|')
    const regions = withPattern(tune, 'D . d(5-6) . D . . .')
    expect(said(tune, regions)).toContain(
      'Measure 1: the shape of D has 2 strings fewer than the stroke asks for.',
    )
  })

  it('strokes against the arm', () => {
    const tune = tuneOfMusic('"C"CEGc|')
    expect(said(tune, withPattern(tune, 'U . D D . . . .'))).toEqual([
      "Measure 1: step 1 of the pattern strikes against the arm's swing (down on the beat, up off it).",
      "Measure 1: step 4 of the pattern strikes against the arm's swing (down on the beat, up off it).",
    ])
  })

  it('a tune without chords', () => {
    // A melody without chords gets suggestions when it is read; these are taken away.
    const tune = { ...tuneOfMusic('CEGc|GBdg|'), chords: [] }
    expect(said(tune, wholeTune(tune, 'strum', 2))[0]).toMatch(/^Measure 1: an accompaniment needs chords/)
  })

  it('a mandolin has no shuffle', () => {
    const tune = CORPUS[0]!
    expect(
      refusalWords(() =>
        finish(arranging(tune, { ...guitarSetup(), ...mandolin() }, wholeTune(tune, 'shuffle', 2))),
      ),
    ).toMatch(/needs separate bass strings/)
  })
})

const mandolin = () => {
  const setup = guitarSetup()
  return {
    instrument: { ...setup.instrument, kind: 'mandolin' as const, strings: 4, doubling: 2, scaleLength: 350 },
    tuning: [76, 69, 62, 55],
    capo: [0, 0, 0, 0],
  }
}

describe('solo and accompaniment in one tune', () => {
  const tune = tuneOf(
    'X:1\nT:Both\nM:4/4\nL:1/4\nQ:1/4=96\nK:G\n"G"GABd|"C"edcA|"D"FADF|"G"G4|\n"G"GABd|"C"edcA|"D"FADF|"G"G4|',
  )
  const regions = withChoice(
    splitRegion(tune, wholeTune(tune, 'alternating-bass', 3), tune.measures[4]!.id),
    1,
    {
      style: 'bass-brush',
    },
  )
  const { json, report, layer, plan } = accompanied(tune, regions)

  it('plays the melody of the one and leaves that of the other to the singer', () => {
    expect(report.melodyKept).toBe(13)
    expect(json.sung!.length).toBe(13)
    expect(report.structural).toBe(0)
    expect(json.tune.measures.map((m) => m.sung ?? false)).toEqual([
      ...Array<boolean>(4).fill(false),
      ...Array<boolean>(4).fill(true),
    ])
  })

  it('lets no grip overlap the next', () => {
    const at = (p: { measure: string; tick: number }) =>
      plan.timeline.starts[plan.timeline.indexOf.get(p.measure)!]! + p.tick
    layer.grips.slice(1).forEach((g, i) => expect(at(layer.grips[i]!.until)).toBeLessThanOrEqual(at(g.pos)))
  })

  it('is what `accompany` gives for the second part alone', () => {
    const alone = accompany(tune, guitarSetup(), plan, regions).notes
    expect(layer.notes.filter((n) => n.notationVoice === 3)).toEqual(alone)
  })
})
