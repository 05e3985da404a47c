import { describe, expect, it } from 'vitest'
import { guitarSetup, setupOf, tuningById, type Setup } from '../../../src/instrument/index.ts'
import {
  isSolo,
  STYLES,
  ticksAt,
  type Layer,
  type Ornament,
  type Style,
  type TuneDoc,
} from '../../../src/document/index.ts'
import { arranging, refusalOf, wholeTune } from '../../../src/arrange/index.ts'
import { textTab } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

/** One sign on a string: a fret, with what the page writes around it. */
const SIGN = /\d+\^\(\d+\)|\d+<\d+>|<\d+>|\((?:\d+|x|<\d+>)\)|x|\d+/g

/** The signs of each string in the order of the page, from the printed text alone. */
function printedSigns(text: string, strings: number): string[][] {
  const signs = Array.from({ length: strings }, (): string[] => [])
  const lines = text.split('\n')
  for (let i = 0; i + strings <= lines.length; i++) {
    const system = lines.slice(i, i + strings)
    if (!system.every((l) => /^[A-G][#b]? ?\|/.test(l))) continue
    system.forEach((l, s) =>
      signs[s]!.push(
        ...(l
          .slice(3)
          .replaceAll(/\{[-+]\d+\}/g, '')
          .match(SIGN) ?? []),
      ),
    )
    i += strings - 1
  }
  return signs
}

/** What should stand there, from the notes. */
function wantedSigns(
  { notes }: Layer,
  strings: number,
  at: (n: Layer['notes'][number]) => number,
): string[][] {
  const signs = Array.from({ length: strings }, (): string[] => [])
  for (const n of [...notes].sort((a, b) => at(a) - at(b))) {
    const own = signs[n.place.string - 1]!
    for (const g of n.graces ?? []) own.push(g.optional ? `(${g.place.fret})` : String(g.place.fret))
    const { fret, harmonic, artificial } = n.place
    if (n.bend) own.push(n.attack === 'bend' ? `(${fret + n.bend})` : `${fret}^(${fret + n.bend})`)
    else {
      const plain =
        n.attack === 'muted'
          ? 'x'
          : harmonic
            ? `<${fret}>`
            : artificial
              ? `${fret}<${fret + 12}>`
              : String(fret)
      own.push(n.optional ? `(${plain})` : plain)
    }
  }
  return signs
}

function check(
  tune: TuneDoc,
  setup: Setup,
  style: Style,
  level: 1 | 2 | 3 | 4 | 5,
  ornament: Ornament,
): number {
  const regions = wholeTune(tune, style, level).map((r) => ({ ...r, ornament }))
  const { layer, plan } = finish(arranging(tune, setup, regions))
  const text = textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony })
  const { strings } = setup.instrument
  const wanted = wantedSigns(layer, strings, (n) => ticksAt(plan.timeline, n.pos))
  expect(printedSigns(text, strings), `${tune.title}, ${style} ${level}`).toEqual(wanted)
  return wanted.flat().filter((s) => !/^\d+$/.test(s)).length
}

/** Traditional tunes, long out of copyright, from memory. */
describe('the printed tab', () => {
  it.each(STYLES)('of %s has every sign of every string in order, none run together or cut', (style) => {
    const setup =
      style === 'bottleneck'
        ? setupOf('guitar', tuningById('guitar', 'openG'))
        : guitarSetup(style === 'drone' ? 2 : 0)
    const which = STYLES.indexOf(style) % 2
    for (const [k, tune] of CORPUS.filter((_, i) => i % 2 === which).entries()) {
      const level = ([3, 4, 5] as const)[k % 3]!
      check(tune, setup, style, level, isSolo(style) ? ((k % 4) as Ornament) : 1)
    }
  })

  it('of a mandolin too, on four strings', () => {
    const setup = setupOf('mandolin')
    for (const style of STYLES)
      if (!refusalOf(style, 4, setup.instrument) && style !== 'bottleneck')
        for (const tune of CORPUS.slice(0, 2)) check(tune, setup, style, 4, 3)
  })

  it('has brackets, harmonics and crosses where the page has them', () => {
    const high = tuneOfMusic('"Em"E2 G2|e2 g2|b4|d\'4|e\'4|b2 e2|]', 'M:4/4\nL:1/4\nQ:1/4=70\nK:Em')
    expect(check(high, guitarSetup(), 'melody-bass', 5, 1)).toBeGreaterThan(0)
    const song = CORPUS.find((t) => t.measures[0]!.metre.num === 4)!
    expect(check(song, guitarSetup(), 'strum', 5, 1)).toBeGreaterThan(0)
  })
})
