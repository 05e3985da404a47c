import { describe, expect, it } from 'vitest'
import { wholeTune } from '@velvet-porch/core/arrange'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { readAbc } from '@velvet-porch/core/input/abc'
import { arrangeFor } from '../src/corpus/measure.ts'
import * as heard from '../src/ear/heard.ts'
import { traditionalTunes } from '../src/corpus/tunes.ts'
import { NONE, pageOf, plus, type Page } from '../src/ear/page.ts'

const tune = readAbc(
  'X:1\nT:Planted\nM:4/4\nL:1/4\nQ:1/4=100\nK:C\n"C"cdec|"F"f2a2|"G7"BdgB|"C"c4|]\n',
  () => 'tune',
)[0]!.tune!
const page = (style: 'arpeggio' | 'chord-melody'): Page =>
  pageOf(arrangeFor(tune, guitarSetup(), wholeTune(tune, style, 3)).json)

/** A page with other notes. */
const withNotes = ({ json }: Page, change: (notes: Page['json']['notes']) => Page['json']['notes']): Page =>
  pageOf({ ...json, notes: change(json.notes) })

describe('what an ear counts', () => {
  it('an ending without its chord, or with notes after it, is none', () => {
    const good = page('arpeggio')
    expect(heard.ending(good, 3)).toEqual({ hits: 1, of: 1 })
    const end = Math.max(...good.json.notes.map((n) => n.start))
    const bare = withNotes(good, (notes) => notes.filter((n) => n.start < end || n.role === 'melody'))
    expect(heard.ending(bare, 3)).toEqual({ hits: 0, of: 1 })
    const last = good.json.notes.find((n) => n.start === end)!
    const busy = withNotes(good, (notes) => [
      ...notes,
      ...[1, 2].map((k) => ({ ...last, start: end + k * 5_040, role: 'fill' as const })),
    ])
    expect(heard.ending(busy, 3)).toEqual({ hits: 0, of: 1 })
  })

  it('a fill that stays on its string is found', () => {
    const good = page('arpeggio')
    const stuck = withNotes(good, (notes) =>
      notes.map((n) => (n.role === 'fill' ? { ...n, string: 1, fret: 0 } : n)),
    )
    const { hits, of } = heard.repeatedFills(stuck)
    expect(of).toBeGreaterThan(3)
    expect(hits).toBe(of)
    expect(heard.repeatedFills(good).hits).toBeLessThan(hits)
  })

  it('a chord without a low string, and a block whose lower voices move, are found', () => {
    const good = page('chord-melody')
    expect(heard.bassUnderChanges(good).hits).toBe(4)
    const high = withNotes(good, (notes) => notes.filter((n) => n.string <= 3))
    expect(heard.bassUnderChanges(high).hits).toBe(0)
    const same = heard.sharedNotes(good, good)
    expect(same.hits).toBe(same.of)
    expect(heard.sharedNotes(good, high).hits).toBeLessThan(same.of)
  })
})

describe('a calm left hand', () => {
  /** Traditional tunes, long out of copyright, from memory. */
  it.each([
    ['melody-bass', 3],
    ['alternating-bass', 5],
    ['arpeggio', 5],
  ] as const)('%s %i: fingers are put back in fewer than 4 of 100 measures', (style, level) => {
    const counted = traditionalTunes()
      .filter((t, i) => i % 2 === 0 && t.chords.length > 0)
      .map((t) => heard.putBack(pageOf(arrangeFor(t, guitarSetup(), wholeTune(t, style, level)).json)))
      .reduce(plus, NONE)
    expect(counted.of).toBeGreaterThan(100)
    expect(counted.hits / counted.of).toBeLessThan(0.04)
  })
})
