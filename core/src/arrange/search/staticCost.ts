import { fingerOffsets } from '../../hand/grip/fingerOffsets.ts'
import { fingerCodes, codeFret, codeLow, codeTop, THUMB, type Pressed } from '../../hand/grip/pressed.ts'
import { fretFromNut } from '../../instrument/geometry.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { AddTerm } from './addTerm.ts'
import type { Draft } from './draft.ts'
import { heldShapeTerms, voicingTerms } from './heldShapeCost.ts'
import { bassTerms, innerTerms, melodyTerms, pickingTerms } from './voiceCost.ts'
import { tasteTerms } from './tasteTerms.ts'
import { LEVEL_RULES, WEIGHTS } from './weights.ts'
import type { Requirement } from './requirement.ts'

/** Prices a grip on its own, without what comes before or after. */
export function staticCost(setup: Setup, requirement: Requirement, draft: Draft, add: AddTerm): void {
  const rules = LEVEL_RULES[requirement.level]
  fingerTerms(setup, requirement, draft, add)
  if (draft.pressed.length === 0) add('hover', WEIGHTS.hoverFret * (draft.position - 1), false)
  else if (draft.position > 1)
    add(
      'highPosition',
      rules.highFret * (draft.position - 1) * ease(requirement, draft),
      false,
      draft.position,
      'frets',
    )
  melodyTerms(setup, requirement, draft, add)
  bassTerms(requirement, draft, add)
  innerTerms(setup, requirement, draft, add)
  pickingTerms(requirement, draft, add)
  if (requirement.inner?.kind === 'chord') voicingTerms(setup, requirement, draft, add)
  else if (requirement.holdsShapes) heldShapeTerms(setup, requirement, draft, rules, add)
  if (requirement.taste) tasteTerms(setup.instrument.strings, requirement.taste, requirement, draft, add)
}

/** A pinned shape is wanted with its barre and where it stands. */
function ease(requirement: Requirement, draft: Draft): number {
  return requirement.heldShapes[draft.heldShape]?.pinned ? WEIGHTS.pinnedEase : 1
}

/**
 * What a grip asks of a hand by itself: barres, squeezed and crowded fingers, stretches, the thumb.
 * @param share of the price of an awkward hand: a shape that is known is easier than it looks
 * @param eased share of the price of a barre
 */
export function gripTerms(
  setup: Setup,
  pressed: readonly Pressed[],
  share: number,
  eased: number,
  add: AddTerm,
): void {
  const codes = fingerCodes(pressed)
  const offsets = fingerOffsets(setup.instrument)
  for (let f = 0; f < 4; f++) {
    const code = codes[f]!
    if (code === 0) continue
    const strings = codeLow(code) - codeTop(code) + 1
    if (strings > 1) {
      add('barre', (WEIGHTS.barre + WEIGHTS.barreString * (strings - 2)) * eased, false, strings, 'strings')
      add('barreHeld', WEIGHTS.barreBeat * (strings / 3) * eased, true, strings, 'strings')
    }
    const squeezed = Math.floor(offsets[f]!) + 1 - codeFret(code)
    if (squeezed > 0) add('squeeze', WEIGHTS.squeeze * squeezed * share, false, squeezed, 'frets')
    for (let g = f + 1; g < 4; g++)
      if (codes[g] !== 0) pairTerms(setup, [f, code], [g, codes[g]!], offsets, share, add)
  }
  if (setup.player.techniques.barre && standsForBarre(codes)) add('twoForBarre', WEIGHTS.twoForBarre, false)
  if (codes[THUMB - 1] !== 0) add('thumbOver', WEIGHTS.thumbOver, false)
}

/**
 * True where fingers 1 and 2 stand side by side at one fret under a hand of four: the first could lie across for both.
 * @param codes where each finger stands
 */
function standsForBarre(codes: readonly number[]): boolean {
  const [first, second, third, last] = codes as readonly [number, number, number, number]
  if (first === 0 || second === 0 || third === 0 || last === 0) return false
  const fret = codeFret(first)
  // Strings that lie between may ring open: no finger lies across those.
  const apart = Math.max(codeTop(first) - codeLow(second), codeTop(second) - codeLow(first))
  return codeFret(second) === fret && apart === 1 && codeFret(third) > fret && codeFret(last) > fret
}

/** Share of an awkward hand's price where it belongs to a shape. */
export const SHAPE_SHARE = 0.4

/** Fingers 3 and 4 this many frets apart are for strong hands: not asked for up to this level. Common practice, no source. */
const WIDE_FRETS = 4
const EASY_LEVEL = 3

function fingerTerms(setup: Setup, requirement: Requirement, draft: Draft, add: AddTerm): void {
  gripTerms(setup, draft.pressed, draft.heldShape >= 0 ? SHAPE_SHARE : 1, ease(requirement, draft), add)
  const [third, last] = [3, 4].map((finger) => draft.pressed.find((p) => p.finger === finger))
  const apart = third && last ? last.fret - third.fret : 0
  if (apart >= WIDE_FRETS && requirement.level <= EASY_LEVEL)
    add('wideLastFingers', WEIGHTS.wideLastFingers, false, apart, 'frets')
  const weak = weakFingerPrice(draft)
  if (weak > 0) add('weakFinger', weak, false)
}

function pairTerms(
  setup: Setup,
  [f, a]: readonly [number, number],
  [g, b]: readonly [number, number],
  heldShape: readonly number[],
  share: number,
  add: AddTerm,
): void {
  const apart = codeFret(b) - codeFret(a)
  const excess = apart - Math.ceil(heldShape[g]! - heldShape[f]!)
  if (excess > 0) {
    const capo = setup.capo[0]!
    const { scaleLength } = setup.instrument
    const mm =
      fretFromNut(scaleLength, codeFret(b) + capo) - fretFromNut(scaleLength, codeFret(b) - excess + capo)
    add('stretch', (WEIGHTS.excess * mm) / 30, false, mm, 'mm')
    add('stretchHeld', (WEIGHTS.stretchBeat * mm) / 30, true, mm, 'mm')
  }
  // In chords neighbouring fingers stand on neighbouring frets on every neck.
  const crowded = g - f - 1 - apart
  if (crowded > 0) add('crowded', WEIGHTS.slack * crowded * share, false)
  if (apart === 0 && codeTop(b) > codeTop(a)) add('reversal', WEIGHTS.reversal * share, false)
}

/** The price of the weakest finger that something sounds under. */
export function weakFingerPrice({ melodyFinger, bassFinger, innerFinger }: Draft): number {
  return WEIGHTS.weakFinger[Math.max(melodyFinger, bassFinger, innerFinger)] ?? 0
}
