import { describe, expect, it } from 'vitest'
import { countAt, missingHead, WHOLE } from '../../../src/music/index.ts'
import { withCuts } from '../../../src/document/index.ts'
import { applyEdit } from '../../../src/edit/index.ts'
import { arrangedScore, structuralFaults } from '../../support/score.ts'
import { CORPUS, tuneOf } from '../../support/tunes.ts'

const tune = (music: string, head = 'M:6/8\nL:1/8\nK:G') => tuneOf(`X:1\nT:Short\n${head}\n${music}\n`)
const cuts = (music: string, head?: string) => tune(music, head).measures.map((m) => m.cut ?? false)
const EIGHTH = WHOLE / 8

describe('short measures', () => {
  /** A jig’s parts begin with an eighth and end after five: common practice, no source. */
  it('lack their head as pickups and their tail at the end of a part', () => {
    const jig = 'd|:"G"gdB gdB|"D"dcA "G"G2:|\nd|:"G"gfg "D"d2c|"G"B3 G2:|'
    expect(cuts(jig)).toEqual([false, false, true, false, false, true])
    // A part of its own pickup after a whole measure.
    expect(cuts('"G"gdB gdB|"G"G3 G3||d|"G"gfg d2c|"G"B3 G3|]')).toEqual([false, false, false, false, false])
    // A repeat in mid-measure: what follows it completes it.
    expect(cuts('"C"cdef|gf:|"G"ed|cBAG|]', 'M:4/4\nL:1/4\nK:C')).toEqual([false, true, false, false])
    // One in the middle that nothing explains ends early.
    expect(cuts('cdef|ga|gfed|]', 'M:4/4\nL:1/4\nK:C')).toEqual([false, true, false])
    expect(cuts('cd|]', 'M:4/4\nL:1/4\nK:C')).toEqual([true])
  })

  it('are counted from one where they end early, from their place where they begin late', () => {
    const [pickup, , last] = tune('d|:"G"gdB gdB|"D"dcA "G"G2:|').measures
    expect(countAt(pickup!.metre, missingHead(pickup!))).toBe('6')
    const counts = [0, 1, 2, 3, 4].map((i) => countAt(last!.metre, i * EIGHTH + missingHead(last!)))
    expect(counts).toEqual(['1', '2', '3', '4', '5'])
  })

  it('have their basses on the beats', () => {
    const score = arrangedScore(tune('d|:"G"gdB gdB|"C"ece "D"dcA|"G"G3 G2:|'), 'alternating-bass', 3)
    const last = score.tune.measures.at(-1)!
    const basses = score.arrangement.base.notes.filter((n) => n.role === 'bass' && n.pos.measure === last.id)
    expect(basses.map((n) => n.pos.tick)).toEqual([0, 3 * EIGHTH])
    expect(structuralFaults(score)).toEqual([])
  })

  it('marks settle: marking again changes nothing, and whole tunes keep their measures', () => {
    for (const { measures } of CORPUS) expect(withCuts(measures)).toBe(measures)
  })
})

describe('a measure that ends early, by hand', () => {
  const whole = arrangedScore(
    tuneOf('X:1\nT:Gate\nM:3/4\nL:1/4\nK:G\n"G"GAB|"C"c2z|"D"d2c|"G"G3|]\n'),
    'melody-bass',
    2,
  )

  it('loses the rest at its end and can be made whole again; a pickup stays the business of the first', () => {
    const short = applyEdit(whole, { do: 'cut', measure: 1, ticks: WHOLE / 2 })
    if (!short.ok) throw new Error(short.refusal.reason)
    expect(short.score.tune.measures[1]).toMatchObject({ length: WHOLE / 2, cut: true })
    expect(short.score.tune.abc!.text).toContain('c4 |')
    const again = applyEdit(short.score, { do: 'cut', measure: 1, ticks: 0 })
    if (!again.ok) throw new Error(again.refusal.reason)
    expect(again.score.tune.measures).toEqual(whole.tune.measures)
    expect(applyEdit(whole, { do: 'cut', measure: 0, ticks: WHOLE / 2 })).toMatchObject({ ok: false })
  })

  it('never cuts a note away, and offers what can be', () => {
    const refused = applyEdit(whole, { do: 'cut', measure: 1, ticks: WHOLE / 4 })
    expect(refused).toMatchObject({
      ok: false,
      refusal: { reason: 'cutsNotes', offer: { do: 'cut', measure: 1, ticks: WHOLE / 2 } },
    })
    expect(applyEdit(whole, { do: 'cut', measure: 3, ticks: WHOLE / 2 })).toMatchObject({
      ok: false,
      refusal: { reason: 'cutsNotes' },
    })
  })
})
