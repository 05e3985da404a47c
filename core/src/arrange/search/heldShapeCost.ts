import { present } from '../../invariant.ts'
import { pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { isPressed, type Pressed } from '../../hand/grip/pressed.ts'
import type { HeldShape } from '../../chords/textbook.ts'
import { hasBassStrings } from '../plan/styleRules.ts'
import type { Draft } from './draft.ts'
import type { AddTerm } from './addTerm.ts'
import { WEIGHTS, type LevelRules } from './weights.ts'
import type { Requirement } from './requirement.ts'

/** Leaving the textbook shape has a price where the shape could hold the note. */
export function heldShapeTerms(
  setup: Setup,
  requirement: Requirement,
  draft: Draft,
  rules: LevelRules,
  add: AddTerm,
): void {
  const textbook = requirement.heldShapes[0]
  if (!textbook) return
  const firm = textbook.pinned ? WEIGHTS.pinnedFirm : 1
  if (draft.melody && requirement.melody?.onset) {
    offShape(setup, textbook, draft.melody, draft.melodyFinger, rules.textbook, add)
  }
  if (draft.bass && requirement.bass?.onset) {
    offShape(setup, textbook, draft.bass.place, draft.bassFinger, rules.textbook, add)
    if (requirement.bass.kind === 'root' && !isShapeBass(textbook, draft.bass.place))
      add('otherBass', WEIGHTS.notTextbookBass * firm, false)
    if (
      requirement.bass.kind === 'alternate' &&
      textbook.frets[draft.bass.place.string - 1] !== draft.bass.place.fret
    ) {
      add('alternateOffShape', WEIGHTS.alternateOffShape * firm, false)
    }
  }
  const heldShape = requirement.heldShapes[draft.heldShape]
  if (draft.heldShape > 0) add('otherShape', WEIGHTS.otherShape, false)
  const held = heldShape ? heldOf(heldShape, draft.pressed) : 0
  const size = (heldShape ?? textbook).pressed.length
  if (size > held)
    add('shapeNotHeld', (rules.shapeBeat * firm * (size - held)) / size, true, size - held, 'fingers')
}

/** A voicing has its price where it is struck, and is to be held until the next. */
export function voicingTerms(setup: Setup, requirement: Requirement, draft: Draft, add: AddTerm): void {
  const heldShape = requirement.heldShapes[draft.heldShape]
  if (draft.strikes && heldShape) {
    if (heldShape.price) add('voicing', heldShape.price, false)
    if (
      hasBassStrings(setup.instrument) &&
      present(requirement.inner).firm &&
      heldShape.rooted === false &&
      requirement.heldShapes.some((f) => f.rooted)
    )
      add('inversionAtChange', WEIGHTS.inversionAtChange, false)
    return
  }
  if (requirement.heldShapes.length === 0 || present(requirement.inner).onset) return
  const size = heldShape ? heldShape.pressed.length : 1
  const lost = heldShape ? size - heldOf(heldShape, draft.pressed) : 1
  if (lost > 0) add('voicingNotHeld', (WEIGHTS.voicingBeat * lost) / size, true, lost, 'fingers')
}

function offShape(
  setup: Setup,
  shape: HeldShape,
  place: Place,
  finger: number,
  share: number,
  add: AddTerm,
): void {
  const own = shape.pressed.find((p) => p.string === place.string && p.fret === place.fret)
  if (own) {
    if (own.finger !== finger) add('otherFinger', WEIGHTS.notTextbookFinger * share, false)
    return
  }
  if (shape.frets[place.string - 1] === place.fret) return
  const midi = pitchAt(setup, place)
  const offered = shape.frets.some(
    (fret, i) => fret !== null && pitchAt(setup, { string: i + 1, fret }) === midi,
  )
  if (offered) add('otherPlace', WEIGHTS.notTextbookPlace * share, false)
}

function isShapeBass(shape: HeldShape, place: Place): boolean {
  for (let string = shape.frets.length; string >= 1; string--) {
    const fret = shape.frets[string - 1]
    if (fret !== null && fret !== undefined) return string === place.string && fret === place.fret
  }
  return false
}

/** Fingers of the shape that the grip holds where the shape has them. */
export function heldOf(shape: HeldShape, pressed: readonly Pressed[]): number {
  return shape.pressed.filter((p) => isPressed(pressed, p)).length
}
