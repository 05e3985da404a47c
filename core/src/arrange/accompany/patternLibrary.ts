import type { PatternText } from '../../document/arrangement.ts'
import type { Accompaniment, Level } from '../../document/style.ts'
import { isCompound, type Metre } from '../../music/time/metre.ts'
import { fitsMetre, stepsOf } from './pattern.ts'

/** Accompaniments that repeat a pattern. */
export type PatternStyle = Exclude<Accompaniment, 'shuffle'>

/** A pattern of the library. Its name is a text of the interface; the level is the first at which it is offered unasked. */
export interface LibraryPattern extends PatternText {
  readonly id: string
  readonly style: PatternStyle
  readonly level: Level
  /** True for one that is played unasked on four courses alone: a chord that is struck and damped at once. */
  readonly chop?: true
}

const METRES = {
  '4/4': { num: 4, den: 4 },
  '3/4': { num: 3, den: 4 },
  '2/4': { num: 2, den: 4 },
  '6/8': { num: 6, den: 8 },
  '9/8': { num: 9, den: 8 },
  '12/8': { num: 12, den: 8 },
} as const

/** Names and patterns are our own, out of the trade's common stock of hands. */
const ENTRIES: readonly (readonly [string, PatternStyle, Level, keyof typeof METRES, number, string])[] = [
  ['stepping-stones', 'picking', 1, '4/4', 2, 'b . 3 . 2 . 1 .'],
  ['rowing-boat', 'picking', 2, '4/4', 2, 'b 3 2 3 1 3 2 3'],
  ['millwheel', 'picking', 3, '4/4', 2, 'b1 3 a 2 b 3 a 2'],
  ['loom', 'picking', 4, '4/4', 2, 'b2 3 a1 3 b2 3 a1 3'],
  ['weir', 'picking', 5, '4/4', 4, 'b 3 2 1 2 3 a 3 b 3 2 1 2 3 a 3'],
  ['three-lamps', 'picking', 1, '3/4', 2, 'b . 21 . 21 .'],
  ['garden-swing', 'picking', 2, '3/4', 2, 'b 3 2 1 2 3'],
  ['wash-day', 'picking', 3, '3/4', 2, 'b 3 21 3 21 3'],
  ['carousel', 'picking', 4, '3/4', 2, 'b2 3 21 3 a1 3'],
  ['mill-pond', 'picking', 5, '3/4', 4, 'b2 . 3 2 21 . 3 2 a1 . 3 2'],
  ['doorstep', 'picking', 1, '2/4', 2, 'b . 321 .'],
  ['hand-cart', 'picking', 2, '2/4', 2, 'b 3 a 2'],
  ['milk-round', 'picking', 3, '2/4', 2, 'b1 3 a 2'],
  ['seed-drill', 'picking', 4, '2/4', 2, 'b2 3 a1 3'],
  ['spinning-top', 'picking', 5, '2/4', 4, 'b2 3 2 3 a1 3 2 3'],
  ['mooring', 'picking', 1, '6/8', 3, 'b . . 321 . .'],
  ['towpath', 'picking', 2, '6/8', 3, 'b 3 2 1 2 3'],
  ['reed-bed', 'picking', 3, '6/8', 3, 'b1 3 2 1 2 3'],
  ['lock-gate', 'picking', 4, '6/8', 3, 'b1 3 2 a1 2 3'],
  ['mill-race', 'picking', 5, '6/8', 3, 'b21 3 2 a21 3 2'],
  ['long-towpath', 'picking', 1, '9/8', 3, 'b . . 21 . . 21 . .'],
  ['long-reeds', 'picking', 2, '9/8', 3, 'b 3 2 1 2 3 2 1 2'],
  ['long-race', 'picking', 3, '9/8', 3, 'b1 3 2 1 2 3 a1 3 2'],
  ['long-weir', 'picking', 4, '9/8', 3, 'b1 3 2 a1 2 3 b1 3 2'],
  ['long-sluice', 'picking', 5, '9/8', 3, 'b21 3 2 a21 3 2 b21 3 2'],
  ['slow-barge', 'picking', 1, '12/8', 3, 'b . . 21 . . a . . 21 . .'],
  ['laden-barge', 'picking', 2, '12/8', 3, 'b 3 2 1 2 3 b 3 2 1 2 3'],
  ['barge-pole', 'picking', 3, '12/8', 3, 'b 3 2 1 2 3 a 3 2 1 2 3'],
  ['tow-horse', 'picking', 4, '12/8', 3, 'b1 3 2 a1 2 3 b1 3 2 a1 2 3'],
  ['regatta', 'picking', 5, '12/8', 3, 'b21 3 2 a21 3 2 b21 3 2 a21 3 2'],
  ['front-step', 'bass-brush', 1, '4/4', 2, 'b . d . b . d .'],
  ['porch-swing', 'bass-brush', 2, '4/4', 2, 'b . d u b . d u'],
  ['two-gates', 'bass-brush', 3, '4/4', 2, 'b . d u a . d u'],
  ['cart-track', 'bass-brush', 4, '4/4', 2, 'b u d u a u d u'],
  ['market-day', 'bass-brush', 5, '4/4', 4, 'b . d u d! . d u a . d u d! . d u'],
  ['harvest-turn', 'bass-brush', 1, '3/4', 2, 'b . d . d .'],
  ['apple-loft', 'bass-brush', 2, '3/4', 2, 'b . d u d u'],
  ['two-looms', 'bass-brush', 3, '3/4', 2, 'b . d u d u | a u d u d u'],
  ['cider-press', 'bass-brush', 4, '3/4', 2, 'b u d u d u | a u d u d u'],
  ['threshing-floor', 'bass-brush', 5, '3/4', 4, 'b . d u d! . d u d . d u | a . d u d! . d u d . d u'],
  ['pump-handle', 'bass-brush', 1, '2/4', 2, 'b . d .'],
  ['pony-trap', 'bass-brush', 2, '2/4', 2, 'b . d u'],
  ['hay-cart', 'bass-brush', 3, '2/4', 2, 'b . d u | a u d u'],
  ['smithy', 'bass-brush', 4, '2/4', 2, 'b u d u | a u d u'],
  ['anvil', 'bass-brush', 5, '2/4', 4, 'b . d u d! . d u | a . d u d! . d u'],
  ['wagon-wheel-turn', 'bass-brush', 1, '6/8', 3, 'b . . d . .'],
  ['goose-walk', 'bass-brush', 2, '6/8', 3, 'b . d a . d'],
  ['duck-walk', 'bass-brush', 3, '6/8', 3, 'b . d a d u'],
  ['gander', 'bass-brush', 4, '6/8', 3, 'b u d a u d'],
  ['goose-fair', 'bass-brush', 5, '6/8', 3, 'b u d! a d! u'],
  ['long-wagon', 'bass-brush', 1, '9/8', 3, 'b . . d . . d . .'],
  ['long-cart', 'bass-brush', 2, '9/8', 3, 'b . d d . d d . d'],
  ['long-harrow', 'bass-brush', 3, '9/8', 3, 'b . d d . u d . u'],
  ['long-plough', 'bass-brush', 4, '9/8', 3, 'b u d a u d b u d'],
  ['long-harvest', 'bass-brush', 5, '9/8', 3, 'b u d! a d! u b d! u'],
  ['hay-train', 'bass-brush', 1, '12/8', 3, 'b . . d . . b . . d . .'],
  ['straw-train', 'bass-brush', 2, '12/8', 3, 'b . . d . . a . . d . .'],
  ['barn-dance', 'bass-brush', 3, '12/8', 3, 'b . d d . u a . d d . u'],
  ['threshers', 'bass-brush', 4, '12/8', 3, 'b u d d u d a u d d u d'],
  ['harvest-home', 'bass-brush', 5, '12/8', 3, 'b u d! a d! u b u d! a d! u'],
  ['four-square', 'strum', 1, '4/4', 2, 'D . D . D . D .'],
  ['fence-posts', 'strum', 2, '4/4', 2, 'D . D . D . D U'],
  ['river-crossing', 'strum', 3, '4/4', 2, 'D . D U . U D U'],
  ['slate-roof', 'strum', 4, '4/4', 2, 'D . D! U D U D! U'],
  ['rain-barrel', 'strum', 5, '4/4', 4, 'D . d . D*! . d u . u d u D*! . d u'],
  ['three-posts', 'strum', 1, '3/4', 2, 'D . D . D .'],
  ['turnstile', 'strum', 2, '3/4', 2, 'D . d . d u'],
  ['stile', 'strum', 3, '3/4', 2, 'D . d u d u'],
  ['garden-gate', 'strum', 4, '3/4', 2, 'D U D*! U D! U'],
  ['swing-gate', 'strum', 5, '3/4', 4, 'D . d u D! . d u D! . d u'],
  ['two-posts', 'strum', 1, '2/4', 2, 'D . D .'],
  ['quick-gate', 'strum', 2, '2/4', 2, 'D U D U'],
  ['latch', 'strum', 3, '2/4', 4, 'D . D u D . D u'],
  ['hinge', 'strum', 4, '2/4', 4, 'D . d u D! u d u'],
  ['rattle-gate', 'strum', 5, '2/4', 4, 'D u d u D! u d! u'],
  ['rocking-stone', 'strum', 1, '6/8', 3, 'D . . D . .'],
  ['ferry-rope', 'strum', 2, '6/8', 3, 'D . d D u d'],
  ['tow-line', 'strum', 3, '6/8', 3, 'D u d D u d'],
  ['bow-wave', 'strum', 4, '6/8', 3, 'D u d! D u D!'],
  ['weir-foam', 'strum', 5, '6/8', 3, 'D! U D D! U D'],
  ['long-rope', 'strum', 1, '9/8', 3, 'D . d D . d D . d'],
  ['long-ferry', 'strum', 2, '9/8', 3, 'D . d D u d D . d'],
  ['long-line', 'strum', 3, '9/8', 3, 'D u d D u d D u d'],
  ['long-wave', 'strum', 4, '9/8', 3, 'D u d! D u D! D u d!'],
  ['long-foam', 'strum', 5, '9/8', 3, 'D! U D D! U D D! U D'],
  ['bell-rope', 'strum', 1, '12/8', 3, 'D . . D . . D . . D . .'],
  ['bell-wheel', 'strum', 2, '12/8', 3, 'D . d D . d D . d D . d'],
  ['bell-frame', 'strum', 3, '12/8', 3, 'D u d D . d D u d D . d'],
  ['full-peal', 'strum', 4, '12/8', 3, 'D u d! D u D! D u d! D u D!'],
  ['ringing-loft', 'strum', 5, '12/8', 3, 'D! U D D! U D D! U D D! U D'],
]

/** What a mandolin does behind a singer: whole chords, answered by strokes that the fretting hand damps. */
const CHOPS: typeof ENTRIES = [
  ['wood-pile', 'strum', 2, '4/4', 2, 'D . D*! . D . D*! .'],
  ['chopping-block', 'strum', 3, '4/4', 2, 'D . D*! U D . D*! U'],
  ['axe-swing', 'strum', 4, '4/4', 2, 'D U D*! U D U D*! U'],
  ['kindling', 'strum', 5, '4/4', 4, 'D . D U D*! . D U D . D U D*! U D U'],
  ['fire-wood', 'strum', 2, '3/4', 2, 'D . D*! . D*! .'],
  ['log-basket', 'strum', 3, '3/4', 2, 'D . D*! U D*! U'],
  ['saw-horse', 'strum', 4, '3/4', 2, 'D U D*! U D*! U'],
  ['wood-shed', 'strum', 2, '2/4', 2, 'D . D*! .'],
  ['hatchet', 'strum', 3, '2/4', 2, 'D . D*! U'],
  ['wedge', 'strum', 4, '2/4', 2, 'D U D*! U'],
  ['split-rail', 'strum', 2, '6/8', 3, 'D . . D*! . .'],
  ['rail-fence', 'strum', 3, '6/8', 3, 'D . U D*! . U'],
  ['long-rail', 'strum', 4, '6/8', 3, 'D U D D*! U D'],
]

const entry = ([id, style, level, metre, perBeat, text]: (typeof ENTRIES)[number]): LibraryPattern => ({
  id,
  style,
  level,
  metre: METRES[metre],
  perBeat,
  text,
})

export const PATTERN_LIBRARY: readonly LibraryPattern[] = [
  ...ENTRIES.map(entry),
  ...CHOPS.map((chop) => ({ ...entry(chop), chop: true as const })),
]

/** The library's patterns of a style for a metre, the easiest first. */
export function patternsFor(style: PatternStyle, metre: Metre): LibraryPattern[] {
  return PATTERN_LIBRARY.filter((p) => p.style === style && fitsMetre(p, metre))
}

/**
 * What is played unasked: the library's fullest up to the level, else one made for the metre.
 * @param strings of the instrument: four courses chop where they strum
 */
export function usualPattern(style: PatternStyle, level: Level, metre: Metre, strings = 6): PatternText {
  const known = patternsFor(style, metre).filter((p) => p.level <= level)
  const chops = strings <= 4 ? known.filter((p) => p.chop) : []
  return chops.at(-1) ?? known.filter((p) => !p.chop).at(-1) ?? madePattern(style, metre)
}

/** For metres that the library has nothing for: a bass or full stroke on the first beat, the rest above it. */
function madePattern(style: PatternStyle, metre: Metre): PatternText {
  const perBeat = isCompound(metre) ? 3 : metre.den <= 4 ? 2 : 1
  const steps = Array.from({ length: stepsOf(metre, perBeat) }, (_, i) => {
    if (i === 0) return style === 'strum' ? 'D' : 'b'
    if (i % perBeat !== 0) return style === 'picking' ? '3' : '.'
    return style === 'strum' ? 'D' : style === 'picking' ? '2' : 'd'
  })
  return { metre: { num: metre.num, den: metre.den }, perBeat, text: steps.join(' ') }
}

/** True for the same steps in the same metre. */
export const samePattern = (a: PatternText, b: PatternText): boolean =>
  a.text === b.text && a.perBeat === b.perBeat && a.metre.num === b.metre.num && a.metre.den === b.metre.den

/** The library's name of a pattern, where it has one. */
export function nameOfPattern(pattern: PatternText): string | undefined {
  return PATTERN_LIBRARY.find((p) => samePattern(p, pattern))?.id
}
