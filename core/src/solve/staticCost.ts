import { fingerCodes, codeFret, codeLow, codeTop, type Pressed } from '../grip/pressed.ts'
import { fretFromNut } from '../neck/geometry.ts'
import { pitchAt, type Place, type Setup } from '../neck/setup.ts'
import type { CostTerm } from '../model/arrangement.ts'
import type { Frame } from '../shapes/textbook.ts'
import { LEVEL_RULES, WEIGHTS } from './weights.ts'
import type { BassOption, Wish } from './wish.ts'

/** What `staticCost` needs to know of a candidate. */
export interface Draft {
  readonly pressed: readonly Pressed[]
  readonly position: number
  readonly melody: Place | undefined
  readonly melodyFinger: number
  readonly bass: BassOption | undefined
  readonly bassFinger: number
  readonly frame: number
}

/** Receives each term of a cost: once, or a beat. */
export type AddTerm = (
  term: string,
  cost: number,
  perBeat: boolean,
  quantity?: number,
  unit?: CostTerm['unit'],
) => void

/** Prices a grip on its own, without what comes before or after. The only place where these terms are defined. */
export function staticCost(setup: Setup, wish: Wish, draft: Draft, add: AddTerm): void {
  const rules = LEVEL_RULES[wish.level]
  fingering(setup, wish, draft, add)
  if (draft.pressed.length === 0) add('hover', WEIGHTS.hoverFret * (draft.position - 1), false)
  else if (draft.position > 1)
    add(
      'highPosition',
      rules.highFret * (draft.position - 1) * ease(wish, draft),
      false,
      draft.position,
      'frets',
    )
  if (draft.melody && draft.melody.string >= 4) add('melodyOnBassString', WEIGHTS.melodyOnBassString, false)
  if (draft.melody && draft.bass && draft.melody.string > draft.bass.place.string)
    add('crossedVoices', WEIGHTS.crossedVoices, false)
  bassTerms(wish, draft, add)
  frameTerms(setup, wish, draft, rules.frameBeat, add)
}

/** A pinned shape is wanted with its barre and where it stands. */
function ease(wish: Wish, draft: Draft): number {
  return wish.frames[draft.frame]?.pinned ? WEIGHTS.pinnedEase : 1
}

function fingering(setup: Setup, wish: Wish, draft: Draft, add: AddTerm): void {
  const { pressed } = draft
  const codes = fingerCodes(pressed)
  const textbookShare = draft.frame >= 0 ? 0.4 : 1
  const eased = ease(wish, draft)
  for (let f = 0; f < 4; f++) {
    const code = codes[f]!
    if (code === 0) continue
    const strings = codeLow(code) - codeTop(code) + 1
    if (strings > 1) {
      add('barre', (WEIGHTS.barre + WEIGHTS.barreString * (strings - 2)) * eased, false, strings, 'strings')
      add('barreHeld', WEIGHTS.barreBeat * (strings / 3) * eased, true, strings, 'strings')
    }
    const squeezed = f + 1 - codeFret(code)
    if (squeezed > 0) add('squeeze', WEIGHTS.squeeze * squeezed * textbookShare, false, squeezed, 'frets')
    for (let g = f + 1; g < 4; g++)
      if (codes[g] !== 0) pair(setup, f + 1, code, g + 1, codes[g]!, textbookShare, add)
  }
  const busiest = Math.max(draft.melodyFinger, draft.bassFinger)
  const weak = WEIGHTS.weakFinger[busiest] ?? 0
  if (weak > 0) add('weakFinger', weak, false)
}

function pair(setup: Setup, f: number, a: number, g: number, b: number, share: number, add: AddTerm): void {
  const apart = codeFret(b) - codeFret(a)
  const excess = apart - (g - f)
  if (excess > 0) {
    const capo = setup.capo[0]!
    const { scaleLength } = setup.instrument
    const mm =
      fretFromNut(scaleLength, codeFret(b) + capo) - fretFromNut(scaleLength, codeFret(b) - excess + capo)
    add('stretch', (WEIGHTS.excess * mm) / 30, false, mm, 'mm')
    add('stretchHeld', (WEIGHTS.stretchBeat * mm) / 30, true, mm, 'mm')
  } else if (excess < -1) add('crowded', WEIGHTS.slack * (-excess - 1) * share, false)
  if (apart === 0 && codeTop(b) > codeTop(a)) add('reversal', WEIGHTS.reversal * share, false)
}

function bassTerms(wish: Wish, draft: Draft, add: AddTerm): void {
  if (!wish.bass?.onset) return
  if (draft.bass) {
    if (draft.bass.price > 0) add(draft.bass.nonRoot ? 'nonRoot' : 'bassChoice', draft.bass.price, false)
    return
  }
  const { kind, change } = wish.bass
  if (kind === 'alternate') add('noBass', WEIGHTS.noAlternate, false)
  else add('noBass', change ? WEIGHTS.noRootAtChange : WEIGHTS.noRoot, false)
}

/** Leaving the textbook shape has a price where the shape could hold the note. */
function frameTerms(setup: Setup, wish: Wish, draft: Draft, frameBeat: number, add: AddTerm): void {
  const textbook = wish.frames[0]
  if (!textbook) return
  const firm = textbook.pinned ? WEIGHTS.pinnedFirm : 1
  if (draft.melody && wish.melody?.onset) {
    offShape(setup, textbook, draft.melody, draft.melodyFinger, add)
  }
  if (draft.bass && wish.bass?.onset) {
    offShape(setup, textbook, draft.bass.place, draft.bassFinger, add)
    if (wish.bass.kind === 'root' && !isShapeBass(textbook, draft.bass.place))
      add('otherBass', WEIGHTS.notTextbookBass * firm, false)
    if (
      wish.bass.kind === 'alternate' &&
      textbook.frets[draft.bass.place.string - 1] !== draft.bass.place.fret
    ) {
      add('alternateOffShape', WEIGHTS.alternateOffShape * firm, false)
    }
  }
  const frame = wish.frames[draft.frame]
  if (draft.frame > 0) add('otherShape', WEIGHTS.otherFrame, false)
  const held = frame ? heldOf(frame, draft.pressed) : 0
  const size = (frame ?? textbook).pressed.length
  if (size > held)
    add('shapeNotHeld', (frameBeat * firm * (size - held)) / size, true, size - held, 'fingers')
}

function offShape(setup: Setup, shape: Frame, place: Place, finger: number, add: AddTerm): void {
  const own = shape.pressed.find((p) => p.string === place.string && p.fret === place.fret)
  if (own) {
    if (own.finger !== finger) add('otherFinger', WEIGHTS.notTextbookFinger, false)
    return
  }
  if (shape.frets[place.string - 1] === place.fret) return
  const midi = pitchAt(setup, place)
  const offered = shape.frets.some(
    (fret, i) => fret !== null && pitchAt(setup, { string: i + 1, fret }) === midi,
  )
  if (offered) add('otherPlace', WEIGHTS.notTextbookPlace, false)
}

function isShapeBass(shape: Frame, place: Place): boolean {
  for (let string = shape.frets.length; string >= 1; string--) {
    const fret = shape.frets[string - 1]
    if (fret !== null && fret !== undefined) return string === place.string && fret === place.fret
  }
  return false
}

/** Fingers of the shape that the grip holds where the shape has them. */
export function heldOf(shape: Frame, pressed: readonly Pressed[]): number {
  return shape.pressed.filter((s) =>
    pressed.some((p) => p.string === s.string && p.fret === s.fret && p.finger === s.finger),
  ).length
}
