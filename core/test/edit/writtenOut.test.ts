import { describe, expect, it } from 'vitest'
import { midiOf } from '../../src/music/index.ts'
import { formMap, timelineOf, unfold, type Score, type TuneDoc } from '../../src/document/index.ts'
import { arranging } from '../../src/arrange/index.ts'
import { audit } from '../../src/audit/index.ts'
import { finishedTabOf, tabJson, writeAbc } from '../../src/output/index.ts'
import { writtenOut } from '../../src/edit/index.ts'
import { finish } from '../../src/turns.ts'
import { scoreOf } from '../../src/output/sound/index.ts'
import { heardByAbc2midi } from '../support/abc2midi.ts'
import { arrangedScore } from '../support/score.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'
import { scoreFaults } from './scoreFaults.ts'

/** Texts with every kind of sign; of our own. */
const FORMS: Readonly<Record<string, string>> = {
  'first and second ending': 'M:4/4\nL:1/4\nQ:1/4=96\nK:C\n|:"C"cdec|[1 "G"g4:|[2 "C"c4|]',
  'two repeats and a tail': 'M:3/4\nL:1/4\nK:G\n|:"G"GBd|"D"A3:||:"C"cec|"G"G3:|"D"DFA|"G"G3|]',
  'back to the start, to fine': 'M:4/4\nL:1/4\nK:D\n"D"dfaf|"A"e4!fine!|"G"gbgd|"A"a4!D.C.!|]',
  'a pickup and endings for three times': 'M:4/4\nL:1/4\nK:C\nG|:"C"cdec|[1,2 "F"f4:|[3 "C"c3|]',
}

const MUSIC = Object.entries(FORMS).map(([name, body]) => ({ name, tune: tuneOf(`X:1\nT:Form\n${body}\n`) }))

const arranged = (tune: TuneDoc) => arrangedScore(tune, 'alternating-bass', 3)

/** Onsets and pitches as they sound, from the app's own player. */
function sounding({ tune, arrangement }: Score): string[] {
  const { setup, base, variants } = arrangement!
  const timeline = timelineOf(tune.measures)
  const { notes } = scoreOf(tune, setup, base, timeline, unfold(tune.measures), variants)
  return notes.map((n) => JSON.stringify([Math.round(n.at * 1000), n.string, Math.round(n.hertz)])).sort()
}

describe('a form written out', () => {
  it.each([...MUSIC, ...CORPUS.map((tune) => ({ name: tune.title, tune }))])(
    '$name: sounds the same, has no sign left, and is whole',
    ({ tune }) => {
      const score = arranged(tune)
      const out = writtenOut(score)
      const { order } = unfold(tune.measures)
      expect(out.tune.measures).toHaveLength(order.length)
      expect(
        out.tune.measures.every(
          (m) => m.endings.length === 0 && m.repeatEnd === 1 && !m.repeatStart && !m.jump,
        ),
      ).toBe(true)
      expect(unfold(out.tune.measures).order.map((o) => o.measure)).toEqual(order.map((_, i) => i))
      expect(scoreFaults(out)).toEqual([])
      expect(sounding(out)).toEqual(sounding(score))
    },
  )

  // abc2midi does not follow D.C. and D.S.
  const followed = MUSIC.filter(({ tune }) => tune.measures.every((m) => !m.jump))
  it.each(followed)('$name: abc2midi hears the signs as we write them out', ({ tune }) => {
    const heard = heardByAbc2midi(writeAbc(tune)).map((n) => [Math.round(n.onset * 12), n.midi])
    const out = writtenOut({ tune }).tune
    const timeline = timelineOf(out.measures)
    const ours = out.events
      .filter((e) => e.voice === 0 && e.pitch)
      .map((e) => [
        Math.round(((timeline.starts[timeline.indexOf.get(e.pos.measure)!]! + e.pos.tick) / 10_080) * 12),
        midiOf(e.pitch!),
      ])
    expect(ours).toEqual(heard)
  })

  it('the audit finds nothing wrong in it that is not in the signs', () => {
    for (const { tune } of MUSIC) {
      const score = writtenOut(arranged(tune))
      const { setup, base, regions } = score.arrangement!
      const { plan } = finish(arranging(score.tune, setup, regions))
      const report = audit(finishedTabOf(tabJson(score.tune, setup, plan, base, [], 0)))
      expect(report.findings.filter((f) => f.kind.startsWith('melody') || f.kind === 'stringClash')).toEqual(
        [],
      )
    }
  })
})

describe('the form as a map', () => {
  it('counts sections as they are played, measures and seconds', () => {
    const tune = tuneOf(
      'X:1\nT:Map\nM:4/4\nL:1/4\nQ:1/4=120\nK:C\nG|\nP:Verse\n|:cdec|[1 g4:|[2 c4|\nP:Chorus\nfaga|c3|]\n',
    )
    const map = formMap(tune)
    expect(map.parts.map((p) => [p.name, p.times, p.measures])).toEqual([
      ['', 1, 0],
      ['Verse', 2, 4],
      ['Chorus', 1, 2],
    ])
    expect(map.measures).toBe(6)
    // 1 + 4 × 4 + 4 + 3 quarters at 120.
    expect(map.seconds).toBeCloseTo(24 / 2)
  })

  it('is as long as abc2midi plays, for every form', () => {
    for (const { tune } of MUSIC.filter((m) => m.tune.measures.every((x) => !x.jump))) {
      const heard = heardByAbc2midi(writeAbc(tune))
      const last = heard.at(-1)!.onset
      const quarters = (formMap(tune).seconds * (tune.tempos[0]!.bpm ?? 100)) / 60
      expect(quarters).toBeGreaterThan(last)
      expect(quarters - last).toBeLessThanOrEqual(4)
    }
  })
})
