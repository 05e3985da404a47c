import { describe, expect, it } from 'vitest'
import { guitarSetup, kindSpans, pitchAt, tuningById, type Setup } from '../../../src/instrument/index.ts'
import {
  isAccompaniment,
  layerOfMeasures,
  STYLES,
  timelineOf,
  unfold,
  withVariant,
  type Level,
  type Region,
  type Style,
  type TuneDoc,
} from '../../../src/document/index.ts'
import { effortOf, handFault, pressedOf } from '../../../src/hand/index.ts'
import {
  versionsByEffort,
  makePlan,
  stretchByCapo,
  wholeTune,
  type EffortVersion,
} from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { scoreOf } from '../../../src/output/sound/index.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

const setup = guitarSetup()
const openG = { ...setup, tuning: tuningById('guitar', 'openG') }

/** Every version is a whole arrangement: of the shorter tunes. */
const SHORT = [...CORPUS].sort((a, b) => a.measures.length - b.measures.length).slice(0, 8)

/** A bottleneck needs an open tuning. */
const setupFor = (style: Style) => (style === 'bottleneck' ? openG : setup)

function versionsFor(
  tune: TuneDoc,
  style: Style,
  level: Level,
  edit: Partial<Region> = {},
  from = 0,
  to = -1,
) {
  const regions = wholeTune(tune, style, level).map((r) => ({ ...r, ...edit }))
  const range = { from, to: to < 0 ? tune.measures.length - 1 : to }
  const versions = finish(versionsByEffort(tune, setupFor(style), regions, [], range))
  return { versions, now: versions.find((r) => r.changes.length === 0)!, regions, range }
}

/** Effort of a rung computed again from its finished tab. */
function effortAgain(
  tune: TuneDoc,
  on: Setup,
  { layer }: EffortVersion,
  { from, to }: { from: number; to: number },
): number {
  const own = effortOf(tune, on, layer, timelineOf(tune.measures)).slice(from, to + 1)
  return own.reduce((s, e) => s + e.effort, 0) / own.length
}

/** Traditional tunes, long out of copyright, from memory. */
describe('versions by effort', () => {
  it.each(STYLES.map((s, i) => [s, ((i % 3) + 3) as Level] as const))(
    'of %s from level %i rises in effort, keeps the melody, and breaks nothing',
    (style, level) => {
      const tune = SHORT[STYLES.indexOf(style) % SHORT.length]!
      const { versions, now, range } = versionsFor(tune, style, level, { ornament: 2 })
      expect(now).toBeDefined()
      versions.slice(1).forEach((r, i) => expect(r.effort).toBeGreaterThan(versions[i]!.effort))
      const at = versions.indexOf(now)
      // A metre with a single ready pattern has little to choose from.
      if (!isAccompaniment(style)) expect(versions.length).toBeGreaterThan(1)
      versions.forEach((r, i) => {
        expect(effortAgain(tune, setupFor(style), r, range)).toBeCloseTo(r.effort, 1)
        if (i < at) expect(r.notes.melody).toBe(now.notes.melody)
        const planned = makePlan(tune, setupFor(style), r.regions)
        if (!planned.ok) throw new Error()
        const report = audit(finishedTabOf(tabJson(tune, setupFor(style), planned.plan, r.layer, [], 0)))
        expect(report.structural, r.changes.map((c) => c.kind).join()).toBe(0)
        expect(report.melodyKept).toBe(report.melodyNotes)
      })
    },
  )

  it('says what each version leaves out, and leaves out only that', () => {
    const { versions, now } = versionsFor(CORPUS[0]!, 'alternating-bass', 5)
    const only = (kind: string) => versions.find((r) => r.changes.length === 1 && r.changes[0]!.kind === kind)
    const noFills = only('fills')!
    expect(noFills.notes.fill).toBe(0)
    expect(now.notes.fill).toBeGreaterThan(0)
    for (const r of versions.filter((x) => x.changes.some((c) => c.kind === 'barre')))
      expect(r.barres).toBe(0)
    for (const r of versions.filter((x) => x.changes.some((c) => c.kind === 'bass')))
      expect(r.notes.bass).toBeLessThan(now.notes.bass)
  })

  it('may move the melody by a whole octave where that is easier, and says so', () => {
    let found = 0
    for (const tune of CORPUS.slice(0, 5)) {
      if (found === 2) break
      const { versions, now } = versionsFor(tune, 'melody-bass', 3)
      const moved = versions.find((r) => r.changes[0]?.kind === 'octave' && r.effort < now.effort)
      if (!moved) continue
      found++
      const pitches = (r: EffortVersion) =>
        r.layer.notes.filter((n) => n.role === 'melody').map((n) => pitchAt(setup, n.place))
      const steps = pitches(moved).map((p, i) => p - pitches(now)[i]!)
      expect(steps.every((x) => x % 12 === 0)).toBe(true)
      expect(steps.some((x) => x !== 0)).toBe(true)
      expect(moved.changes.map((c) => c.kind)).toEqual(['octave'])
      // Not in the middle of a section.
      const part = versionsFor(tune, 'melody-bass', 3, {}, 2, 3).versions
      expect(part.some((r) => r.changes.some((c) => c.kind === 'octave'))).toBe(false)
    }
    expect(found).toBeGreaterThan(0)
  })

  it('have kinder shapes: the hand keeps within 85 % of its reach, and the version says whether all notes stay', () => {
    let sameNotes = 0
    for (const tune of CORPUS.slice(0, 2)) {
      const { versions, now } = versionsFor(tune, 'melody-bass', 3)
      const music = (r: EffortVersion) =>
        r.layer.notes
          .map((n) => [n.pos.measure, n.pos.tick, pitchAt(setup, n.place) + (n.bend ?? 0), n.role].join())
          .sort()
          .join(' ')
      for (const r of versions) {
        if (r.changes.some((c) => c.kind === 'stretch'))
          for (const grip of r.layer.grips)
            expect(handFault(setup, kindSpans(setup.player.spans), pressedOf(grip.pressed))).toBeUndefined()
        expect(r.sameNotes).toBe(music(r) === music(now))
        if (r !== now && r.sameNotes) sameNotes++
      }
    }
    expect(sameNotes).toBeGreaterThan(0)
  })

  it('of one measure leaves every other measure as it is', () => {
    const tune = CORPUS[2]!
    const { versions, now } = versionsFor(tune, 'alternating-bass', 4, {}, 2, 2)
    expect(versions.length).toBeGreaterThan(1)
    const roles = (r: EffortVersion) =>
      tune.measures.map((m, i) =>
        i === 2
          ? ''
          : r.layer.notes
              .filter((n) => n.pos.measure === m.id)
              .map((n) => `${n.pos.tick}${n.role}`)
              .join(),
      )
    // A bass may be held from the measure before: what is struck elsewhere stays the same.
    for (const r of versions) {
      const other = roles(r).filter((text, i) => text !== roles(now)[i])
      expect(other.length).toBeLessThanOrEqual(1)
    }
  })
})

describe('a higher capo', () => {
  it('shrinks a stretch as the frets do: by 2^(−1/12) a fret along the neck (equal temperament)', () => {
    const grips = [
      {
        pressed: [
          { string: 3, fret: 1, finger: 1 as const },
          { string: 3, fret: 4, finger: 4 as const },
        ],
      },
    ]
    const found = stretchByCapo(setup, grips)
    expect(found.map((f) => f.capo)).toEqual([0, 1, 2, 3, 4, 5, 6, 7])
    for (const { capo, mm } of found) {
      const share = mm / found[0]!.mm
      expect(Math.abs(share - 2 ** (-capo / 12))).toBeLessThan(0.02)
    }
  })
})

describe('an ossia', () => {
  const tune = tuneOfMusic('|:"C"CEGc|"G"GBdg:|', 'M:4/4\nL:1/4\nQ:1/4=60\nK:C')
  const { versions, now } = versionsFor(tune, 'alternating-bass', 4)
  const second = tune.measures[1]!.id
  const left = ({ layer }: EffortVersion) => layer.notes.filter((n) => n.pos.measure === second).length
  const easy = versions.find((v) => left(v) < left(now))!
  const variant = {
    id: 'v',
    name: 'easy',
    measures: [second],
    when: { pass: 2 },
    layer: layerOfMeasures(easy.layer, new Set([second])),
  }

  it('takes the place of its measures and of nothing else', () => {
    const shown = withVariant(now.layer, variant)
    const of = (l: EffortVersion['layer'], id: string) => l.notes.filter((n) => n.pos.measure === id)
    expect(of(shown, second)).toEqual(of(easy.layer, second))
    expect(of(shown, tune.measures[0]!.id)).toEqual(of(now.layer, tune.measures[0]!.id))
    expect(shown.grips.map((g) => g.pos.measure)).toEqual([...shown.grips.map((g) => g.pos.measure)].sort())
    expect(
      withVariant(shown, { ...variant, layer: layerOfMeasures(now.layer, new Set([second])) }).notes,
    ).toEqual(now.layer.notes)
  })

  it('for a pass is played on that pass alone', () => {
    const timeline = timelineOf(tune.measures)
    const score = scoreOf(tune, setup, now.layer, timeline, unfold(tune.measures), [variant])
    const inMeasure = (k: number) =>
      score.notes.filter((n) => n.at >= k * 40_320 && n.at < (k + 1) * 40_320).length
    const notes = (l: EffortVersion['layer']) => l.notes.filter((n) => n.pos.measure === second).length
    expect(inMeasure(1)).toBe(notes(now.layer))
    expect(inMeasure(3)).toBe(notes(easy.layer))
    expect(notes(easy.layer)).toBeLessThan(notes(now.layer))
    expect(inMeasure(0)).toBe(inMeasure(2))
  })
})
